import type { Duration, Microseconds } from '../units.ts';

/** A time during which a source speaks. */
export interface Stretch {
  from: Microseconds;
  to: Microseconds;
}
const MINUTE: Duration = 60_000_000;
/** A silence of up to this length is never a gap. */
const SHORTEST_GAP = 5 * MINUTE;
/** A silence counts as a gap when it is this many times as long as nearly all others of the source. */
const MUCH_LONGER = 4;

/**
 * When a source speaks, by the minutes that hold records. A pause breaks the coverage where it is much longer than the pauses that the source usually
 * makes (the 98th percentile), so that a log with a line an hour is whole and a log with a line a second that is silent for ten minutes is not.
 *
 * @param minutes beginnings of minutes, in microseconds, ascending and distinct
 */
export function stretchesOf(minutes: readonly Microseconds[]): Stretch[] {
  if (minutes.length === 0) return [];
  const pauses = minutes.slice(1).map((minute, i) => minute - minutes[i]!);
  const sorted = Float64Array.from(pauses).sort();
  const usual = sorted.length === 0 ? 0 : sorted[Math.min(sorted.length - 1, Math.floor(sorted.length * 0.98))]!;
  const longest = Math.max(SHORTEST_GAP, usual * MUCH_LONGER);
  const stretches: Stretch[] = [{ from: minutes[0]!, to: minutes[0]! + MINUTE }];
  for (let i = 1; i < minutes.length; i++) {
    const last = stretches[stretches.length - 1]!;
    if (minutes[i]! - minutes[i - 1]! > longest) stretches.push({ from: minutes[i]!, to: minutes[i]! + MINUTE });
    else last.to = minutes[i]! + MINUTE;
  }
  return stretches;
}

/**
 * The union of stretches, in order of time.
 *
 * @param near stretches that are no further apart than this become one
 */
export function joinStretches(all: readonly Stretch[], near: Duration = 0): Stretch[] {
  const sorted = [...all].sort((a, b) => a.from - b.from);
  const joined: Stretch[] = [];
  for (const { from, to } of sorted) {
    const last = joined[joined.length - 1];
    if (last && from <= last.to + near) last.to = Math.max(last.to, to);
    else joined.push({ from, to });
  }
  return joined;
}
