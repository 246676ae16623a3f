import type { Usually } from './types.ts';

/** With fewer numbers, two strangers among them are more than one in twenty. */
const MANY = 100;
/** Of a normal distribution: what lies this many spreads above the middle occurs three times in a million. */
const FAR = 4.5;
/** Spreads that rest on so few numbers may be twice what they seem. */
const UNSURE = 5;
export const OF_90 = 1.2816;
const OF_95 = 1.6449;

/** Where numbers lie on a logarithmic scale; robust as long as fewer than one in twenty do not belong to them. */
export interface Lie {
  median: number;
  p90: number;
  p99: number;
  /** Spread of the logarithm upwards and downwards, as the standard deviation of a normal distribution with these quantiles. */
  up: number;
  down: number;
}

/** @param numbers at least one, none below 0 @param unit what cannot be told apart: it is added before the logarithm is taken */
export function lieOf(numbers: readonly number[], unit: number): Lie {
  const sorted = Float64Array.from(numbers).sort();
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

/** The bounds beyond which a number departs; the fewer numbers they rest on, the further out. @param cases how many they are */
export function fences({ median, up, down }: Pick<Lie, 'median' | 'up' | 'down'>, unit: number, cases = Infinity): { low: number; high: number } {
  const middle = Math.log(median + unit);
  const far = FAR * (1 + UNSURE / cases);
  return { low: Math.exp(middle - far * down) - unit, high: Math.exp(middle + far * up) - unit };
}

/** A millisecond: what most logs tell apart, in microseconds. */
export const TOLD_APART = 1000;

/** How long something usually takes, in microseconds; below 0 counts as 0. */
export function usually(times: readonly number[]): Usually {
  const lie = lieOf(
    times.map((time) => Math.max(0, time)),
    TOLD_APART,
  );
  // what always takes the same departs only by what can be told apart
  const fence = Math.max(fences(lie, TOLD_APART, times.length).high, lie.median + TOLD_APART);
  return { median: lie.median, p90: lie.p90, p99: lie.p99, fence, cases: times.length };
}
