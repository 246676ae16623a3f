import { zoneClock } from '../reading/zones.ts';
import type { Duration, Microseconds } from '../units.ts';
import { declaredDues, declaredTolerance, declaredWords, type DeclaredSchedule } from './declared-schedule.ts';

const MINUTE: Duration = 60_000_000;
const HOUR = 60 * MINUTE;
const DAY = 24 * HOUR;

/** When runs begin: every so often, or at times of day on days of the week, as learned; or as people state it. */
export type Schedule = (
  | { kind: 'every'; period: Duration; /** Of 1970, modulo the period. */ offset: Duration }
  | { kind: 'daily'; /** After local midnight. */ times: Duration[]; /** 0 is Sunday. */ weekdays: number[] }
  | { kind: 'declared'; declared: DeclaredSchedule }
) & {
  /** A run that begins so much off is still the one that was due. */
  tolerance: Duration;
};

/** What is declared, as a schedule. */
export const scheduleFrom = (declared: DeclaredSchedule): Schedule => ({ kind: 'declared', declared, tolerance: declaredTolerance(declared) });

const FEWEST = 4;
/** From this share of begins on that stand where they are due, and of dues that have a begin, it is a schedule. */
const FITS = 0.8;
const SHORTEST = MINUTE;
/** Begins scatter by so much at most, as a share of the time between two. */
const SCATTER = 0.1;
const MOST_TIMES = 12;
/** So near a whole minute it is meant. */
const NEARLY = 5_000_000;

/**
 * The schedule that begins follow, learned; null where they follow none. Up to once an hour every so often is tried first; of what comes seldomer times of day tell more.
 *
 * @param begins in order of time
 */
export function scheduleOf(begins: readonly Microseconds[], zone: string): Schedule | null {
  if (begins.length < FEWEST) return null;
  const every = periodic(begins);
  const often = every !== null && every.kind === 'every' && every.period <= HOUR;
  const tried = often ? [every, byClock(begins, zone)] : [byClock(begins, zone), every];
  // of two that fit the better one: what comes every 130 minutes is near some time of day most days
  const fitting = tried.flatMap((one) => (one === null ? [] : [{ one, fit: fitOf(one, begins, zone) }])).filter(({ fit }) => fit >= FITS);
  const best = Math.max(...fitting.map(({ fit }) => fit));
  return fitting.find(({ fit }) => fit === best)?.one ?? null;
}

function periodic(begins: readonly Microseconds[]): Schedule | null {
  const gaps = begins.slice(1).map((at, i) => at - begins[i]!).sort((a, b) => a - b); // prettier-ignore
  const middle = gaps[Math.floor(gaps.length / 2)]!;
  // clocks show whole minutes
  const period = Math.round(middle / MINUTE) * MINUTE;
  if (period < SHORTEST || Math.abs(middle - period) > SCATTER * period || period >= 20 * HOUR) return null;
  const exact = circularMiddle(begins.map((at) => at % period), period); // prettier-ignore
  const whole = Math.round(exact / MINUTE) * MINUTE;
  const offset = (Math.abs(exact - whole) <= NEARLY ? whole : exact) % period;
  return { kind: 'every', period, offset, tolerance: Math.max(MINUTE / 2, SCATTER * period) };
}
/** The middle of places on a circle: where most stand near. */
function circularMiddle(places: readonly number[], round: number): number {
  const [x, y] = places.reduce(([a, b], one) => [a + Math.cos((2 * Math.PI * one) / round), b + Math.sin((2 * Math.PI * one) / round)], [0, 0]);
  return Math.round((((Math.atan2(y, x) / (2 * Math.PI)) * round) % round) + round) % round;
}

const NEAR = 15 * MINUTE;
function byClock(begins: readonly Microseconds[], zone: string): Schedule | null {
  const local = begins.map((at) => localOf(at, zone));
  const days = new Set(local.map(({ day }) => day));
  const first = Math.min(...days);
  const span = Math.max(...days) - first + 1;
  if (days.size < FEWEST) return null;
  const sorted = local.map(({ time }) => time).sort((a, b) => a - b);
  const clusters: Duration[][] = [];
  for (const time of sorted) {
    const last = clusters.at(-1);
    if (last && time - last.at(-1)! <= NEAR) last.push(time);
    else clusters.push([time]);
  }
  const weekdays = [0, 1, 2, 3, 4, 5, 6].filter((weekday) => {
    const of = Array.from({ length: span }, (_, i) => first + i).filter((day) => weekdayOf(day) === weekday);
    return of.length > 0 && of.filter((day) => days.has(day)).length >= of.length / 2;
  });
  const active = [...days].filter((day) => weekdays.includes(weekdayOf(day))).length;
  const steady = clusters.filter((one) => one.length >= active / 2);
  if (steady.length === 0 || steady.length > MOST_TIMES || weekdays.length === 0) return null;
  const times = steady.map((one) => Math.round(one[Math.floor(one.length / 2)]! / MINUTE) * MINUTE);
  return { kind: 'daily', times, weekdays, tolerance: NEAR };
}

