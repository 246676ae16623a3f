import type { Encoding } from './encoding.ts';

/**
 * Where lines begin in bytes: the offset of the first, then one behind every line feed, also behind the last. Line feeds of UTF-16 are two bytes wide
 * and stand at even offsets.
 *
 * @param most no more than so many beginnings are looked for
 */
export function lineStarts(bytes: Uint8Array, encoding: Encoding, most = Infinity): number[] {
  const starts = [0];
  if (encoding === 'utf-16le' || encoding === 'utf-16be') {
    const low = encoding === 'utf-16le' ? 0 : 1;
    for (let i = 0; i + 1 < bytes.length && starts.length < most; i += 2) if (bytes[i + low] === 10 && bytes[i + 1 - low] === 0) starts.push(i + 2);
    return starts;
  }
  for (let i = bytes.indexOf(10); i >= 0 && starts.length < most; i = bytes.indexOf(10, i + 1)) starts.push(i + 1);
  return starts;
}
