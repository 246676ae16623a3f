import { flattened, partsOfMessage, type FlatTree, type Part, type TreePart } from '@fadenweg/core';

/** Works a message's structure out beside the page, so that two megabytes do not hold it up. */
export interface StructureAsked {
  number: number;
  text: string;
}
export interface StructureTold {
  number: number;
  parts: FlatPart[];
}
/** Trees are told flat. */
export type FlatPart = Exclude<Part, TreePart> | (Omit<TreePart, 'root'> & { tree: FlatTree });
const flat = (part: Part): FlatPart => {
  if (!('root' in part)) return part;
  const { root, ...rest } = part;
  return { ...rest, tree: flattened(root) };
};
self.onmessage = ({ data }: MessageEvent<StructureAsked>): void => {
  const parts = partsOfMessage(data.text).map(flat);
  const buffers = parts.flatMap((part) => ('tree' in part ? [part.tree.kinds.buffer, part.tree.children.buffer, part.tree.lengths.buffer] : []));
  self.postMessage({ number: data.number, parts } satisfies StructureTold, { transfer: buffers });
};
