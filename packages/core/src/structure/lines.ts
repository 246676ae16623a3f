/** A line of a text, with its place. */
export interface Line {
  from: number;
  /** Without its break. */
  to: number;
  text: string;
}

/** The lines of a stretch of a text. */
export function linesOf(text: string, from: number, to: number): Line[] {
  const lines: Line[] = [];
  for (let at = from; at < to;) {
    const end = text.indexOf('\n', at);
    const next = end < 0 || end >= to ? to : end + 1;
    let last = end < 0 || end >= to ? to : end;
    if (last > at && text[last - 1] === '\r') last--;
    lines.push({ from: at, to: last, text: text.slice(at, last) });
    at = next;
  }
  return lines;
}
