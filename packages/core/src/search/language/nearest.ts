/** The name that was probably meant: the nearest one within a third of its letters, null where none is near. Upper and lower case alike. */
export function nearestName(name: string, known: Iterable<string>): string | null {
  const wanted = name.toLowerCase();
  let best: string | null = null;
  let least = Math.max(1, Math.floor(wanted.length / 3)) + 1;
  for (const one of known) {
    const distance = edits(wanted, one.toLowerCase(), least);
    if (distance < least) {
      least = distance;
      best = one;
    }
  }
  return best;
}

/** Letters to put in, take out, change or swap with the next (restricted Damerau–Levenshtein), `most` where it is at least that many. */
function edits(a: string, b: string, most: number): number {
  if (Math.abs(a.length - b.length) >= most) return most;
  let before: number[] = [];
  let row = Array.from({ length: b.length + 1 }, (_, i) => i);
  for (let i = 1; i <= a.length; i++) {
    const next = [i];
    for (let j = 1; j <= b.length; j++) {
      const change = row[j - 1]! + (a[i - 1] === b[j - 1] ? 0 : 1);
      next[j] = Math.min(change, row[j]! + 1, next[j - 1]! + 1);
      if (i > 1 && j > 1 && a[i - 1] === b[j - 2] && a[i - 2] === b[j - 1]) next[j] = Math.min(next[j]!, before[j - 2]! + 1);
    }
    if (Math.min(...next) >= most) return most;
    before = row;
    row = next;
  }
  return Math.min(most, row[b.length]!);
}
