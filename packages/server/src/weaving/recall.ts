import { sourceOfId } from '../intake/batch.ts';
import { RowReader, rowEnd } from './copy-out.ts';

/** Most bytes of glimpses that are kept; what comes on top is read from the database again. */
export const MOST_RECALLED = 112 << 20;
const HEAD = 19;

/**
 * What readers told of the records since the last weaving, so that strands that are wholly new are judged without reading them back.
 * A glimpse is a row in binary COPY format: home, at, id, component, host, level, marks, took, message (its beginning), shape, traits, keys.
 */
export class Recall {
  private parts: Buffer[] = [];
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

  add(rows: Uint8Array): void {
    if (this.overflown) return;
    this.bytes += rows.byteLength;
    if (this.bytes > this.most) {
      this.overflown = true;
      this.parts = [];
    } else this.parts.push(Buffer.from(rows.slice().buffer)); // exactly: what comes has room behind it
  }
  /** Sources are read again: what was told of them does not hold any more. */
  forgetSources(sources: ReadonlySet<number>): void {
    const reader = new RowReader();
    for (const [i, buffer] of this.parts.entries()) {
      const kept: Buffer[] = [buffer.subarray(0, HEAD)];
      let from = HEAD;
      let position = HEAD;
      while (buffer.readInt16BE(position) > 0) {
        const end = rowEnd(buffer, position);
        reader.buffer = buffer;
        reader.position = position + 2;
        reader.big(); // home
        reader.big(); // at
        if (sources.has(sourceOfId(reader.big()))) {
          kept.push(buffer.subarray(from, position));
          from = end;
        }
        position = end;
      }
      if (from === HEAD) continue;
      this.parts[i] = Buffer.concat([...kept, buffer.subarray(from)]);
      this.bytes -= buffer.length - this.parts[i].length;
    }
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
   * Calls `take` for each glimpse of the wanted strands, strand after strand, in the order of time and id; the reader stands at `at`.
   *
   * @param strandOf number of the strand that a record at home there belongs to at a moment, from 0, or -1
   */
  read(strands: number, strandOf: (home: number, at: number) => number, take: (strand: number, row: RowReader) => void): void {
    const found = this.sorted(strands, strandOf);
    const reader = new RowReader();
    for (let i = 0; i < found.order.length; i++) {
      const one = found.order[i]!;
      reader.buffer = this.parts[found.part[one]!]!;
      reader.position = found.offset[one]!;
      take(found.strand[one]!, reader);
    }
  }

  private sorted(strands: number, strandOf: (home: number, at: number) => number) {
    const columns = { strand: [] as number[], at: [] as number[], id: [] as number[], part: [] as number[], offset: [] as number[] };
    const counts = new Uint32Array(strands + 1);
    const reader = new RowReader();
    for (const [part, buffer] of this.parts.entries()) {
      reader.buffer = buffer;
      for (let position = HEAD; buffer.readInt16BE(position) > 0; position = rowEnd(buffer, position)) {
        reader.position = position + 2;
        const home = reader.big();
        const offset = reader.position;
        const at = reader.big();
        const strand = strandOf(home, at);
        if (strand < 0) continue;
        counts[strand + 1]!++;
        columns.strand.push(strand);
        columns.at.push(at);
        columns.id.push(reader.big());
        columns.part.push(part);
        columns.offset.push(offset);
      }
    }
    for (let i = 0; i < strands; i++) counts[i + 1]! += counts[i]!;
    const order = new Uint32Array(columns.strand.length);
    const next = counts.slice();
    columns.strand.forEach((strand, i) => (order[next[strand]!++] = i));
    const byTime = (a: number, b: number): number => columns.at[a]! - columns.at[b]! || columns.id[a]! - columns.id[b]!;
    for (let i = 0; i < strands; i++) order.subarray(counts[i], counts[i + 1]).sort(byTime);
    return { ...columns, order };
  }
}
