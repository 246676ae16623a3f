import type { Sample } from './types.ts';
import { withoutColours } from './ansi.ts';

/** Bytes of each other place of a source that is looked at where its beginning does not tell how it is written. */
export const SLICE = 12_288;

/** These places, of a source of so many bytes: spread over it, the last one at its end. */
export function placesIn(size: number): number[] {
  const COUNT = 5;
  // even, for encodings of two bytes a letter
  return Array.from({ length: COUNT }, (_, i) => 2 * Math.floor(((size - SLICE) * (i + 1)) / COUNT / 2));
}
/** Slices as one text, each cut where lines end. */
export const withSlices = (slices: readonly string[]): string =>
  slices.map((slice) => slice.slice(slice.indexOf('\n') + 1, slice.lastIndexOf('\n') + 1)).join('');

/** A sample of a source's first text; a last line that may be cut is left out. */
export function sampleOf(path: string, start: string, whole: boolean): Sample {
  const bare = withoutColours(start.charCodeAt(0) === 0xfeff ? start.slice(1) : start);
  const lines = bare.split('\n').map((line) => (line.endsWith('\r') ? line.slice(0, -1) : line));
  if (!whole && lines.length > 1) lines.pop();
  return { path, text: bare, lines };
}
