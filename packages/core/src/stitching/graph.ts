import type { Edges, Nodes } from './ownership.ts';

/** What the graph has to know of an identifier kind, by the small number under which it is stored. */
export interface GraphKind {
  business: boolean;
  shared: boolean;
  /** Microseconds, NaN where a value is never used again. */
  lease: number;
  /** How many values of it may be one strand: dialogs of a call; 1 where it is left out. */
  together?: number;
}

/** A table of places grows when more than three in four of them are taken. */
const FULL = 4 / 3;

/**
 * All identifiers and the pairs that records name together, in columns: about 40 bytes an identifier, as many a pair.
 * Adding the same again changes nothing, so what is told twice does no harm.
 */
export class Graph {
  private key = new Float64Array(1024);
  private kind = new Uint16Array(1024);
  private born = new Float64Array(1024);
  private last = new Float64Array(1024);
  private count = 0;
  private slots = new Int32Array(4096).fill(-1);
  private edgeA = new Uint32Array(1024);
  private edgeB = new Uint32Array(1024);
  private edgeFirst = new Float64Array(1024);
  private edgeLast = new Float64Array(1024);
  private edgeCount = 0;
  private same: number[] = [];
  private edgeSlots = new Int32Array(4096).fill(-1);

  constructor(private readonly kinds: ReadonlyMap<number, GraphKind>) {}

  get size(): number {
    return this.count;
  }
  keyOf = (node: number): number => this.key[node]!;
  kindOf = (node: number): number => this.kind[node]!;
  bornAt = (node: number): number => this.born[node]!;
  lastAt = (node: number): number => this.last[node]!;

  /** The node of a key, -1 if it was never seen. */
  node(key: number): number {
    const mask = this.slots.length - 1;
    for (let slot = spread(key) & mask; ; slot = (slot + 1) & mask) {
      const node = this.slots[slot]!;
      if (node < 0 || this.key[node] === key) return node;
    }
  }

  /** An identifier was seen between two moments. Returns its node. */
  see(key: number, kind: number, first: number, last: number): number {
    let node = this.node(key);
    if (node < 0) {
      node = this.addNode(key, kind);
      this.born[node] = first;
      this.last[node] = last;
    } else {
      if (first < this.born[node]!) this.born[node] = first;
      if (last > this.last[node]!) this.last[node] = last;
    }
    return node;
  }

  /** Two identifiers, both seen before, were named by one record or more between two moments. */
  tie(keyA: number, keyB: number, first: number, last: number): void {
    const a = this.node(keyA);
    const b = this.node(keyB);
    if (a < 0 || b < 0) throw new RangeError('an identifier has to be seen before it is tied');
    const mask = this.edgeSlots.length - 1;
    let slot = spread(a * 2654435761 + b) & mask;
    for (; ; slot = (slot + 1) & mask) {
      const edge = this.edgeSlots[slot]!;
      if (edge < 0) break;
      if (this.edgeA[edge] !== a || this.edgeB[edge] !== b) continue;
      if (first < this.edgeFirst[edge]!) this.edgeFirst[edge] = first;
      if (last > this.edgeLast[edge]!) this.edgeLast[edge] = last;
      return;
    }
    if (this.edgeCount === this.edgeA.length) this.growEdges();
    const edge = this.edgeCount++;
    this.edgeA[edge] = a;
    this.edgeB[edge] = b;
    this.edgeFirst[edge] = first;
    this.edgeLast[edge] = last;
    this.edgeSlots[slot] = edge;
    if (this.edgeCount * FULL > this.edgeSlots.length) this.rehashEdges();
  }

  /** These keys, two by two, are of one strand whatever their kinds; those that were said before are no more. Keys that were never seen are passed over. */
  join(pairs: readonly (readonly [number, number])[]): void {
    this.same = pairs.flatMap(([a, b]) => {
      const nodes = [this.node(a), this.node(b)];
      return nodes.includes(-1) ? [] : nodes;
    });
  }
  /** Nodes that are of one strand, two by two. */
  joined(): readonly number[] {
    return this.same;
  }
  /**
   * Pairs of some keys that records name together, or that one and the same link is named with.
   *
   * @param most links that are named with more of them tell nothing
   */
  together(of: ReadonlySet<number>, most: number): [number, number][] {
    const pairs: [number, number][] = [];
    const byLink = new Map<number, number[]>();
    for (let edge = 0; edge < this.edgeCount; edge++) {
      const [a, b] = [this.edgeA[edge]!, this.edgeB[edge]!];
      const [hasA, hasB] = [of.has(this.key[a]!), of.has(this.key[b]!)];
      if (hasA && hasB) pairs.push([this.key[a]!, this.key[b]!]);
      else if (hasA || hasB) {
        const [link, own] = hasA ? [b, this.key[a]!] : [a, this.key[b]!];
        if (!this.isLinkKind(this.kind[link]!) || !Number.isNaN(this.kinds.get(this.kind[link]!)!.lease)) continue;
        const list = byLink.get(link);
        if (!list) byLink.set(link, [own]);
        else if (list.length <= most && !list.includes(own)) list.push(own);
      }
    }
    for (const list of byLink.values())
      if (list.length > 1 && list.length <= most) list.forEach((one, i) => list.slice(i + 1).forEach((other) => pairs.push([one, other])));
    return pairs;
  }