/** Of the begins, and of what was due, the share that has the other; the lesser of the two. */
function fitOf(schedule: Schedule, begins: readonly Microseconds[], zone: string): number {
  const due = duesBetween(schedule, begins[0]! - schedule.tolerance, begins.at(-1)! + schedule.tolerance, zone);
  const near = (these: readonly Microseconds[], others: readonly Microseconds[]): number =>
    these.filter((one) => nearest(one, others) <= schedule.tolerance).length / these.length;
  return due.length === 0 ? 0 : Math.min(near(begins, due), near(due, begins));
}
function nearest(at: Microseconds, sorted: readonly Microseconds[]): Duration {
  let [low, high] = [0, sorted.length];
  while (low < high) {
    const middle = (low + high) >> 1;
    if (sorted[middle]! < at) low = middle + 1;
    else high = middle;
  }
  return Math.min(Math.abs((sorted[low] ?? Infinity) - at), Math.abs(at - (sorted[low - 1] ?? -Infinity)));
}

const MOST_DUES = 5000;
/** When runs are due in a stretch of time, in order, its end left out. */
export function duesBetween(schedule: Schedule, from: Microseconds, to: Microseconds, zone: string): Microseconds[] {
  if (schedule.kind === 'declared') return declaredDues(schedule.declared, from, to, MOST_DUES);
  const due: Microseconds[] = [];
  if (schedule.kind === 'every') {
    const { period, offset } = schedule;
    for (let at = Math.ceil((from - offset) / period) * period + offset; at < to && due.length < MOST_DUES; at += period) due.push(at);
    return due;
  }
  const clock = zoneClock(zone);
  for (let day = localOf(from, zone).day - 1; day <= localOf(to, zone).day && due.length < MOST_DUES; day++) {
    if (!schedule.weekdays.includes(weekdayOf(day))) continue;
    for (const time of schedule.times) {
      const at = clock.toUtc(day * DAY + time);
      if (at >= from && at < to) due.push(at);
    }
  }
  return due;
}
/** When the next is due behind an instant; null where none is within a week and a day, or four years of what is declared. */
export const nextDue = (schedule: Schedule, after: Microseconds, zone: string): Microseconds | null =>
  schedule.kind === 'declared'
    ? (declaredDues(schedule.declared, after + 1, after + 4 * 366 * DAY, 1)[0] ?? null)
    : (duesBetween(schedule, after + 1, after + Math.max(8 * DAY, schedule.kind === 'every' ? 2 * schedule.period : 0), zone)[0] ?? null);

/** What was due in a stretch and did not begin, neither in time nor late. @param begins in order of time */
export function missedBetween(
  schedule: Schedule,
  begins: readonly Microseconds[],
  from: Microseconds,
  to: Microseconds,
  zone: string,
): Microseconds[] {
  return overdueBetween(schedule, begins, from, to, zone).flatMap(({ due, begun }) => (begun === null ? [due] : []));
}
/** Runs that began late in a stretch, by their begins: when each was due. @param begins in order of time */
export function lateBetween(
  schedule: Schedule,
  begins: readonly Microseconds[],
  from: Microseconds,
  to: Microseconds,
  zone: string,
): Map<Microseconds, Microseconds> {
  return new Map(overdueBetween(schedule, begins, from, to, zone).flatMap(({ due, begun }) => (begun === null ? [] : [[begun, due]])));
}

/** What was due and did not begin in time; with a begin where one came, that is none of another due, before the next was due. */
function overdueBetween(
  schedule: Schedule,
  begins: readonly Microseconds[],
  from: Microseconds,
  to: Microseconds,
  zone: string,
): { due: Microseconds; begun: Microseconds | null }[] {
  const { tolerance } = schedule;
  const dues = duesBetween(schedule, from, to - tolerance, zone);
  const isOver = (due: Microseconds): boolean => nearest(due, begins) > tolerance;
  if (!dues.some(isOver)) return [];
  // the one behind the last counts too: it ends the time in which that may still come
  const behind = dues.length > 0 ? nextDue(schedule, dues.at(-1)!, zone) : null;
  const all = behind === null ? dues : [...dues, behind];
  const strays = begins.filter((at) => nearest(at, all) > tolerance);
  return dues.flatMap((due, i) => {
    if (!isOver(due)) return [];
    const next = all[i + 1] ?? Infinity;
    return [{ due, begun: strays.find((at) => at > due && at < next) ?? null }];
  });
}

function localOf(at: Microseconds, zone: string): { day: number; time: Duration } {
  const local = at + zoneClock(zone).offsetAt(at / 1000) * 1000;
  const day = Math.floor(local / DAY);
  return { day, time: local - day * DAY };
}
/** Of a day since 1970, which was a Thursday. */
const weekdayOf = (day: number): number => (((day + 4) % 7) + 7) % 7;

const NAMES = ['Sun', 'Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat'];
/** A schedule in words. */
export function scheduleWords(schedule: Schedule): string {
  if (schedule.kind === 'declared') return declaredWords(schedule.declared);
  if (schedule.kind === 'every') {
    const minutes = schedule.period / MINUTE;
    const often = minutes % 60 === 0 ? (minutes === 60 ? 'every hour' : `every ${minutes / 60} hours`) : `every ${minutes} minutes`;
    const past = Math.round((schedule.offset % HOUR) / MINUTE) % 60;
    return minutes % 60 === 0 || 60 % minutes === 0 ? `${often}, at :${String(past % (minutes % 60 === 0 ? 60 : minutes)).padStart(2, '0')}` : often;
  }
  const { times, weekdays } = schedule;
  const days = weekdays.length === 7 ? 'daily' : weekdays.join() === '1,2,3,4,5' ? 'Mon to Fri' : weekdays.map((one) => NAMES[one]!).join(', ');
  return `${days} at ${times.map((time) => `${String(Math.floor(time / HOUR)).padStart(2, '0')}:${String(Math.round((time % HOUR) / MINUTE)).padStart(2, '0')}`).join(', ')}`;
}
