import type { Microseconds } from '../units.ts';

/**
 * The spans in which reused keys belong to strands, in columns: by the key's node, and for each node in order of time, never overlapping. A key that is used all day
 * has thousands of them, so an object for each would take more than all else that is known of identifiers.
 */
export class Leases {
  /** Places in the columns by node: those of a node begin here and end where the next one's begin. */
  private readonly begins: Uint32Array;

  /**
   * @param node of the key, not descending
   * @param founder the node of the founder of its strand
   * @param from whole microseconds, ascending for each node
   */
  constructor(
    readonly node: Uint32Array,
    readonly founder: Uint32Array,
    readonly from: Float64Array,
    readonly to: Float64Array,
  ) {
    const most = node.length === 0 ? -1 : node[node.length - 1]!;
    this.begins = new Uint32Array(most + 2);
    for (let i = 0; i < node.length; i++) this.begins[node[i]! + 1]!++;
    for (let i = 0; i <= most; i++) this.begins[i + 1]! += this.begins[i]!;
  }

  get length(): number {
    return this.node.length;
  }
  /** Where the leases of a node begin and end in the columns. */
  begin(node: number): number {
    return node + 1 < this.begins.length ? this.begins[node]! : this.length;
  }
  end(node: number): number {
    return node + 1 < this.begins.length ? this.begins[node + 1]! : this.length;
  }
  has(node: number): boolean {
    return this.end(node) > this.begin(node);
  }

  /** The founder's node of the strand to which a node belongs at a moment, -1 for none. */
  ownerAt(node: number, at: Microseconds): number {
    let low = this.begin(node);
    let high = this.end(node);
    const first = low;
    // the last one that begins at or before the moment
    while (low < high) {
      const middle = (low + high) >>> 1;
      if (this.from[middle]! <= at) low = middle + 1;
      else high = middle;
    }
    return low > first && at <= this.to[low - 1]! ? this.founder[low - 1]! : -1;
  }

  /** Calls `take` for each lease of a node that another state of them does not have. */
  differing(node: number, other: Leases, take: (founder: number) => void): void {
    let theirs = other.begin(node);
    const theirEnd = other.end(node);
    for (let i = this.begin(node); i < this.end(node); i++) {
      while (theirs < theirEnd && other.from[theirs]! < this.from[i]!) theirs++;
      let same = theirs;
      while (same < theirEnd && other.from[same] === this.from[i] && !isSame(this, i, other, same)) same++;
      if (same >= theirEnd || !isSame(this, i, other, same)) take(this.founder[i]!);
    }
  }
  /** Whether a node has the same leases in another state of them. */
  isAs(node: number, other: Leases): boolean {
    const [mine, theirs] = [this.begin(node), other.begin(node)];
    const count = this.end(node) - mine;
    if (count !== other.end(node) - theirs) return false;
    for (let i = 0; i < count; i++) if (!isSame(this, mine + i, other, theirs + i)) return false;
    return true;
  }
}

const isSame = (one: Leases, i: number, other: Leases, j: number): boolean =>
  one.from[i] === other.from[j] && one.to[i] === other.to[j] && one.founder[i] === other.founder[j];

/** Collects leases, the nodes in any order, those of one node in order of time. */
export class LeaseList {
  private node = new Uint32Array(256);
  private founder = new Uint32Array(256);
  private from = new Float64Array(256);
  private to = new Float64Array(256);
  private count = 0;
  private inOrder = true;

  /** Moments become whole microseconds. */
  add(node: number, founder: number, from: Microseconds, to: Microseconds): void {
    if (this.count === this.node.length) this.grow();
    if (this.count > 0 && node < this.node[this.count - 1]!) this.inOrder = false;
    this.node[this.count] = node;
    this.founder[this.count] = founder;
    this.from[this.count] = Math.floor(from);
    this.to[this.count++] = Math.floor(to);
  }

  /** All of them; the list is empty afterwards. */
  leases(): Leases {
    const { count } = this;
    let [node, founder, from, to] = [this.node.slice(0, count), this.founder.slice(0, count), this.from.slice(0, count), this.to.slice(0, count)];
    Object.assign(this, {
      node: new Uint32Array(256),
      founder: new Uint32Array(256),
      from: new Float64Array(256),
      to: new Float64Array(256),
      count: 0,
    });
    if (!this.inOrder) {
      // stable: those of one node stay in order of time
      const order = Uint32Array.from(node, (_, i) => i).sort((a, b) => node[a]! - node[b]! || a - b);
      [node, founder, from, to] = [order.map((i) => node[i]!), order.map((i) => founder[i]!), Float64Array.from(order, (i) => from[i]!), Float64Array.from(order, (i) => to[i]!)]; // prettier-ignore
      this.inOrder = true;
    }
    return new Leases(node, founder, from, to);
  }

  private grow(): void {
    const length = Math.ceil(this.node.length * 1.5);
    const larger = <T extends Uint32Array | Float64Array>(old: T, now: T): T => {
      now.set(old);
      return now;
    };
    this.node = larger(this.node, new Uint32Array(length));
    this.founder = larger(this.founder, new Uint32Array(length));
    this.from = larger(this.from, new Float64Array(length));
    this.to = larger(this.to, new Float64Array(length));
  }
}
export const NO_LEASES = new LeaseList().leases();
