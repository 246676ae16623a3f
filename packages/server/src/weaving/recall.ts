import type { Glimpses } from '../evidence/batch.ts';
import { RowReader } from '../database/copy-out.ts';

/** Most bytes of glimpses that are kept; what comes on top is read from the database again. */
export const MOST_RECALLED = 112 << 20;
/** Numbers that tell of a record: home, time, id, where its row stands. */
const NUMBERS = 4;
/** Up to so many are put in order one by one. */
const FEW = 40;

/** Takes a record of a strand; the reader stands behind time and id, at its component. */
export type TakeRecalled = (strand: number, at: number, id: number, row: RowReader) => void;

/**
 * What readers told of the records since the last weaving, so that strands that are wholly new are judged without reading them back.
 */
export class Recall {
  /** Each of one source. */
  private parts: (Glimpses & { rows: Buffer })[] = [];
  private bytes = 0;
  /** More was told than is kept. */
  overflown = false;
  /** Nodes before `since` that are new all the same. */
  private young: ReadonlySet<number> = new Set();

  /**
   * @param since nodes from this on were first seen after strands were last judged
   * @param most bytes that are kept
   */
  constructor(
    public since: number,
    public most = MOST_RECALLED,
  ) {}

  /** Whether a node was there already when strands were last judged. */
  isOlder(node: number): boolean {
    return node < this.since && !this.young.has(node);
  }

  add({ sourceId, rows, places }: Glimpses): void {
    if (this.overflown || places.length === 0) return;
    this.bytes += rows.byteLength + places.byteLength;
    if (this.bytes > this.most) {
      this.overflown = true;
      this.parts = [];
    } else this.parts.push({ sourceId, rows: Buffer.from(rows), places }); // copied: what comes has room behind it
  }
  /** Nothing that was told holds any more: it is read from the database. */
  forget(): void {
    this.overflown = true;
    this.parts = [];
  }
  /** Sources are read again: what was told of them does not hold any more. */
  forgetSources(sources: ReadonlySet<number>): void {
    this.parts = this.parts.filter(({ sourceId }) => !sources.has(sourceId));
    this.bytes = this.parts.reduce((sum, { rows, places }) => sum + rows.byteLength + places.byteLength, 0);
  }

  /**
   * Takes over what another one keeps, whose nodes had other numbers.
   *
   * @param nodes how many nodes there are now, all of which are stored
   * @param young by their new numbers, those that were first seen after strands were last judged
   */
  goOn(before: Recall, nodes: number, young: ReadonlySet<number>): void {
    Object.assign(this, { parts: before.parts, bytes: before.bytes, overflown: before.overflown, since: nodes, young });
  }

  /**
   * Calls `take` for each glimpse of the wanted strands, strand after strand, in the order of time and id.
   *
   * @param strandOf number of the strand that a record at home there belongs to at a moment, from 0, or -1
   */
  read(strands: number, strandOf: (home: number, at: number) => number, take: TakeRecalled): void {
    const { order, strand, at, id, part, offset } = this.sorted(strands, strandOf);
    const reader = new RowReader();
    for (let i = 0; i < order.length; i++) {
      const one = order[i]!;
      reader.buffer = this.parts[part[one]!]!.rows;
      reader.position = offset[one]!;
      take(strand[one]!, at[one]!, id[one]!, reader);
    }
  }

  /** What is wanted, in columns, and the order in which it comes. */
  private sorted(strands: number, strandOf: (home: number, at: number) => number): Sorted {
    const all = this.parts.reduce((sum, { places }) => sum + places.length / NUMBERS, 0);
    const strand = new Int32Array(all);
    const at = new Float64Array(all);
    const id = new Float64Array(all);
    const part = new Uint32Array(all);
    const offset = new Uint32Array(all);
    const counts = new Uint32Array(strands + 1);
    let wanted = 0;
    for (let p = 0; p < this.parts.length; p++) {
      const { places } = this.parts[p]!;
      for (let i = 0; i < places.length; i += NUMBERS) {
        const own = strandOf(places[i]!, places[i + 1]!);
        if (own < 0) continue;
        counts[own + 1]!++;
        strand[wanted] = own;
        at[wanted] = places[i + 1]!;
        id[wanted] = places[i + 2]!;
        part[wanted] = p;
        offset[wanted++] = places[i + 3]!;
      }
    }
    for (let i = 0; i < strands; i++) counts[i + 1]! += counts[i]!;
    const order = new Uint32Array(wanted);
    const next = counts.slice();
    for (let i = 0; i < wanted; i++) order[next[strand[i]!]!++] = i;
    for (let i = 0; i < strands; i++) sortByTime(order, counts[i]!, counts[i + 1]!, at, id);
    return { order, strand, at, id, part, offset };
  }
}

interface Sorted {
  order: Uint32Array;
  strand: Int32Array;
  at: Float64Array;
  id: Float64Array;
  part: Uint32Array;
  offset: Uint32Array;
}

/** Puts a stretch in the order of time and id: few of them, mostly in order already, by inserting. */
function sortByTime(order: Uint32Array, from: number, to: number, at: Float64Array, id: Float64Array): void {
  if (to - from > FEW) {
    order.subarray(from, to).sort((a, b) => at[a]! - at[b]! || id[a]! - id[b]!);
    return;
  }
  for (let i = from + 1; i < to; i++) {
    const one = order[i]!;
    let j = i - 1;
    for (; j >= from; j--) {
      const other = order[j]!;
      if (at[other]! < at[one]! || (at[other] === at[one] && id[other]! <= id[one]!)) break;
      order[j + 1] = other;
    }
    order[j + 1] = one;
  }
}
