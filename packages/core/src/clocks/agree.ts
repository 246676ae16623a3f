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

/**
 * As far around where most agree as nearly as many do: a few that are mistaken and happen to agree with most make the peak narrow, and move it.
 *
 * @param share of those that agree at the peak
 */
export function nearlyAgree(intervals: readonly { low: Duration; high: Duration }[], share: number): Agreed | null {
  const peak = agree(intervals);
  if (!peak) return null;
  const need = peak.votes * share;
  const edge = (starts: Float64Array, ends: Float64Array, from: number): number => {
    let votes = peak.votes;
    let begun = starts.findIndex((at) => at > from);
    if (begun < 0) begun = starts.length;
    for (let ended = ends.findIndex((at) => at >= from); ended >= 0 && ended < ends.length; ended++) {
      const at = ends[ended]!;
      while (begun < starts.length && starts[begun]! <= at) {
        votes++;
        begun++;
      }
      votes--;
      if (votes < need) return at;
    }
    return Infinity;
  };
  const mirrored = intervals.map(({ low, high }) => ({ low: 0 - high, high: 0 - low }));
  const sorted = (list: readonly { low: Duration; high: Duration }[], name: 'low' | 'high'): Float64Array => Float64Array.from(list, (one) => one[name]).sort(); // prettier-ignore
  return {
    votes: peak.votes,
    low: 0 - edge(sorted(mirrored, 'low'), sorted(mirrored, 'high'), 0 - peak.low),
    high: edge(sorted(intervals, 'low'), sorted(intervals, 'high'), peak.high),
  };
}

/** Of the least difference that it allows. */
const farness = (low: Duration, high: Duration): Duration => (low > 0 ? low : high < 0 ? -high : 0);
