import type { Sample } from './types.ts';
import { withoutColours } from './ansi.ts';

/** A sample of a source's first text; a last line that may be cut is left out. */
export function sampleOf(path: string, start: string, whole: boolean): Sample {
  const bare = withoutColours(start.charCodeAt(0) === 0xfeff ? start.slice(1) : start);
  const lines = bare.split('\n').map((line) => (line.endsWith('\r') ? line.slice(0, -1) : line));
  if (!whole && lines.length > 1) lines.pop();
  return { path, text: bare, lines };
}
