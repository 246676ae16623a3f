/**
 * Rows in PostgreSQL's binary COPY format (documentation of COPY, “Binary Format”), written field by field into one growing buffer of its own (never of
 * Node's shared pool, so that it can be handed to another thread).
 * Whole numbers up to 2^53 are written as eight bytes without a detour over text or big integers.
 */
export class CopyRows {
  private buffer: Buffer;
  private size = 0;
  count = 0;
  private static readonly HEAD = Buffer.from('PGCOPY\n\xff\r\n\0\0\0\0\0\0\0\0\0', 'latin1');

  constructor(capacity = 1 << 16) {
    this.buffer = Buffer.allocUnsafeSlow(capacity);
    CopyRows.HEAD.copy(this.buffer);
    this.size = CopyRows.HEAD.length;
  }

  private room(bytes: number): void {
    if (this.size + bytes <= this.buffer.length) return;
    const larger = Buffer.allocUnsafeSlow(Math.max(this.buffer.length * 2, this.size + bytes));
    this.buffer.copy(larger, 0, 0, this.size);
    this.buffer = larger;
  }

  begin(fields: number): void {
    this.room(2);
    this.size = this.buffer.writeInt16BE(fields, this.size);
    this.count++;
  }
  nothing(): void {
    this.room(4);
    this.size = this.buffer.writeInt32BE(-1, this.size);
  }
  small(value: number): void {
    this.room(6);
    this.size = this.buffer.writeInt32BE(2, this.size);
    this.size = this.buffer.writeInt16BE(value, this.size);
  }
  int(value: number): void {
    this.room(8);
    this.size = this.buffer.writeInt32BE(4, this.size);
    this.size = this.buffer.writeInt32BE(value, this.size);
  }
  /** A whole number between -(2^53) and 2^53. */
  big(value: number): void {
    this.room(12);
    this.size = this.buffer.writeInt32BE(8, this.size);
    this.whole(value);
  }
  private whole(value: number): void {
    const high = Math.floor(value / 4294967296);
    this.size = this.buffer.writeInt32BE(high, this.size);
    this.size = this.buffer.writeUInt32BE(value - high * 4294967296, this.size);
  }
  /** Text without U+0000, which PostgreSQL's text cannot hold: it is shown as its picture. */
  text(value: string): void {
    const clean = value.includes('\0') ? value.replaceAll('\0', '\u2400') : value;
    this.room(4 + clean.length * 3);
    const written = this.buffer.write(clean, this.size + 4, 'utf8');
    this.buffer.writeInt32BE(written, this.size);
    this.size += 4 + written;
  }
  bytes(value: Uint8Array): void {
    this.room(4 + value.length);
    this.size = this.buffer.writeInt32BE(value.length, this.size);
    this.buffer.set(value, this.size);
    this.size += value.length;
  }
  /** bigint[] */
  bigs(values: readonly number[]): void {
    const length = 20 + values.length * 12;
    this.room(4 + length);
    this.size = this.buffer.writeInt32BE(length, this.size);
    this.size = this.buffer.writeInt32BE(1, this.size);
    this.size = this.buffer.writeInt32BE(0, this.size);
    this.size = this.buffer.writeInt32BE(20, this.size);
    this.size = this.buffer.writeInt32BE(values.length, this.size);
    this.size = this.buffer.writeInt32BE(1, this.size);
    for (const value of values) {
      this.size = this.buffer.writeInt32BE(8, this.size);
      this.whole(value);
    }
  }
  /** All rows, ended; the writer is not used afterwards. */
  finish(): Uint8Array {
    this.room(2);
    this.size = this.buffer.writeInt16BE(-1, this.size);
    return this.buffer.subarray(0, this.size);
  }
}
