import type { Duration, Microseconds } from '../units.ts';
import { byTime } from './by-time.ts';
import { hubs } from './hubs.ts';
import { LeaseList, type Leases } from './leases.ts';

/** Identifiers that tie, in columns; an index stands for one. Times in microseconds. */
export interface Nodes {
  key: Float64Array;
  /** Small number of its kind; business identifiers of one kind guard each other. */
  kind: Uint16Array;
  business: Uint8Array;
  /** Whether a value is named by many and ties nothing. */
  shared: Uint8Array;
  /** Whether a value is used again and again. */
  leased: Uint8Array;
  /** Lease of such a node in microseconds. */
  leaseOf(node: number): Duration;
  born: Float64Array;
  length: number;
}

/** Records that name two identifiers, in columns; `a` and `b` are indexes of nodes. */
export interface Edges {
  a: Uint32Array;
  b: Uint32Array;
  first: Float64Array;
  last: Float64Array;
  length: number;
}

export interface Ownership {
  /** For each node the founder of its strand, -1 for none; leased nodes have their leases instead. Where no business identifier is, the first link founds it. */
  founder: Int32Array;
  leases: Leases;
  /** Pairs of founders whose strands name each other, with the edge that tells. */
  relations: { founder: number; other: number; edge: number }[];
}

/** Clocks that nobody has compared yet may be off by so much: what is born within it is born together. */
const TOGETHER: Microseconds = 10_000_000;
/** A strand that was silent for longer is not under way any more: what names it asks about it. */
const LIVING: Microseconds = 60_000_000;
/** A lease reaches a little before its first and beyond its last mention: the ends of a use are logged a moment late or early. */
const SLACK: Microseconds = 250_000;

/**
 * Which strand each identifier belongs to.
 *
 * Edges are taken in the order of their first record, as in Kruskal's spanning forest, so a join is decided by what
 * was known at that time: two parts that own business identifiers join only where one of them is born in that very
 * record and they are of different kinds. A link that names several business identifiers of one kind
 * belongs to the one that was born in it, if that is exactly one. Deterministic for a given set of nodes and edges.
 *
 * @param same nodes that are of one strand whatever their kinds, two by two: dialogs of one call
 */
