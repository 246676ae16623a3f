/** Spans and moments that are tried are some hundred, and so are the sayings of a flow: by chance none of them lies so many spreads away. */
export const SURE = 5.5;

export interface Ranks {
  of: Float64Array;
  /** N + 1 with the correction for equal values. */
  spread: number;
}

/** Ranks from 1, those of equal values shared. */
export function ranksOf(cases: readonly { value: number }[]): Ranks {
  const values = Float64Array.from(cases, ({ value }) => value);
  const order = Uint32Array.from(values, (_, i) => i).sort((a, b) => values[a]! - values[b]!);
  const of = new Float64Array(cases.length);
  let ties = 0;
  for (let i = 0; i < order.length;) {
    let end = i + 1;
    while (end < order.length && values[order[end]!] === values[order[i]!]) end++;
    for (let k = i; k < end; k++) of[order[k]!] = (i + 1 + end) / 2;
    ties += (end - i) ** 3 - (end - i);
    i = end;
  }
  const n = cases.length;
  return { of, spread: Math.max(n + 1 - ties / (n * (n - 1)), Number.MIN_VALUE) };
}

/**
 * How many spreads apart some of the values lie from all others, by their ranks (Mann and Whitney).
 *
 * @param n how many they are
 * @param sum of their ranks
 */
export function awayFromTheRest(n: number, sum: number, { of, spread }: Ranks): number {
  return Math.abs(sum - (n * (of.length + 1)) / 2) / Math.sqrt(((n * (of.length - n)) / 12) * spread);
}

export function medianOf(values: readonly number[]): number {
  const sorted = Float64Array.from(values).sort();
  return sorted[sorted.length >> 1]!;
}
