import type { Graph, Leases } from '@fadenweg/core/stitching';

/** Strands that are judged in one go, at most: what is kept of each until they are stored is bounded by it. */
export const MOST_OF_A_SLICE = 60_000;

/** Strands by their founders, and between which moments records name what belongs to them. */
export interface Slice {
  founders: readonly number[];
  from: number;
  to: number;
}

/** Many strands in the order in which they were born, so that a slice's records lie close to each other. */
export function slicesOf(
  founders: readonly number[],
  graph: Pick<Graph, 'node' | 'keyOf' | 'bornAt' | 'lastAt'>,
  owner: Int32Array,
  leases: Leases,
  most = MOST_OF_A_SLICE,
): Slice[] {
  if (founders.length <= most) return [{ founders, from: -Infinity, to: Infinity }];
  const bornAt = (founder: number): number => {
    const node = graph.node(founder);
    return node < 0 ? -Infinity : graph.bornAt(node);
  };
  const sorted = founders.map((founder) => ({ founder, at: bornAt(founder) })).sort((a, b) => a.at - b.at || a.founder - b.founder);
  const slices: Slice[] = [];
  const sliceOf = new Map<number, Slice>();
  for (let i = 0; i < sorted.length; i += most) {
    const slice = { founders: sorted.slice(i, i + most).map((one) => one.founder), from: Infinity, to: -Infinity };
    slices.push(slice);
    for (const founder of slice.founders) sliceOf.set(founder, slice);
  }
  const reaches = (founder: number, from: number, to: number): void => {
    const slice = sliceOf.get(founder);
    if (!slice) return;
    slice.from = Math.min(slice.from, from);
    slice.to = Math.max(slice.to, to);
  };
  for (let node = 0; node < owner.length; node++) if (owner[node]! >= 0) reaches(graph.keyOf(owner[node]!), graph.bornAt(node), graph.lastAt(node));
  for (let i = 0; i < leases.length; i++) reaches(graph.keyOf(leases.founder[i]!), leases.from[i]!, leases.to[i]!);
  return slices;
}