export function ownership(nodes: Nodes, edges: Edges, same: readonly number[] = []): Ownership {
  const parent = new Uint32Array(nodes.length);
  /** Of each part the node that was born first. */
  const first = new Uint32Array(nodes.length);
  const founder = new Int32Array(nodes.length).fill(-1);
  const bits = kindBits(nodes);
  const kinds = new Uint32Array(nodes.length);
  /** Of each part when it was last named together with something, as far as edges were taken. */
  const last = nodes.born.slice(0, nodes.length);
  for (let i = 0; i < nodes.length; i++) {
    parent[i] = i;
    first[i] = i;
    if (!nodes.business[i]) continue;
    founder[i] = i;
    kinds[i] = bits.get(nodes.kind[i]!)!;
  }
  const find = (start: number): number => {
    let node = start;
    while (parent[node] !== node) {
      parent[node] = parent[parent[node]!]!;
      node = parent[node]!;
    }
    return node;
  };
  const before = (x: number, y: number): boolean =>
    nodes.born[x]! < nodes.born[y]! || (nodes.born[x] === nodes.born[y] && nodes.key[x]! < nodes.key[y]!);
  const join = (x: number, y: number): void => {
    const keep = founder[x]! >= 0 && (founder[y]! < 0 || before(founder[x]!, founder[y]!)) ? x : founder[y]! >= 0 ? y : Math.min(x, y);
    const other = keep === x ? y : x;
    parent[other] = keep;
    if (before(first[other]!, first[keep]!)) first[keep] = first[other]!;
    kinds[keep]! |= kinds[other]!;
    last[keep] = Math.max(last[keep]!, last[other]!);
  };
  /** One of two parts is born just then, the other one is under way. */
  const bornIn = (x: number, y: number, at: Microseconds): boolean =>
    (at - nodes.born[first[x]!]! <= TOGETHER && at - last[y]! <= LIVING) || (at - nodes.born[first[y]!]! <= TOGETHER && at - last[x]! <= LIVING);

  for (let i = 0; i + 1 < same.length; i += 2) {
    const [x, y] = [find(same[i]!), find(same[i + 1]!)];
    if (x !== y) join(x, y);
  }
  const order = sortedEdges(nodes, edges);
  const onePart = new Map(same.map((node) => [node, find(node)]));
  const partOf = (node: number): number => onePart.get(node) ?? node;
  const crowded = crowdedLinks(nodes, edges, partOf);
  const hub = hubs(nodes, edges);
  // of edges there are many: those that tie nothing from the front, those of reused keys from the back, each at its own edge's place at most
  const aside = new Uint32Array(edges.length);
  let keptCount = 0;
  let anchorCount = 0;
  for (const edge of order) {
    const a = edges.a[edge]!;
    const b = edges.b[edge]!;
    if (nodes.leased[a] || nodes.leased[b]) {
      aside[edges.length - ++anchorCount] = edge;
      continue;
    }
    if (hub[a] || hub[b]) {
      aside[keptCount++] = edge;
      continue;
    }
    const x = find(a);
    const y = find(b);
    if (x === y) {
      last[x] = Math.max(last[x]!, edges.first[edge]!);
      continue;
    }
    if (founder[x]! >= 0 && founder[y]! >= 0) {
      const rivals = (kinds[x]! & kinds[y]!) !== 0;
      if (!rivals && bornIn(x, y, edges.first[edge]!)) join(x, y);
      else aside[keptCount++] = edge;
    } else if (allowedByCrowd(nodes, crowded, a, b, partOf)) join(x, y);
    else aside[keptCount++] = edge;
  }

  for (let i = 0; i < nodes.length; i++) {
    const part = find(i);
    if (founder[part]! < 0 && !nodes.shared[i] && !nodes.leased[i]) founder[part] = first[part]!;
  }
  const founderOf = (node: number): number => founder[find(node)]!;
  const leased = new LeaseList();
  const anchors = aside.subarray(edges.length - anchorCount).reverse();
  for (const { node, list } of byLeased(nodes, edges, anchors)) addLeases(node, list, nodes, edges, founderOf, leased);
  const relations: Ownership['relations'] = [];
  for (const edge of aside.subarray(0, keptCount)) {
    const relation = { founder: founderOf(edges.a[edge]!), other: founderOf(edges.b[edge]!), edge };
    if (relation.founder >= 0 && relation.other >= 0 && relation.founder !== relation.other) relations.push(relation);
  }
  // in place: a root is its own, and reused keys are none
  for (let node = 0; node < nodes.length; node++) founder[node] = nodes.leased[node] ? -1 : founderOf(node);
  return { founder, leases: leased.leases(), relations };
}

/** The end of an edge that is used again and again, the first one if both are. */
const leasedEnd = (nodes: Nodes, edges: Edges, edge: number): number => (nodes.leased[edges.a[edge]!] ? edges.a : edges.b)[edge]!;

/** Edges of reused keys by their node, in the order in which they are given. */
function* byLeased(nodes: Nodes, edges: Edges, anchors: Uint32Array): Iterable<{ node: number; list: Uint32Array }> {
  const ends = new Uint32Array(nodes.length + 1);
  for (const edge of anchors) ends[leasedEnd(nodes, edges, edge) + 1]!++;
  for (let node = 0; node < nodes.length; node++) ends[node + 1]! += ends[node]!;
  const sorted = new Uint32Array(anchors.length);
  for (const edge of anchors) sorted[ends[leasedEnd(nodes, edges, edge)]!++] = edge;
  // each has moved on to where the next one began
  for (let node = 0, from = 0; node < nodes.length; node++) {
    const to = ends[node]!;
    if (to > from) yield { node, list: sorted.subarray(from, to) };
    from = to;
  }
}

/** A bit for each kind of business identifier; beyond 31 kinds the last bit is shared, so that two of those never join by birth alone. */
function kindBits(nodes: Nodes): Map<number, number> {
  const bits = new Map<number, number>();
  for (let i = 0; i < nodes.length; i++) {
    const kind = nodes.kind[i]!;
    if (nodes.business[i] && !bits.has(kind)) bits.set(kind, 1 << Math.min(31, bits.size));
  }
  return bits;
}

