import { LEVELS, type Duration } from '../../units.ts';

const UNIT: Record<string, Duration> = { us: 1, µs: 1, ms: 1000, s: 1_000_000, sec: 1_000_000, min: 60_000_000, h: 3_600_000_000, d: 86_400_000_000 };

/** Microseconds of `250ms`, `2s`, `5min`; a bare number counts milliseconds; NaN for anything else. */
export function durationOf(text: string): Duration {
  const hit = /^(-?\d+(?:\.\d+)?) ?([a-zµ]*)$/.exec(text.trim());
  if (!hit) return NaN;
  const unit = hit[2] === '' ? 1000 : UNIT[hit[2]!];
  return unit === undefined ? NaN : Number(hit[1]) * unit;
}

/** A number as it is usually written, NaN for anything else. */
export const numberOf = (text: string): number => (/^-?\d+(?:\.\d+)?(?:[eE][+-]?\d+)?$/.test(text.trim()) ? Number(text) : NaN);

/** The level that a word names in the search language, -1 for none. */
export const levelIndex = (text: string): number =>
  (LEVELS as readonly string[]).indexOf(text.toLowerCase() === 'warn' ? 'warning' : text.toLowerCase());

/** Microseconds since 1970 of an ISO 8601 text, NaN for anything else; without an offset it is UTC. */
export function timeOf(text: string): number {
  const hit = /^\d{4}-\d\d-\d\d(?:[T ]\d\d:\d\d(?::\d\d(?:\.(\d{1,6}))?)?)?(Z|[+-]\d\d:?\d\d)?$/.exec(text.trim());
  if (!hit) return NaN;
  const bare = text.trim().replace(' ', 'T').replace(/\.\d+/, '');
  const ms = Date.parse(hit[2] ? bare : bare.includes('T') ? `${bare}Z` : bare);
  return ms * 1000 + (hit[1] ? Number(hit[1].padEnd(6, '0')) : 0);
}
