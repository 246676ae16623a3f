import type { Edges, Nodes } from './ownership.ts';

/** Of the values of a kind, so many name no more than what is taken for usual, and so many times that is beyond it. */
const NEARLY_ALL = 0.98;
const TIMES = 4;
/** Fewer are no crowd, whatever is usual. */
const CROWD = 8;

/**
 * Links that name far more than others of their kind do: a number that is none, a day that looks like one, a listing. They tie nothing. Business numbers may name as much as they like.
 *
 * @returns 1 for each node that is one
 */
export function hubs(nodes: Nodes, edges: Edges): Uint8Array {
  const degree = new Uint32Array(nodes.length);
  for (let e = 0; e < edges.length; e++) {
    degree[edges.a[e]!]!++;
    degree[edges.b[e]!]!++;
  }
  const byKind = new Map<number, number[]>();
  const isLink = (i: number): boolean => !nodes.business[i] && !nodes.shared[i] && !nodes.leased[i];
  for (let i = 0; i < nodes.length; i++) {
    if (!isLink(i) || degree[i] === 0) continue;
    const own = byKind.get(nodes.kind[i]!);
    if (own) own.push(degree[i]!);
    else byKind.set(nodes.kind[i]!, [degree[i]!]);
  }
  const most = new Map<number, number>();
  for (const [kind, own] of byKind) {
    const sorted = Uint32Array.from(own).sort();
    most.set(kind, TIMES * Math.max(CROWD, sorted[Math.floor(NEARLY_ALL * (sorted.length - 1))]!));
  }
  const found = new Uint8Array(nodes.length);
  for (let i = 0; i < nodes.length; i++) if (isLink(i) && degree[i]! > (most.get(nodes.kind[i]!) ?? Infinity)) found[i] = 1;
  return found;
}
