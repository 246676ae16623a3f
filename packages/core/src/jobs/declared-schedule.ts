import cronstrue from 'cronstrue';
import { Cron } from 'croner';
import { zoneClock } from '../reading/zones.ts';
import type { Duration, Microseconds } from '../units.ts';

/**
 * When runs of a job are to begin, as people state it: the five fields of a crontab (POSIX), in a zone.
 * Names of months and days, ranges, lists and steps are understood; a day of the month and a day of the week both given mean either, as crontabs do.
 */
export interface DeclaredSchedule {
  cron: string;
  /** IANA name. */
  zone: string;
  /** A run that begins so much later, in milliseconds, is still in time; null for a tenth of the time between two, at most a quarter of an hour. */
  lateMs: number | null;
}

const MINUTE: Duration = 60_000_000;
const LONGEST_LATE = 15 * MINUTE;
const HOUR = 60 * MINUTE;
/** By the clock on the wall. The library's own zones take half a millisecond for each time that is due: 2 s for one that comes every five minutes, in a fortnight. */
const read = (cron: string): Cron => new Cron(cron, { utcOffset: 0, mode: '5-part', paused: true });
/** Clocks are set by so much at most; beyond it, what is due later on the wall is due later. */
const SET_BY = 3 * HOUR;
const MOST_MEANWHILE = SET_BY / MINUTE;

/** Why a schedule is none, as a sentence without its end; null where it is one. */
export function scheduleProblem({ cron, zone }: Pick<DeclaredSchedule, 'cron' | 'zone'>): string | null {
  if (cron.trim().split(/\s+/).length !== 5) return 'it has five fields, minute, hour, day of the month, month, day of the week, as in 30 6 * * 1-5';
  try {
    zoneClock(zone);
    declaredWords({ cron, zone, lateMs: null });
    return read(cron).nextRun() === null ? 'no such day comes' : null;
  } catch (error) {
    const told = error instanceof Error ? error.message : String(error);
    return told.replace(/^(?:Cron\w*|Error): */, '').replace(/\.$/, '');
  }
}

/** How much off its due a run may begin and still be the one that was due. */
export function declaredTolerance({ cron, lateMs }: DeclaredSchedule): Duration {
  if (lateMs !== null) return lateMs * 1000;
  // a year's begin, so that it is the same each time
  const some = read(cron).nextRuns(50, new Date(Date.UTC(2024, 0, 1)));
  const gaps = some.slice(1).map((at, i) => at.getTime() - some[i]!.getTime());
  return Math.min(LONGEST_LATE, Math.max(MINUTE / 2, Math.min(...gaps) * 100));
}

/** When runs are due in a stretch of time, in order, its end left out. What is due in an hour that is left out comes behind it; in one that comes twice, once. @param most at most so many */
export function declaredDues({ cron, zone }: DeclaredSchedule, from: Microseconds, to: Microseconds, most: number): Microseconds[] {
  const own = read(cron);
  const clock = zoneClock(zone);
  const onTheWall = (at: Microseconds): number => at / 1000 + clock.offsetAt(at / 1000);
  const end = onTheWall(to) + SET_BY / 1000;
  const dues = new Set<Microseconds>();
  // the library tells what comes behind an instant
  let local = own.nextRun(new Date(Math.ceil(onTheWall(from) - SET_BY / 1000) - 1));
  for (; local !== null && local.getTime() < end && dues.size < most + MOST_MEANWHILE; local = own.nextRun(local)) {
    const due = clock.toUtc(local.getTime() * 1000);
    if (due >= from && due < to) dues.add(due);
  }
  return [...dues].sort((a, b) => a - b).slice(0, most);
}

/** A schedule in words, with its zone: `At 06:30, Monday through Friday (Europe/Berlin)`. */
export const declaredWords = ({ cron, zone }: DeclaredSchedule): string =>
  `${lowerFirst(cronstrue.toString(cron, { use24HourTimeFormat: true, verbose: false }))} (${zone})`;
const lowerFirst = (text: string): string => `${text.slice(0, 1).toLowerCase()}${text.slice(1)}`;
