import { bisector } from 'd3-array';
import type { Graph } from '@fadenweg/core';
import type { OwnerAt } from './carry.ts';
import { partsOf } from './lease-text.ts';

/** By its home and time, the founder's key of the strand that a record belongs to, NaN for none. */
export function ownerAtOf(graph: Pick<Graph, 'node' | 'keyOf'>, owner: Int32Array, leases: ReadonlyMap<number, string>): OwnerAt {
  const spans = new Map<number, { founder: number; from: number; to: number }[]>();
  for (const [node, text] of leases) {
    const own = partsOf(text).map((part) => {
      const [founder, from, to] = part.split(' ').map(Number);
      return { founder: founder!, from: from!, to: to! };
    });
    spans.set(
      node,
      own.sort((a, b) => a.from - b.from),
    );
  }
  const beginOf = bisector((span: { from: number }) => span.from);
  return (home, at) => {
    const node = graph.node(home);
    if (node < 0) return NaN;
    const founder = owner[node]!;
    if (founder >= 0) return graph.keyOf(founder);
    const own = spans.get(node);
    const span = own?.[beginOf.right(own, at) - 1];
    return span && at <= span.to ? span.founder : NaN;
  };
}

/** The place in a list of founders of the strand that a record belongs to, -1 for none of them. */
export function strandOf(founders: readonly number[], ownerAt: OwnerAt): (home: number, at: number) => number {
  const places = new Map(founders.map((founder, place) => [founder, place]));
  return (home, at) => places.get(ownerAt(home, at)) ?? -1;
}
