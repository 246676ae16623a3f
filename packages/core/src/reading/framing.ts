import { withoutColours } from './ansi.ts';
import { decode, type Encoding } from './encoding.ts';
import { frameCut } from './framing-cut.ts';
import type { RecordReader } from './types.ts';

/** One record's place and text in its source. Frames of a source tile it: each begins where the one before ended. */
export interface Frame {
  text: string;
  byteFrom: number;
  byteTo: number;
  /** Counted from 1. */
  line: number;
  /** Cut because it is longer than any record may be; what follows is a frame of its own. */
  cut: boolean;
}

/** Longest record, in bytes. A longer one is cut, and its parts are kept. */
export const LONGEST_RECORD = 4 * 1024 * 1024;
/** Most lines of one record. */
const MOST_LINES = 20_000;

/** Where the framer stands in a source. */
export interface Place {
  byte: number;
  line: number;
  /** The position stands inside of a line that was cut; what follows is a further part of it. */
  inside?: boolean;
}

/**
 * Cuts blocks of bytes into records. The caller gives the bytes from `place` on, again with more behind them
 * if the last record was not complete.
 *
 * @param last no more bytes will come: the rest is a record too
 * @param take gets each frame as it is found, so that none outlives its reading
 * @returns the place of the next frame, which is the given one when no record is complete yet
 */
export function frame(bytes: Uint8Array, place: Place, encoding: Encoding, reader: RecordReader, last: boolean, take: (frame: Frame) => void): Place {
  if (reader.cut) return frameCut(bytes, place, encoding, reader as Parameters<typeof frameCut>[3], last, take);
  const wide = encoding === 'utf-16le' || encoding === 'utf-16be';
  const even = wide && bytes.length % 2 === 1 ? bytes.subarray(0, bytes.length - 1) : bytes;
  const text = decode(even, encoding);
  const coloured = text.includes('\x1b');
  const bare = (part: string): string => (coloured ? withoutColours(part) : part);
  let none = true;
  let line = place.line;
  let recordChar = 0;
  let recordByte = 0;
  let recordLine = line;
  let lines = 0;
  let open = false;
  let char = 0;
  let byte = 0;
  const close = (toChar: number, toByte: number, cut: boolean): void => {
    const end = trimBreak(text, recordChar, toChar);
    // the byte order mark is framing of the source, not text of its first record
    const begin = place.byte + recordByte === 0 && text.charCodeAt(recordChar) === 0xfeff ? recordChar + 1 : recordChar;
    none = false;
    take({ text: bare(text.slice(begin, end)), byteFrom: place.byte + recordByte, byteTo: place.byte + toByte, line: recordLine, cut });
    recordChar = toChar;
    recordByte = toByte;
    open = false;
  };
  while (char < text.length) {
    const breakAt = text.indexOf('\n', char);
    const lineEnd = breakAt < 0 ? text.length : breakAt;
    const nextChar = breakAt < 0 ? text.length : breakAt + 1;
    const nextByte = wide ? nextChar * 2 : breakAt < 0 ? bytes.length : bytes.indexOf(10, byte) + 1;
    if (nextByte - byte > LONGEST_RECORD || (char === 0 && place.inside === true)) {
      if (open) close(char, byte, false);
      const cuts = cutLine(text, char, nextChar, byte, nextByte, place.byte, line);
      if (breakAt < 0 && !last) cuts.pop();
      if (cuts.length === 0) break;
      none = false;
      cuts.forEach(take);
      const end = cuts[cuts.length - 1]!;
      recordByte = end.byteTo - place.byte;
      if (recordByte < nextByte || breakAt < 0) return { byte: end.byteTo, line, inside: true };
      char = recordChar = nextChar;
      byte = nextByte;
      line++;
      continue;
    }
    if (breakAt < 0 && !last) break;
    const start = !open && recordChar === 0 && none && text.charCodeAt(char) === 0xfeff ? char + 1 : char;
    const content = bare(text.slice(start, text.charCodeAt(lineEnd - 1) === 13 ? lineEnd - 1 : lineEnd));
    if (open && (nextByte - recordByte > LONGEST_RECORD || lines >= MOST_LINES)) close(char, byte, true);
    else if (open && content.length > 0 && reader.begins(content)) close(char, byte, false);
    if (!open) {
      open = true;
      recordLine = line;
      lines = 0;
      reader.start(content);
    }
    lines++;
    line++;
    char = nextChar;
    byte = nextByte;
  }
  if (last && open) close(text.length, bytes.length, false);
  return { byte: place.byte + recordByte, line: open ? recordLine : line };
}

/** Parts of a line that is too long, each at most LONGEST_RECORD characters; for wide characters the bytes are counted. */
function cutLine(text: string, from: number, to: number, byteFrom: number, byteTo: number, base: number, line: number): Frame[] {
  const narrow = to - from === byteTo - byteFrom;
  const parts: Frame[] = [];
  let byte = byteFrom;
  for (let char = from; char < to;) {
    const end = Math.min(to, char + (narrow ? LONGEST_RECORD : LONGEST_RECORD >> 2));
    const part = text.slice(char, end);
    const next = end === to ? byteTo : byte + (narrow ? end - char : utf8Length(part));
    parts.push({ text: end === to ? part.replace(/\r?\n$/, '') : part, byteFrom: base + byte, byteTo: base + next, line, cut: true });
    byte = next;
    char = end;
  }
  return parts;
}

function utf8Length(text: string): number {
  let length = 0;
  for (let i = 0; i < text.length; i++) {
    const code = text.charCodeAt(i);
    length += code < 0x80 ? 1 : code < 0x800 ? 2 : code >= 0xd800 && code < 0xe000 ? 2 : 3;
  }
  return length;
}

function trimBreak(text: string, from: number, to: number): number {
  let end = to;
  while (end > from && (text.charCodeAt(end - 1) === 10 || text.charCodeAt(end - 1) === 13)) end--;
  return end;
}
