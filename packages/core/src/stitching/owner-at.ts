import type { Graph } from './graph.ts';
import type { Leases } from './leases.ts';

/** The founder's key of the strand that a record belongs to by its home and time, NaN for none. */
export type OwnerAt = (home: number, at: number) => number;

/**
 * Who owns a record, by its home and time.
 *
 * @param owner founder's node by node, -1 for none; `leases` holds instead for reused keys
 */
export function ownerAtOf(graph: Pick<Graph, 'node' | 'keyOf'>, owner: Int32Array, leases: Leases): OwnerAt {
  return (home, at) => {
    const node = graph.node(home);
    if (node < 0) return NaN;
    const lasting = owner[node] ?? -1;
    const founder = lasting >= 0 ? lasting : leases.ownerAt(node, at);
    return founder >= 0 ? graph.keyOf(founder) : NaN;
  };
}

/** The place in a list of founders of the strand that a record belongs to, -1 for none of them. */
export function strandOf(founders: readonly number[], ownerAt: OwnerAt): (home: number, at: number) => number {
  const places = new Map(founders.map((founder, place) => [founder, place]));
  return (home, at) => places.get(ownerAt(home, at)) ?? -1;
}
