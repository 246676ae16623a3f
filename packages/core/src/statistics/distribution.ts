/** How numbers lie. Percentiles are values that occur (nearest rank). */
export interface Distribution {
  count: number;
  min: number;
  p50: number;
  p90: number;
  p99: number;
  max: number;
  /** Bins side by side, the last one with its end. */
  bins: { from: number; to: number; count: number }[];
}

const BINS = 20;
/** From this ratio of largest to smallest on, bins grow by a factor instead of a step. */
const WIDE = 200;

/** Describes numbers; null for none. NaN and infinite ones are left out. */
export function distribution(numbers: readonly number[]): Distribution | null {
  const sorted = Float64Array.from(numbers.filter(Number.isFinite)).sort();
  const count = sorted.length;
  if (count === 0) return null;
  const rank = (share: number): number => sorted[Math.max(0, Math.ceil(count * share) - 1)]!;
  const min = sorted[0]!;
  const max = sorted[count - 1]!;
  const above = sorted.find((one) => one > 0) ?? NaN;
  const byFactor = min >= 0 && max / above >= WIDE;
  const edges =
    min === max ? [min, max] : Array.from({ length: BINS + 1 }, (_, i) => (byFactor ? edge(above, max, i) : min + ((max - min) * i) / BINS));
  edges[0] = min;
  edges[edges.length - 1] = max;
  const bins = edges.slice(1).map((to, i) => ({ from: edges[i]!, to, count: 0 }));
  let at = 0;
  for (const one of sorted) {
    while (at < bins.length - 1 && one >= bins[at]!.to) at++;
    bins[at]!.count++;
  }
  return { count, min, p50: rank(0.5), p90: rank(0.9), p99: rank(0.99), max, bins };
}

const edge = (low: number, high: number, i: number): number => low * (high / low) ** (i / BINS);
