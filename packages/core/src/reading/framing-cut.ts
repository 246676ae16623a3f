import { decode, type Encoding } from './encoding.ts';
import { LONGEST_RECORD, type Frame, type Place } from './framing.ts';
import type { RecordReader } from './types.ts';

type Cutter = RecordReader & Required<Pick<RecordReader, 'cut'>>;

/**
 * Cuts bytes where the reader says, for formats whose records are no lines. Places are told on a view with one character for each byte (or pair of
 * bytes in UTF-16), so that broken sequences cannot shift them. Framing between records belongs to none, but stays in its place.
 */
export function frameCut(bytes: Uint8Array, place: Place, encoding: Encoding, reader: Cutter, last: boolean, take: (frame: Frame) => void): Place {
  const wide = encoding === 'utf-16le' || encoding === 'utf-16be';
  const width = wide ? 2 : 1;
  const view = wide ? decode(bytes.subarray(0, bytes.length & ~1), encoding) : latin(bytes);
  const longest = LONGEST_RECORD / width;
  let at = 0;
  let line = place.line;
  while (at < view.length) {
    const cut = reader.cut(view, at, last);
    const tooLong = cut === null ? view.length - at > longest : cut.record && cut.to - at > longest;
    if (cut === null && !tooLong && !last) break;
    const to = tooLong ? characterEnd(bytes, (at + longest) * width) / width : (cut?.to ?? view.length);
    if (to <= at) throw new Error('a reader cut off nothing');
    if (cut === null || cut.record || tooLong) {
      const end = wide || to < view.length || !last ? to * width : bytes.length;
      const text = decode(bytes.subarray(at * width, end), encoding);
      take({
        text: place.byte + at === 0 && text.charCodeAt(0) === 0xfeff ? text.slice(1) : text,
        byteFrom: place.byte + at * width,
        byteTo: place.byte + end,
        line,
        cut: tooLong,
      });
    }
    for (let next = view.indexOf('\n', at); next >= 0 && next < to; next = view.indexOf('\n', next + 1)) line++;
    at = to;
  }
  return { byte: place.byte + (last ? bytes.length : at * width), line };
}

/** Back to where a UTF-8 character begins. */
function characterEnd(bytes: Uint8Array, position: number): number {
  let end = position;
  while (end > position - 4 && (bytes[end]! & 0xc0) === 0x80) end--;
  return end;
}

/** One character for each byte. */
function latin(bytes: Uint8Array): string {
  const parts: string[] = [];
  for (let at = 0; at < bytes.length; at += 8192) parts.push(String.fromCharCode(...bytes.subarray(at, at + 8192)));
  return parts.join('');
}
