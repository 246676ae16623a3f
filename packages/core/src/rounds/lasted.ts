import type { Duration } from '../units.ts';

/** Durations of one bucket are within 2 % of what stands for it. */
const EXACT = 0.02;
const GROWTH = Math.log((1 + EXACT) / (1 - EXACT));

/**
 * The bucket of a duration in a sketch of durations whose buckets grow by a factor, so that what was counted can be taken out again (DDSketch: Masson, Rim, Lee, 2019). The
 * database works it out by the same formula (`lasted` in migration 006).
 *
 * @param duration in microseconds; what is none is taken for one microsecond
 */
export const bucketOf = (duration: Duration): number => Math.ceil(Math.log(Math.max(1, duration)) / GROWTH);

/** What stands for a bucket: its middle, as far from both ends in proportion. */
export const durationOf = (bucket: number): Duration => (2 * Math.exp(bucket * GROWTH)) / (1 + Math.exp(GROWTH));

/**
 * The bucket in which a quantile lies.
 *
 * @param counts of buckets, in any order; null where they hold nothing
 */
export function bucketAt(counts: readonly { bucket: number; count: number }[], quantile: number): number | null {
  const sorted = counts.filter((one) => one.count > 0).sort((a, b) => a.bucket - b.bucket);
  const all = sorted.reduce((sum, one) => sum + one.count, 0);
  let left = Math.ceil(all * quantile);
  for (const { bucket, count } of sorted) if ((left -= count) <= 0) return bucket;
  return sorted.at(-1)?.bucket ?? null;
}
