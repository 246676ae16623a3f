import type { Duration, Microseconds } from '../units.ts';

/** A record that states a duration, and when others name what it names. */
export interface Lasting {
  at: Microseconds;
  took: Duration;
  /** Its time is told in whole seconds. */
  coarse: boolean;
  others: readonly Microseconds[];
}

/** So many records have to say the same, and so large a share of those that say anything. */
const FEWEST = 8;
const SHARE = 0.8;
const SECOND = 1_000_000;
/** Something is said near an edge within this share of the duration, and nothing within so many times that near the other one. */
const NEAR = 0.1;
const APART = 4;

/**
 * Whether records that state a duration stand at its begin or at its end.
 *
 * One edge of it is where the record stands; the other lies a duration before, or a duration behind. Whoever calls or is called says something at both edges, so that the true
 * one is told by what others say near it. What lies within tells nothing by itself: within a call that calls nobody is silence, and behind it its caller goes on.
 *
 * @returns null where nothing is sure
 */
export function standsAt(records: readonly Lasting[]): 'begin' | 'end' | null {
  let begin = 0;
  let end = 0;
  for (const { at, took, coarse, others } of records) {
    // a second that is rounded says nothing of what lasts hardly longer
    if (coarse && took < 5 * SECOND) continue;
    const from = coarse ? at + SECOND / 2 : at;
    const near = (edge: Microseconds): Duration =>
      Math.max(0, Math.min(...others.map((other) => Math.abs(other - edge))) - (coarse ? SECOND / 2 : 0));
    const before = near(from - took);
    const behind = near(from + took);
    const least = Math.max(took * NEAR, 1);
    if (behind <= least && before > least * APART) begin++;
    else if (before <= least && behind > least * APART) end++;
  }
  const most = Math.max(begin, end);
  if (most < FEWEST || most < (begin + end) * SHARE) return null;
  return begin > end ? 'begin' : 'end';
}
