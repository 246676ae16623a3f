import type pg from 'pg';
import { to as copyTo } from 'pg-copy-streams';

/** One row of a binary COPY, read field by field in order. */
export class RowReader {
  buffer: Buffer = Buffer.alloc(0);
  position = 0;

  private length(): number {
    const length = this.buffer.readInt32BE(this.position);
    this.position += 4;
    return length;
  }
  small(): number {
    this.length();
    const value = this.buffer.readInt16BE(this.position);
    this.position += 2;
    return value;
  }
  int(): number {
    this.length();
    const value = this.buffer.readInt32BE(this.position);
    this.position += 4;
    return value;
  }
  big(): number {
    const length = this.length();
    if (length < 0) return NaN;
    const value = this.buffer.readInt32BE(this.position) * 4294967296 + this.buffer.readUInt32BE(this.position + 4);
    this.position += 8;
    return value;
  }
  text(): string {
    const length = this.length();
    if (length < 0) return '';
    const value = this.buffer.toString('utf8', this.position, this.position + length);
    this.position += length;
    return value;
  }
  /** A text as it stands, not decoded. */
  bytes(): Buffer {
    const length = Math.max(0, this.length());
    this.position += length;
    return this.buffer.subarray(this.position - length, this.position);
  }
  /** Fields as they stand, lengths and all, a letter (latin1) for each byte: for a reader of these bytes. */
  fields(count: number): string {
    const from = this.position;
    for (let i = 0; i < count; i++) {
      const length = this.length(); // which moves on
      this.position += Math.max(0, length);
    }
    return this.buffer.toString('latin1', from, this.position);
  }
  bigs(): number[] {
    const length = this.length();
    if (length < 0) return [];
    const values: number[] = [];
    const end = this.position + length;
    this.position += 20;
    while (this.position < end) values.push(this.big());
    this.position = end;
    return values;
  }
}

/** Reads a query's rows as a stream of binary COPY; memory stays at a chunk. `query` holds no values from outside. */
export async function copyOut(client: pg.Client, query: string, row: (reader: RowReader) => void | Promise<void>): Promise<void> {
  const stream = client.query(copyTo(`copy (${query}) to stdout with (format binary)`));
  const reader = new RowReader();
  let rest: Buffer = Buffer.alloc(0);
  let head = true;
  for await (const chunk of stream as AsyncIterable<Buffer>) {
    const buffer = rest.length === 0 ? chunk : Buffer.concat([rest, chunk]);
    let position = 0;
    if (head) {
      if (buffer.length < 19) {
        rest = buffer;
        continue;
      }
      position = 19;
      head = false;
    }
    for (;;) {
      const end = rowEnd(buffer, position);
      if (end < 0) break;
      if (buffer.readInt16BE(position) < 0) {
        position = buffer.length;
        break;
      }
      reader.buffer = buffer;
      reader.position = position + 2;
      const waiting = row(reader);
      if (waiting) await waiting;
      position = end;
    }
    rest = buffer.subarray(position);
  }
}

/** Where the row that begins at `position` ends, -1 while it is not whole. */
export function rowEnd(buffer: Buffer, position: number): number {
  if (position + 2 > buffer.length) return -1;
  const fields = buffer.readInt16BE(position);
  let at = position + 2;
  for (let i = 0; i < fields; i++) {
    if (at + 4 > buffer.length) return -1;
    at += 4 + Math.max(0, buffer.readInt32BE(at));
  }
  return at <= buffer.length ? at : -1;
}
