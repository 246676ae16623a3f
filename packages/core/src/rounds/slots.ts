import { zoneClock } from '../reading/zones.ts';
import type { Duration, Microseconds } from '../units.ts';

const MINUTE: Duration = 60_000_000;
const HOUR = 60 * MINUTE;
const DAY = 24 * HOUR;
/** From this length on slots begin with the hours and days of a place; below it those of all places are the same. */
const LOCAL = 30 * MINUTE;
const LENGTHS: readonly Duration[] = [1, 2, 5, 10, 15, 30, 60, 120, 180, 360, 720, 1440, 2880, 10_080, 40_320].map((minutes) => minutes * MINUTE);

/** A window in pieces that stand one after the other. */
export interface Slots {
  /** Of a whole one; the first and the last may be cut off by the window, and one in which clocks are changed is longer or shorter. */
  length: Duration;
  /** Where each begins, and the end of the last. */
  bounds: Microseconds[];
}

/**
 * Cuts a window into at most so many slots, of a length that a clock shows: whole minutes, hours, days of a zone.
 *
 * @param from before `to`
 */
export function slotsOf(from: Microseconds, to: Microseconds, zone: string, most = 28): Slots {
  const length = LENGTHS.find((one) => (to - from) / one <= most - 2) ?? Math.ceil((to - from) / (most - 2) / DAY) * DAY;
  const clock = zoneClock(zone);
  const offset = (at: Microseconds): Duration => (length < LOCAL ? 0 : clock.offsetAt(at / 1000) * 1000);
  const bounds = [from];
  // a local day is never a slot's length from the one before where clocks are changed: it is gone by local time
  for (let local = Math.floor((from + offset(from)) / length) * length + length; ; local += length) {
    const at = length < LOCAL ? local : clock.toUtc(local);
    if (at >= to) break;
    if (at > bounds.at(-1)!) bounds.push(at);
  }
  bounds.push(to);
  return { length, bounds };
}

/** The same wall-clock times, so many days before. */
export function daysBefore(bounds: readonly Microseconds[], days: number, zone: string): Microseconds[] {
  const clock = zoneClock(zone);
  return bounds.map((at) => clock.toUtc(at + clock.offsetAt(at / 1000) * 1000 - days * DAY));
}
