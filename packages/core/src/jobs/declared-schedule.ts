import cronstrue from 'cronstrue';
import { Cron } from 'croner';
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
const read = (cron: string, zone: string): Cron => new Cron(cron, { timezone: zone, mode: '5-part', paused: true });

/** Why a schedule is none, as a sentence without its end; null where it is one. */
export function scheduleProblem({ cron, zone }: Pick<DeclaredSchedule, 'cron' | 'zone'>): string | null {
  if (cron.trim().split(/\s+/).length !== 5) return 'it has five fields, minute, hour, day of the month, month, day of the week, as in 30 6 * * 1-5';
  try {
    declaredWords({ cron, zone, lateMs: null });
    return read(cron, zone).nextRun() === null ? 'no such day comes' : null;
  } catch (error) {
    const told = error instanceof Error ? error.message : String(error);
    return told.replace(/^(?:Cron\w*|Error): */, '').replace(/\.$/, '');
  }
}

/** How much off its due a run may begin and still be the one that was due. */
export function declaredTolerance({ cron, zone, lateMs }: DeclaredSchedule): Duration {
  if (lateMs !== null) return lateMs * 1000;
  // a year's begin, so that it is the same each time
  const some = read(cron, zone).nextRuns(50, new Date(Date.UTC(2024, 0, 1)));
  const gaps = some.slice(1).map((at, i) => at.getTime() - some[i]!.getTime());
  return Math.min(LONGEST_LATE, Math.max(MINUTE / 2, Math.min(...gaps) * 100));
}

/** When runs are due in a stretch of time, in order, its end left out. @param most at most so many */
export function declaredDues({ cron, zone }: DeclaredSchedule, from: Microseconds, to: Microseconds, most: number): Microseconds[] {
  const own = read(cron, zone);
  const dues: Microseconds[] = [];
  // what is due at the very begin counts: the library tells what comes behind an instant
  for (let at = own.nextRun(new Date(Math.ceil(from / 1000) - 1)); at !== null && dues.length < most; at = own.nextRun(at)) {
    const due = at.getTime() * 1000;
    if (due >= to) break;
    if (due >= from) dues.push(due);
  }
  return dues;
}

/** A schedule in words, with its zone: `At 06:30, Monday through Friday (Europe/Berlin)`. */
export const declaredWords = ({ cron, zone }: DeclaredSchedule): string =>
  `${lowerFirst(cronstrue.toString(cron, { use24HourTimeFormat: true, verbose: false }))} (${zone})`;
const lowerFirst = (text: string): string => `${text.slice(0, 1).toLowerCase()}${text.slice(1)}`;
