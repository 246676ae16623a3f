import { clock, day, micros } from '../time/format.ts';

/** How a line tells its time: by the clock, since the line before, or since a marked record. */
export type TimeMode = { since: 'day' } | { since: 'previous' } | { since: 'mark'; at: string };

/** The time of a line; by the clock only what changed since the line before. */
export function lineTime(at: string, before: string | null, mode: TimeMode): string {
  if (mode.since === 'mark') return signed(micros(at) - micros(mode.at));
  if (mode.since === 'previous') return before === null ? clock(at) : signed(micros(at) - micros(before));
  const own = clock(at);
  if (before === null || day(before) !== day(at)) return `${day(at).slice(5)} ${own}`;
  return clock(before, 0) === own.slice(0, 8) ? own.slice(8) : own;
}

/** A difference in microseconds as `+1.250 s`, `−3:05 min`, `+2:00:00 h`. */
export function signed(difference: number): string {
  const sign = difference < 0 ? '−' : '+';
  const all = Math.abs(difference) / 1_000_000;
  if (all < 60) return `${sign}${all.toFixed(3)} s`;
  const seconds = Math.floor(all);
  const two = (n: number): string => String(n).padStart(2, '0');
  if (seconds < 3600) return `${sign}${Math.floor(seconds / 60)}:${two(seconds % 60)} min`;
  return `${sign}${Math.floor(seconds / 3600)}:${two(Math.floor(seconds / 60) % 60)}:${two(seconds % 60)} h`;
}
