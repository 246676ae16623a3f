import type { Trace } from './traces/types.ts';

export interface TreeNode {
  /** Of a member, an element, an attribute (`@name`); the index in a list; '' for the root of JSON and for text beside elements. */
  name: string;
  kind: 'object' | 'list' | 'text' | 'number' | 'truth' | 'nothing' | 'element' | 'attribute';
  /** Of a leaf; of an element its own text. */
  value: string;
  children: TreeNode[];
}
export interface Broken {
  /** In the message, in UTF-16 units. */
  at: number;
  why: string;
}
/** A stretch of a message. */
export type Part = { kind: 'text'; from: number; to: number } | { kind: 'trace'; from: number; to: number; trace: Trace } | TreePart;
export interface TreePart {
  kind: 'json' | 'xml';
  from: number;
  to: number;
  root: TreeNode;
  nodes: number;
  broken: Broken | null;
}

/** Deeper nodes are left out, and said to be. */
export const DEEPEST = 100;
/** More nodes are left out, and said to be. */
export const MOST_NODES = 200_000;
