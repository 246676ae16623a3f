import { partsOfMessage, type Part } from '@fadenweg/core/structure';

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

/** Lines of what is worked out before anything is asked, and how often: code that has run is compiled. A message that comes meanwhile waits for one round. */
const LINES = 400;
const ROUNDS = 12;
const lines = <T>(line: (i: number) => T): T[] => Array.from({ length: LINES }, (_, i) => line(i));
const TEXTS = [
  JSON.stringify({
    lines: lines((i) => ({ no: i, name: `article "${i}"`, price: i * 1.25, off: -0.5, note: null, tags: ['a', 'b'], last: i % 2 === 0 })),
  }),
  `<order>${lines((i) => `<line no="${i}" of="a"><article>name ${i}</article><note>a &amp; b</note></line>`).join('')}</order>`,
];
function warmUp(rounds: number): void {
  for (const text of TEXTS) partsOfMessage(text);
  if (rounds > 1) setTimeout(() => warmUp(rounds - 1));
}
warmUp(ROUNDS);
