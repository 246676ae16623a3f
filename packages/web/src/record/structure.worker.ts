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
  const told: StructureTold = { number: data.number, parts: partsOfMessage(data.text) };
  self.postMessage(told);
};
