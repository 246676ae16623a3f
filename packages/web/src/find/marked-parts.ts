/** A text cut where words occur in it, upper and lower case alike; overlapping occurrences are one. */
export function markedParts(text: string, words: readonly string[]): { text: string; marked: boolean }[] {
  const lower = text.toLowerCase();
  if (lower.length !== text.length) return [{ text, marked: false }];
  const spans: [number, number][] = [];
  for (const word of words) {
    const wanted = word.toLowerCase();
    if (wanted === '') continue;
    for (let at = lower.indexOf(wanted); at >= 0; at = lower.indexOf(wanted, at + wanted.length)) spans.push([at, at + wanted.length]);
  }
  spans.sort(([a], [b]) => a - b);
  const parts: { text: string; marked: boolean }[] = [];
  let reached = 0;
  for (const [from, to] of spans) {
    if (to <= reached) continue;
    const begin = Math.max(from, reached);
    if (begin > reached) parts.push({ text: text.slice(reached, begin), marked: false });
    parts.push({ text: text.slice(begin, to), marked: true });
    reached = to;
  }
  if (reached < text.length) parts.push({ text: text.slice(reached), marked: false });
  return parts;
}
