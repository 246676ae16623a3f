import type { Duration } from '../units.ts';

export interface Agreed {
  low: Duration;
  high: Duration;
  /** How many agree. */
  votes: number;
}

/**
 * The stretch that lies in most of the intervals (K. Marzullo, 1984: the smallest interval that is consistent with the largest number of sources).
 * Where several are in as many, the one with the smallest differences.
 *
 * @param intervals ends may be infinite
 * @returns null for none
 */
export function agree(intervals: readonly { low: Duration; high: Duration }[]): Agreed | null {
  if (intervals.length === 0) return null;
  const lows = Float64Array.from(intervals, (one) => one.low).sort();
  const highs = Float64Array.from(intervals, (one) => one.high).sort();
  let best: Agreed | null = null;
  let opened = 0;
  let closed = 0;
  while (opened < lows.length) {
    // intervals hold their ends, so what begins where another ends meets it
    const low = lows[opened]!;
    while (opened < lows.length && lows[opened] === low) opened++;
    while (closed < highs.length && highs[closed]! < low) closed++;
    const votes = opened - closed;
    const high = highs[closed]!;
    const next = lows[opened];
    if (next !== undefined && next <= high) continue; // more to come within
    if (!best || votes > best.votes || (votes === best.votes && farness(low, high) < farness(best.low, best.high))) best = { low, high, votes };
  }
  return best;
}

/** Of the least difference that it allows. */
const farness = (low: Duration, high: Duration): Duration => (low > 0 ? low : high < 0 ? -high : 0);