  nodes(): Nodes {
    const business = new Uint8Array(this.count);
    const shared = new Uint8Array(this.count);
    const leased = new Uint8Array(this.count);
    const leaseOf = (node: number): number => this.kinds.get(this.kind[node]!)?.lease ?? NaN;
    for (let i = 0; i < this.count; i++) {
      if (this.kinds.get(this.kind[i]!)?.business) business[i] = 1;
      if (this.isShared(i)) shared[i] = 1;
      if (!Number.isNaN(leaseOf(i))) leased[i] = 1;
    }
    return { key: this.key, kind: this.kind, business, shared, leased, leaseOf, born: this.born, length: this.count };
  }
  edges(): Edges {
    return { a: this.edgeA, b: this.edgeB, first: this.edgeFirst, last: this.edgeLast, length: this.edgeCount };
  }
  isShared = (node: number): boolean => this.kinds.get(this.kind[node]!)?.shared ?? true;
  /** Whether a key ties technically: neither business nor shared. */
  isLink = (key: number): boolean => {
    const node = this.node(key);
    return node >= 0 && this.isLinkKind(this.kind[node]!);
  };
  mostTogether = (id: number): number => this.kinds.get(id)?.together ?? 1;
  isBusinessKind = (id: number): boolean => this.kinds.get(id)?.business === true;
  isLinkKind = (id: number): boolean => {
    const kind = this.kinds.get(id);
    return kind !== undefined && !kind.business && !kind.shared;
  };

  private addNode(key: number, kind: number): number {
    if (this.count === this.key.length) {
      this.key = grown(this.key, Float64Array);
      this.kind = grown(this.kind, Uint16Array);
      this.born = grown(this.born, Float64Array);
      this.last = grown(this.last, Float64Array);
    }
    const node = this.count++;
    this.key[node] = key;
    this.kind[node] = kind;
    if (this.count * FULL > this.slots.length) {
      this.slots = new Int32Array(this.slots.length * 2).fill(-1);
      for (let i = 0; i < this.count; i++) this.place(i);
    } else this.place(node);
    return node;
  }
  private place(node: number): void {
    const mask = this.slots.length - 1;
    let slot = spread(this.key[node]!) & mask;
    while (this.slots[slot]! >= 0) slot = (slot + 1) & mask;
    this.slots[slot] = node;
  }
  private growEdges(): void {
    this.edgeA = grown(this.edgeA, Uint32Array);
    this.edgeB = grown(this.edgeB, Uint32Array);
    this.edgeFirst = grown(this.edgeFirst, Float64Array);
    this.edgeLast = grown(this.edgeLast, Float64Array);
  }
  private rehashEdges(): void {
    this.edgeSlots = new Int32Array(this.edgeSlots.length * 2).fill(-1);
    const mask = this.edgeSlots.length - 1;
    for (let edge = 0; edge < this.edgeCount; edge++) {
      let slot = spread(this.edgeA[edge]! * 2654435761 + this.edgeB[edge]!) & mask;
      while (this.edgeSlots[slot]! >= 0) slot = (slot + 1) & mask;
      this.edgeSlots[slot] = edge;
    }
  }
}

/** A place in a table for a whole number below 2^53. */
const spread = (value: number): number => {
  const high = Math.floor(value / 4294967296) | 0;
  const mixed = Math.imul((value | 0) ^ Math.imul(high, 0x85ebca6b), 0x9e3779b1);
  return (mixed ^ (mixed >>> 15)) >>> 0;
};

function grown<T extends Float64Array | Uint16Array | Uint32Array>(old: T, type: new (length: number) => T): T {
  const larger = new type(Math.ceil(old.length * 1.5));
  larger.set(old);
  return larger;
}
