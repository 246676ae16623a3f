import type { IdentifierKind } from '../identifiers/types.ts';
import { carriedRecords } from '../stitching/carried-records.ts';
import { Graph, type GraphKind } from '../stitching/graph.ts';
import { overJoining, type OverJoining } from '../stitching/guard.ts';
import { ownership, type Ownership } from '../stitching/ownership.ts';
import { ownerAtOf, type OwnerAt } from '../stitching/owner-at.ts';
import type { HeldSource } from './held-source.ts';
import type { HeldRecord } from './types.ts';

/** What belongs together: all identifiers of the sources, and who owns each. */
export interface Tied {
  graph: Graph;
  found: Ownership;
  ownerAt: OwnerAt;
  /** By key. */
  names: Map<number, { kind: number; value: string; count: number }>;
  joining: OverJoining[];
}

/** Ties all that sources name together. */
export function tieTogether(sources: readonly HeldSource[], kinds: readonly IdentifierKind[]): Tied {
  const graph = new Graph(new Map(kinds.map((kind, index): [number, GraphKind] => [index, graphKind(kind)])));
  const names: Tied['names'] = new Map();
  for (const { named } of sources) {
    for (const [key, { kind, value, first, last, count }] of named.sightings) {
      graph.see(key, kind, first, last);
      const known = names.get(key);
      if (known) known.count += count;
      else names.set(key, { kind, value, count });
    }
  }
  for (const { named } of sources) for (const own of named.pairs.values()) for (const { a, b, first, last } of own) graph.tie(a, b, first, last);
  const found = ownership(graph.nodes(), graph.edges());
  const ownerAt = ownerAtOf(graph, found.founder, found.leases);
  return { graph, found, ownerAt, names, joining: overJoining(graph.nodes(), graph.edges(), graph.isLinkKind, graph.mostTogether) };
}
const graphKind = ({ role, leaseMs }: IdentifierKind): GraphKind => ({
  business: role === 'business',
  shared: role === 'shared',
  lease: leaseMs === null ? NaN : leaseMs * 1000,
});

/** Records of each strand by its founder's key, in order of time; without those that are carried over where these are not asked for. */
export function gathered(sources: readonly HeldSource[], ownerAt: OwnerAt, carrying: boolean): Map<number, HeldRecord[]> {
  const strands = new Map<number, HeldRecord[]>();
  const put = (founder: number, record: HeldRecord): void => {
    if (Number.isNaN(founder)) return;
    const own = strands.get(founder);
    if (own) own.push(record);
    else strands.set(founder, [record]);
  };
  for (const { records } of sources) {
    for (const record of records) if (!Number.isNaN(record.home)) put(ownerAt(record.home, record.at), record);
    if (carrying) carry(records, ownerAt, put);
  }
  for (const own of strands.values()) own.sort((a, b) => a.at - b.at || a.id - b.id);
  return strands;
}
function carry(records: readonly HeldRecord[], ownerAt: OwnerAt, put: (founder: number, record: HeldRecord) => void): void {
  const lanes = records.filter((one) => one.lane !== null).sort((a, b) => a.id - b.id);
  const found = carriedRecords(
    {
      at: lanes.map((one) => one.at),
      home: lanes.map((one) => one.home),
      lane: lanes.map((one) => one.lane!),
      shape: lanes.map((one) => one.shape),
      length: lanes.length,
    },
    ownerAt,
  );
  found.forEach((from, i) => from >= 0 && put(ownerAt(lanes[from]!.home, lanes[i]!.at), lanes[i]!));
}
