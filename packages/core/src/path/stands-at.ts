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
/** Others belong to it within so many times its duration. */
const NEAR = 1.1;

/**
 * Whether records that state a duration stand at its begin or at its end: what others say of the same lies behind them, or before them.
 *
 * @returns null where nothing is sure
 */
export function standsAt(records: readonly Lasting[]): 'begin' | 'end' | null {
  let begin = 0;
  let end = 0;
  for (const { at, took, coarse, others } of records) {
    // a second that is rounded says nothing of what lasts no longer
    if (coarse && took < 2 * SECOND) continue;
    const middle = coarse ? at + SECOND / 2 : at;
    const near = others.map((other) => other - middle).filter((apart) => Math.abs(apart) <= took * NEAR + (coarse ? SECOND : 0));
    const behind = near.filter((apart) => apart > 0).length;
    const before = near.filter((apart) => apart < 0).length;
    if (behind > before) begin++;
    else if (before > behind) end++;
  }
  const most = Math.max(begin, end);
  if (most < FEWEST || most < (begin + end) * SHARE) return null;
  return begin > end ? 'begin' : 'end';
}
