const WORD = /[\p{L}\p{N}]+/gu;

/** The hash of a word, case aside: 32 bits of FNV-1a (Fowler, Noll, Vo). */
function hashOf(text: string, from: number, to: number): number {
  let hash = 0x811c9dc5;
  for (let i = from; i < to; i++) hash = Math.imul(hash ^ text.charCodeAt(i), 0x01000193);
  return hash | 0;
}

/**
 * The words and values of texts as numbers, each once, in ascending order. What stands between them (quotes, signs, the names of fields) is how a format
 * writes, and not what it says.
 */
export function wordsOf(texts: Iterable<string>): Int32Array {
  const found = new Set<number>();
  for (const text of texts) {
    const lower = text.toLowerCase();
    for (const match of lower.matchAll(WORD)) found.add(hashOf(lower, match.index, match.index + match[0].length));
  }
  return Int32Array.from(found).sort();
}

/** How many words two have in common. */
export function common(a: Int32Array, b: Int32Array): number {
  let count = 0;
  for (let i = 0, j = 0; i < a.length && j < b.length;) {
    const [x, y] = [a[i]!, b[j]!];
    if (x === y) {
      count++;
      i++;
      j++;
    } else if (x < y) i++;
    else j++;
  }
  return count;
}
