import type { Usually } from './types.ts';

/** With fewer numbers, two strangers among them are more than one in twenty. */
const MANY = 100;
/** Of a normal distribution: what lies this many spreads above the middle occurs three times in a million. */
const FAR = 4.5;
const OF_75 = 0.6745;
const OF_90 = 1.2816;
const OF_95 = 1.6449;

/** So many may lie far off behind a gap of so many spreads, at least of a half as much again. */
const STRANGERS = 0.1;
const GAP = 2;
const SMALLEST_GAP = Math.log(1.5);

/** Where numbers lie on a logarithmic scale; robust as long as fewer than one in twenty do not belong to them. */
export interface Lie {
  median: number;
  p90: number;
  p99: number;
  /** Spread of the logarithm upwards and downwards, as the standard deviation of a normal distribution with these quantiles. */
  up: number;
  down: number;
}

/**
 * @param numbers at least one, none below 0; a group of up to a tenth that lies far off from all others does not count
 * @param unit what cannot be told apart: it is added before the logarithm is taken
 */
export function lieOf(numbers: readonly number[], unit: number): Lie {
  const sorted = withoutStrangers(Float64Array.from(numbers).sort(), unit);
  const many = sorted.length >= MANY;
  const rank = (share: number): number => sorted[Math.min(sorted.length - 1, Math.floor(sorted.length * share))]!;
  const log = (value: number): number => Math.log(value + unit);
  const [p05, p10, median, p90, p95, p99] = [rank(0.05), rank(0.1), rank(0.5), rank(0.9), rank(0.95), rank(0.99)];
  return {
    median,
    p90,
    p99,
    up: Math.max((log(p90) - log(median)) / OF_90, many ? (log(p95) - log(median)) / OF_95 : 0),
    down: Math.max((log(median) - log(p10)) / OF_90, many ? (log(median) - log(p05)) / OF_95 : 0),
  };
}

/** What lies, by the quartiles, far off on either side, and behind a gap: more of it would be another way in which it usually goes. */
function withoutStrangers(sorted: Float64Array, unit: number): Float64Array {
  const { length } = sorted;
  const log = (index: number): number => Math.log(sorted[index]! + unit);
  const [low, middle, high] = [log(Math.floor(length * 0.25)), log(Math.floor(length * 0.5)), log(Math.floor(length * 0.75))];
  const most = Math.floor(length * STRANGERS);
  const isGap = (near: number, far: number, spread: number): boolean =>
    Math.abs(log(far) - middle) > FAR * spread && Math.abs(log(far) - log(near)) > Math.max(GAP * spread, SMALLEST_GAP);
  let [from, to] = [0, length];
  for (let i = length - most; i < length; i++) if (i > 0 && isGap(i - 1, i, (high - middle) / OF_75)) to = Math.min(to, i);
  for (let i = most - 1; i >= 0; i--) if (i < length - 1 && isGap(i + 1, i, (middle - low) / OF_75)) from = Math.max(from, i + 1);
  return sorted.subarray(from, to);
}

/** The bounds beyond which a number departs. */
export function fences({ median, up, down }: Lie, unit: number): { low: number; high: number } {
  const middle = Math.log(median + unit);
  return { low: Math.exp(middle - FAR * down) - unit, high: Math.exp(middle + FAR * up) - unit };
}

/** A millisecond: what most logs tell apart. */
const TOLD_APART = 1000;

/** How long something usually takes, in microseconds; below 0 counts as 0. */
export function usually(times: readonly number[]): Usually {
  const lie = lieOf(
    times.map((time) => Math.max(0, time)),
    TOLD_APART,
  );
  return { median: lie.median, p90: lie.p90, p99: lie.p99, fence: fences(lie, TOLD_APART).high, cases: times.length };
}
