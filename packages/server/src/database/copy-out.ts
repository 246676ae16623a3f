import type pg from 'pg';
import { to as copyTo } from 'pg-copy-streams';

/** Four bytes as a whole number with a sign, without the checks of Buffer's own methods: they take longer than all else that is done with a row. */
const word = (buffer: Buffer, at: number): number => (buffer[at]! << 24) | (buffer[at + 1]! << 16) | (buffer[at + 2]! << 8) | buffer[at + 3]!;

/** Eight bytes as a whole number between -(2^53) and 2^53. */
const eight = (buffer: Buffer, at: number): number => word(buffer, at) * 4294967296 + (word(buffer, at + 4) >>> 0);

/** One row of a binary COPY, read field by field in order. */
export class RowReader {
  buffer: Buffer = Buffer.alloc(0);
  position = 0;

  private length(): number {
    const length = word(this.buffer, this.position);
    this.position += 4;
    return length;
  }
  /** Whether the next field holds nothing. */
  isNothing(): boolean {
    return word(this.buffer, this.position) < 0;
  }
  small(): number {
    const { buffer, position } = this;
    this.position = position + 6;
    return ((buffer[position + 4]! << 24) >> 16) | buffer[position + 5]!;
  }
  int(): number {
    const { position } = this;
    this.position = position + 8;
    return word(this.buffer, position + 4);
  }
  big(): number {
    const { buffer, position } = this;
    if (buffer[position]! > 127) {
      this.position = position + 4;
      return NaN;
    }
    this.position = position + 12;
    return eight(buffer, position + 4);
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
    for (let at = this.position + 4; at < end; at += 12) values.push(eight(this.buffer, at));
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
      if (fieldsAt(buffer, position) < 0) {
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
  const { length } = buffer;
  if (position + 2 > length) return -1;
  let at = position + 2;
  for (let fields = fieldsAt(buffer, position); fields > 0; fields--) {
    if (at + 4 > length) return -1;
    const bytes = word(buffer, at);
    at += bytes > 0 ? 4 + bytes : 4;
  }
  return at <= length ? at : -1;
}
/** How many fields a row has, -1 for the end of all rows. */
const fieldsAt = (buffer: Buffer, position: number): number => ((buffer[position]! << 24) >> 16) | buffer[position + 1]!;
