import type { FlatTree } from './flat.ts';
import type { Trace } from './traces/types.ts';

export interface TreeNode {
  /** Of a member, an element, an attribute (`@name`); the index in a list; '' for the root of JSON and for text beside elements. */
  name: string;
  kind: 'object' | 'list' | 'text' | 'number' | 'truth' | 'nothing' | 'element' | 'attribute';
  /** Of a leaf; of an element its own text. */
  value: string;
  children: readonly TreeNode[];
}

export interface Broken {
  /** In the message, in UTF-16 units. */
  at: number;
  why: string;
}
/** A stretch of a message. */
export type Part =
  | { kind: 'text'; from: number; to: number }
  | { kind: 'trace'; from: number; to: number; trace: Trace }
  | { kind: 'headers' | 'sdp' | 'pairs'; from: number; to: number; rows: Listed[] }
  | { kind: 'table'; from: number; to: number; /** Empty where there is none. */ head: string[]; rows: string[][] }
  | { kind: 'plan'; from: number; to: number; nodes: PlanNode[] }
  | { kind: 'sql'; from: number; to: number; statement: string; parameters: Listed[] }
  | TreePart;
/** A name with its value; '' for the line of a request or answer above headers. */
export interface Listed {
  name: string;
  value: string;
  /** What the name stands for, where that is not plain. */
  means?: string;
}
/** A node of a database server's plan, in the order in which they are written. */
export interface PlanNode {
  depth: number;
  what: string;
  /** Conditions, keys, buffers, as they are written. */
  details: string[];
  /** Estimated: whole cost, rows for each loop. */
  cost: number;
  rows: number;
  /** Measured in all loops together, null where it was not. */
  actualRows: number | null;
  loops: number | null;
  totalMs: number | null;
  /** Without the nodes below it. */
  ownMs: number | null;
}
export interface TreePart {
  kind: 'json' | 'xml';
  from: number;
  to: number;
  tree: FlatTree;
  nodes: number;
  broken: Broken | null;
}

/** Deeper nodes are left out, and said to be. */
export const DEEPEST = 100;
/** More nodes are left out, and said to be. */
export const MOST_NODES = 200_000;
