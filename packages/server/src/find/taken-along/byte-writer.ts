import { isoMicros } from '@fadenweg/core/units';

const SECOND = 1_000_000;
const DAY = 86_400 * SECOND;
/** What an ISO text has in front of its hour. */
const DATE = 11;
const [MINUS, POINT, ZERO, COLON, Z] = [45, 46, 48, 58, 90];
/** Up to here a part is copied byte by byte, which is faster than asking for it. */
const SHORT = 24;

/** Bytes one after another, grown as they come: numbers and times are written as digits without a text between. */
export class ByteWriter {
  private buffer: Buffer;
  length = 0;
  private day = NaN;
  private readonly date = Buffer.alloc(DATE);
  private readonly digits = Buffer.alloc(20);

  /** @param size bytes that are there from the begin on */
  constructor(private readonly size: number) {
    this.buffer = Buffer.allocUnsafeSlow(size);
  }

  add(part: Buffer): void {
    const { length } = part;
    this.room(length);
    if (length <= SHORT) for (let i = 0; i < length; i++) this.buffer[this.length + i] = part[i]!;
    else this.buffer.set(part, this.length);
    this.length += length;
  }
  /** A whole number in decimal digits. @param value safe */
  whole(value: number): void {
    this.room(20);
    let rest = Math.abs(value);
    let at = 20;
    do {
      const tens = Math.floor(rest / 10);
      this.digits[--at] = ZERO + (rest - tens * 10);
      rest = tens;
    } while (rest > 0);
    if (value < 0) this.buffer[this.length++] = MINUS;
    while (at < 20) this.buffer[this.length++] = this.digits[at++]!;
  }
  /** As `isoMicros` writes it. @param at microseconds since 1970 */
  instant(at: number): void {
    const day = Math.floor(at / DAY);
    if (day !== this.day) {
      this.date.write(isoMicros(day * DAY), 'latin1');
      this.day = day;
    }
    this.add(this.date);
    this.room(16);
    const micros = at - day * DAY;
    const seconds = Math.floor(micros / SECOND);
    const minutes = Math.floor(seconds / 60);
    this.filled(Math.floor(minutes / 60), 2);
    this.buffer[this.length++] = COLON;
    this.filled(minutes % 60, 2);
    this.buffer[this.length++] = COLON;
    this.filled(seconds % 60, 2);
    this.buffer[this.length++] = POINT;
    this.filled(micros - seconds * SECOND, 6);
    this.buffer[this.length++] = Z;
  }
  /** Digits with zeros in front of them, where there is room. */
  private filled(value: number, digits: number): void {
    for (let i = digits - 1; i >= 0; i--) {
      const tens = Math.floor(value / 10);
      this.buffer[this.length + i] = ZERO + (value - tens * 10);
      value = tens;
    }
    this.length += digits;
  }
  /** What was written so far; it stays as it is until more is written. */
  written(): Buffer {
    return this.buffer.subarray(0, this.length);
  }
  /** What was written; the next bytes begin anew. */
  taken(): Buffer {
    const taken = this.written();
    this.buffer = Buffer.allocUnsafeSlow(this.size);
    this.length = 0;
    return taken;
  }

  private room(bytes: number): void {
    if (this.length + bytes <= this.buffer.length) return;
    const larger = Buffer.allocUnsafeSlow(Math.max(this.buffer.length * 2, this.length + bytes));
    larger.set(this.buffer.subarray(0, this.length));
    this.buffer = larger;
  }
}
