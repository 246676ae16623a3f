import { NO_CHILDREN, type TreeNode } from './types.ts';

const KINDS = ['object', 'list', 'text', 'number', 'truth', 'nothing', 'element', 'attribute'] as const satisfies TreeNode['kind'][];
const PLACES = Object.fromEntries(KINDS.map((kind, i) => [kind, i])) as Record<TreeNode['kind'], number>;

/** A tree as a few long arrays: handed from a worker to the page at once, instead of node by node. */
export interface FlatTree {
  kinds: Uint8Array;
  children: Uint32Array;
  /** Lengths of name and value of each node in `text`. */
  lengths: Uint32Array;
  text: string;
}

/** Nodes from the root down, each before its children. */
export function flattened(root: TreeNode): FlatTree {
  const nodes: TreeNode[] = [];
  const stack = [root];
  for (let node = stack.pop(); node; node = stack.pop()) {
    nodes.push(node);
    for (let i = node.children.length - 1; i >= 0; i--) stack.push(node.children[i]!);
  }
  const lengths = new Uint32Array(nodes.length * 2);
  const kinds = new Uint8Array(nodes.length);
  const children = new Uint32Array(nodes.length);
  const texts: string[] = [];
  for (let i = 0; i < nodes.length; i++) {
    const { name, value, kind, children: own } = nodes[i]!;
    lengths[2 * i] = name.length;
    lengths[2 * i + 1] = value.length;
    kinds[i] = PLACES[kind];
    children[i] = own.length;
    texts.push(name, value);
  }
  return { kinds, children, lengths, text: texts.join('') };
}

/** The tree that was flattened. */
export function unflattened({ kinds, children, lengths, text }: FlatTree): TreeNode {
  let next = 0;
  let at = 0;
  const take = (length: number): string => text.slice(at, (at += length));
  const node = (): TreeNode => {
    const i = next++;
    let left = children[i]!;
    const own: TreeNode = {
      name: take(lengths[2 * i]!),
      kind: KINDS[kinds[i]!]!,
      value: take(lengths[2 * i + 1]!),
      children: left > 0 ? [] : NO_CHILDREN,
    };
    for (; left > 0; left--) own.children.push(node());
    return own;
  };
  return node();
}