function sortedEdges(nodes: Nodes, edges: Edges): Uint32Array {
  const low = (e: number): number => Math.min(nodes.key[edges.a[e]!]!, nodes.key[edges.b[e]!]!);
  const high = (e: number): number => Math.max(nodes.key[edges.a[e]!]!, nodes.key[edges.b[e]!]!);
  return byTime(edges.first, edges.length, (x, y) => low(x) - low(y) || high(x) - high(y));
}

/** For links that name several business identifiers of one kind: the one that was born in it, or -1. In columns, since links are many. */
function crowdedLinks(nodes: Nodes, edges: Edges, partOf: (node: number) => number): Map<number, number> {
  const first = new Int32Array(nodes.length).fill(-1);
  /** Of links that name business identifiers of several kinds: the first of each further kind. */
  const further = new Map<number, Map<number, number>>();
  const several = new Set<number>();
  const newborn = new Int32Array(nodes.length).fill(NONE);
  for (let e = 0; e < edges.length; e++) {
    let link = edges.a[e]!;
    let business = edges.b[e]!;
    if (nodes.business[link]) [link, business] = [business, link];
    if (nodes.business[link] || !nodes.business[business] || nodes.leased[link]) continue;
    business = partOf(business);
    if (nodes.born[business]! >= edges.first[e]!) newborn[link] = newborn[link] === NONE || newborn[link] === business ? business : MANY;
    const one = first[link]!;
    if (one < 0) first[link] = business;
    else if (one === business) continue;
    else if (nodes.kind[one] === nodes.kind[business]) several.add(link);
    else {
      let others = further.get(link);
      if (!others) further.set(link, (others = new Map()));
      const known = others.get(nodes.kind[business]!);
      if (known === undefined) others.set(nodes.kind[business]!, business);
      else if (known !== business) several.add(link);
    }
  }
  const crowded = new Map<number, number>();
  for (const link of several) crowded.set(link, newborn[link]! >= 0 ? newborn[link]! : -1);
  return crowded;
}
const NONE = -1;
const MANY = -2;

function allowedByCrowd(nodes: Nodes, crowded: Map<number, number>, a: number, b: number, partOf: (node: number) => number): boolean {
  const only = (link: number, business: number): boolean => {
    const owner = crowded.get(link);
    return owner === undefined || owner === partOf(business);
  };
  if (nodes.business[a] && !nodes.business[b]) return only(b, a);
  if (nodes.business[b] && !nodes.business[a]) return only(a, b);
  return true;
}

/** The spans in which a reused key belongs to one strand: from mention to mention, a little slack around, never overlapping. */
function addLeases(node: number, list: Uint32Array, nodes: Nodes, edges: Edges, founderOf: (node: number) => number, into: LeaseList): void {
  const { key } = nodes;
  const lease = nodes.leaseOf(node);
  const spans: { founder: number; from: Microseconds; to: Microseconds }[] = [];
  for (const edge of list) {
    const founder = founderOf((edges.a[edge] === node ? edges.b : edges.a)[edge]!);
    if (founder >= 0) spans.push({ founder, from: edges.first[edge]!, to: edges.last[edge]! });
  }
  spans.sort((x, y) => x.from - y.from || x.to - y.to || key[x.founder]! - key[y.founder]!);
  const merged: typeof spans = [];
  for (const span of spans) {
    const previous = merged[merged.length - 1];
    if (previous && previous.founder === span.founder) previous.to = Math.max(previous.to, span.to);
    else merged.push({ ...span });
  }
  merged.forEach((span, i) => {
    const previous = merged[i - 1];
    const next = merged[i + 1];
    const room = previous ? Math.max(0, span.from - previous.to) : Infinity;
    const after = next ? Math.max(0, next.from - span.to) : Infinity;
    const trail = span.to > span.from ? SLACK : lease;
    const to = span.to + Math.min(trail, span.to > span.from ? after / 2 : Math.max(0, after - 1));
    into.add(node, span.founder, span.from - Math.min(SLACK, room / 2), to);
  });
}
