import { partsOfMessage, type Part } from '@fadenweg/core';

/** Works a message's structure out beside the page, so that two megabytes do not hold it up. */
export interface StructureAsked {
  number: number;
  text: string;
}
export interface StructureTold {
  number: number;
  parts: Part[];
}
self.onmessage = ({ data }: MessageEvent<StructureAsked>): void => {
  const parts = partsOfMessage(data.text);
  const buffers = parts.flatMap((part) => ('tree' in part ? [part.tree.cells.buffer] : []));
  self.postMessage({ number: data.number, parts } satisfies StructureTold, { transfer: buffers });
};

/** Lines of what is worked out before anything is asked: code that has run is compiled, and the first large message takes a third less. */
const LINES = 400;
const lines = <T>(line: (i: number) => T): T[] => Array.from({ length: LINES }, (_, i) => line(i));
const JSON_TEXT = JSON.stringify({
  lines: lines((i) => ({ no: i, name: `article ${i}`, price: i * 1.25, note: null, tags: ['a', 'b'], last: false })),
});
const XML_TEXT = `<order>${lines((i) => `<line no="${i}" of="a"><article>name ${i}</article><note>a &amp; b</note></line>`).join('')}</order>`;
for (const text of [JSON_TEXT, XML_TEXT, JSON_TEXT, XML_TEXT]) partsOfMessage(text);
