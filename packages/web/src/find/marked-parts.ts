/** A text cut where words occur in it, upper and lower case alike; `word` is the place of the word in the list. What overlaps belongs to the word that begins first. */
export function markedParts(text: string, words: readonly string[]): { text: string; word: number | null }[] {
  const lower = text.toLowerCase();
  if (lower.length !== text.length) return [{ text, word: null }];
  const spans: [number, number, number][] = [];
  for (const [place, word] of words.entries()) {
    const wanted = word.toLowerCase();
    if (wanted === '') continue;
    for (let at = lower.indexOf(wanted); at >= 0; at = lower.indexOf(wanted, at + wanted.length)) spans.push([at, at + wanted.length, place]);
  }
  spans.sort(([a], [b]) => a - b);
  const parts: { text: string; word: number | null }[] = [];
  let reached = 0;
  for (const [from, to, word] of spans) {
    if (to <= reached) continue;
    const begin = Math.max(from, reached);
    if (begin > reached) parts.push({ text: text.slice(reached, begin), word: null });
    parts.push({ text: text.slice(begin, to), word });
    reached = to;
  }
  if (reached < text.length) parts.push({ text: text.slice(reached), word: null });
  return parts;
}
