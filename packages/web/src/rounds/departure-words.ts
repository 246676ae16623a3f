import type { Departure, Outcome } from '@fadenweg/api';
import { clock, count, day, sameDay } from '../time/format.ts';

/** The stitch that stands before a departure. */
export function outcomeOf({ outcome, what }: Pick<Departure, 'outcome' | 'what'>): Outcome | null {
  if (outcome !== null) return outcome;
  return what === 'slow' ? 'slow' : what === 'failing' ? 'failed' : null;
}

/** Numbers of which few are usual. */
const few = (n: number): string => (n < 0.05 ? 'none' : n < 10 ? (Math.round(n * 10) / 10).toLocaleString('en') : count(Math.round(n)));

/** How much: so many of so many, and how many usually. */
export function muchWords({ count: n, of, expected, what }: Pick<Departure, 'count' | 'of' | 'expected' | 'what'>): string {
  if (what === 'clock') return '';
  if (of === null) return expected === null ? '' : `${n === 0 ? 'none' : count(n)}, usually ${few(expected)}`;
  const usual = expected === null ? '' : expected < 0.05 ? ', never before' : `, usually ${few(expected)}`;
  return `${count(n)} of ${count(of)}${usual}`;
}

/** Since when; from when to when where it is over. */
export function whenWords({ from, to, ongoing, what }: Pick<Departure, 'from' | 'to' | 'ongoing' | 'what'>, today: string): string {
  const at = (iso: string): string => `${sameDay(iso, today) ? '' : `${day(iso).slice(5)} `}${clock(iso, 0).slice(0, 5)}`;
  if (what === 'clock') return '';
  if (ongoing) return `since ${at(from)}`;
  return at(from) === at(to) ? `at ${at(from)}` : `${at(from)} to ${at(to)}`;
}
