/** Up to this length, in characters, text is written byte by byte. */
const SHORT = 160;

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

  /** @param names quoted names of members, kept from one writer to the next */
  constructor(
    capacity = 1 << 16,
    private readonly names = new Map<string, string>(),
  ) {
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
  /** Four bytes without a check for room: methods of Buffer cost more than all the rest of a row. */
  private put(value: number): void {
    const { buffer } = this;
    let at = this.size;
    buffer[at++] = value >>> 24;
    buffer[at++] = value >>> 16;
    buffer[at++] = value >>> 8;
    buffer[at++] = value;
    this.size = at;
  }
  private whole(value: number): void {
    const high = Math.floor(value / 4294967296);
    this.put(high);
    this.put(value - high * 4294967296);
  }

  begin(fields: number): void {
    this.room(2);
    this.buffer[this.size++] = fields >>> 8;
    this.buffer[this.size++] = fields;
    this.count++;
  }
  nothing(): void {
    this.room(4);
    this.put(-1);
  }
  small(value: number): void {
    this.room(6);
    this.put(2);
    this.buffer[this.size++] = value >>> 8;
    this.buffer[this.size++] = value;
  }
  /** Bytes that are written so far. */
  get length(): number {
    return this.size;
  }
  /** Where the value of a small number that comes next will stand. */
  get smallAt(): number {
    return this.size + 4;
  }
  /** Puts a small number in the place of one that was written before. */
  patchSmall(at: number, value: number): void {
    this.buffer[at] = value >>> 8;
    this.buffer[at + 1] = value;
  }
  int(value: number): void {
    this.room(8);
    this.put(4);
    this.put(value);
  }
  /** A whole number between -(2^53) and 2^53. */
  big(value: number): void {
    this.room(12);
    this.put(8);
    this.whole(value);
  }
  /** Text without U+0000, which PostgreSQL's text cannot hold: it is shown as its picture. */
  text(value: string): void {
    this.room(4 + value.length * 3);
    const begin = this.size;
    this.size += 4;
    this.characters(value.includes('\0') ? storable(value) : value);
    this.putLength(begin);
  }
  private putLength(begin: number): void {
    const end = this.size;
    this.size = begin;
    this.put(end - begin - 4);
    this.size = end;
  }
  /** Short ASCII text byte by byte, all else by the platform. There is room. */
  private characters(value: string): void {
    const { buffer } = this;
    const { length } = value;
    let at = this.size;
    if (length <= SHORT) {
      let i = 0;
      for (; i < length; i++) {
        const code = value.charCodeAt(i);
        if (code > 127) break;
        buffer[at++] = code;
      }
      if (i === length) {
        this.size = at;
        return;
      }
    }
    this.size += buffer.write(value, this.size, 'utf8');
  }
  /** An object of plain values as JSON text (RFC 8259), or nothing where it has no members. */
  object(fields: Readonly<Record<string, string | number | boolean>>): void {
    this.room(5);
    const begin = this.size;
    this.size += 4;
    let empty = true;
    for (const name in fields) {
      this.member(name, empty);
      empty = false;
      const value = fields[name]!;
      const text =
        typeof value === 'string'
          ? isPlain(value)
            ? value
            : null
          : Number.isNaN(value) || Math.abs(Number(value)) === Infinity
            ? 'null'
            : String(value);
      if (text === null) {
        const quoted = JSON.stringify(storable(String(value)));
        this.room(quoted.length * 3 + 1);
        this.characters(quoted);
      } else if (typeof value === 'string') {
        this.room(text.length + 3);
        this.buffer[this.size++] = 34;
        this.characters(text);
        this.buffer[this.size++] = 34;
      } else {
        this.room(text.length + 1);
        this.characters(text);
      }
    }
    if (empty) {
      this.size = begin;
      this.put(-1);
      return;
    }
    this.room(1);
    this.buffer[this.size++] = 125;
    this.putLength(begin);
  }
  private member(name: string, first: boolean): void {
    let quoted = this.names.get(name);
    if (quoted === undefined) {
      quoted = `${JSON.stringify(storable(name))}:`;
      if (this.names.size < 2000) this.names.set(name, quoted);
    }
    this.room(quoted.length * 3 + 1);
    this.buffer[this.size++] = first ? 123 : 44;
    this.characters(quoted);
  }
  bytes(value: Uint8Array): void {
    this.room(4 + value.length);
    this.put(value.length);
    this.buffer.set(value, this.size);
    this.size += value.length;
  }
  /** bigint[] */
  bigs(values: readonly number[]): void {
    const length = 20 + values.length * 12;
    this.room(4 + length);
    this.put(length);
    this.put(1);
    this.put(0);
    this.put(20);
    this.put(values.length);
    this.put(1);
    for (const value of values) {
      this.put(8);
      this.whole(value);
    }
  }
  /** All rows, ended; the writer is not used afterwards. */
  finish(): Uint8Array {
    this.room(2);
    this.buffer[this.size++] = 255;
    this.buffer[this.size++] = 255;
    return this.buffer.subarray(0, this.size);
  }
}

/** Bytes before the first row, and behind the last one. */
const [BEFORE, BEHIND] = [19, 2];

/** The rows of several writers as one; null where there are none. */
export function joined(parts: readonly Uint8Array[]): Uint8Array | null {
  const some = parts.filter((part) => part.length > BEFORE + BEHIND);
  if (some.length <= 1) return some[0] ?? null;
  return Buffer.concat(some.map((part, i) => part.subarray(i === 0 ? 0 : BEFORE, i === some.length - 1 ? part.length : part.length - BEHIND)));
}

/** What PostgreSQL's text can hold: U+0000 becomes its picture, half a surrogate pair the replacement character. */
const storable = (text: string): string => text.replaceAll('\0', '\u2400').replace(/\p{Surrogate}/gu, '\ufffd');

/** Whether a text stands in JSON as it is: ASCII without quotes, backslashes and control characters. */
function isPlain(text: string): boolean {
  if (text.length > SHORT) return false;
  for (let i = 0; i < text.length; i++) {
    const code = text.charCodeAt(i);
    if (code < 32 || code > 126 || code === 34 || code === 92) return false;
  }
  return true;
}
