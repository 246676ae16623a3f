import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { odditiesOf, usuallyFor, type RunFacts } from './against-usual.ts';
import { rowsIn, rowsOf, RowsOfRun } from './rows-told.ts';
import { duesBetween, lateBetween, missedBetween, nextDue, scheduleOf, scheduleWords, type Schedule } from './schedule.ts';

const [MINUTE, HOUR, DAY] = [60_000_000, 3_600_000_000, 86_400_000_000];
const at = (iso: string): number => Date.parse(iso) * 1000;

describe('rows that a run tells', () => {
  test.each([
    ['read 4232 rows', { read: 4232 }],
    ['rejected 1 rows without a price group', { rejected: 1 }],
    ['wrote 4231 prices', { written: 4231 }],
    ['updated 1,247 rows of stock_blank, transaction open', { written: 1247 }],
    ['1.200 Sätze gelesen, 7 abgelehnt', { read: 1200, rejected: 7 }],
    ['12 rows read, 3 rejected, 9 written', { read: 12, rejected: 3, written: 9 }],
    ['rows_read=100 rows_rejected=2', { read: 100, rejected: 2 }],
    ['processed: 55, skipped: 5', { written: 55, skipped: 5 }],
    ['5 records were skipped', { skipped: 5 }],
    ['read 120 ms', {}],
    ['read 12 kB in 3 s', {}],
    ['started, file read-2024.csv', {}],
    ['finished in 13.0 s', {}],
    ['reading order LX-12', {}],
  ])('%s', (message, told) => expect(rowsIn(message)).toEqual(told));
  test('the most of each kind counts: pieces come before a sum', () => {
    const run = new RowsOfRun();
    for (const message of ['read 100 rows', 'read 200 rows', 'wrote 190 rows', 'done']) run.note(rowsIn(message));
    expect(rowsOf(run.list())).toEqual({ read: 200, written: 190, rejected: null, skipped: null });
    expect(new RowsOfRun().list()).toEqual([]);
  });
  test('whatever the message, numbers are whole and not negative', () => {
    fc.assert(fc.property(fc.string({ unit: fc.constantFrom('read', ' ', '1', '0', ',', '.', 'rows', '=', 'skipped', 'ms', '-') }), (text) => Object.values(rowsIn(text)).every((one) => Number.isSafeInteger(one) && one >= 0))); // prettier-ignore
  });
});

describe('schedules', () => {
  const begins = (
    schedule: Schedule,
    days: number,
    jitter: (i: number) => number,
    zone = 'Europe/Berlin',
    from = at('2026-11-02T00:00:00Z'),
  ): number[] => duesBetween(schedule, from, from + days * DAY, zone).map((due, i) => due + jitter(i));
  test('every so often, with some scatter and some that are missing', () => {
    const own: Schedule = { kind: 'every', period: 30 * MINUTE, offset: 7 * MINUTE, tolerance: MINUTE };
    const all = begins(own, 3, (i) => (i % 5) * 9_000_000);
    const learned = scheduleOf(all.filter((_, i) => i % 17 !== 3), 'UTC')!; // prettier-ignore
    expect(scheduleWords(learned)).toMatch(/^every 30 minutes, at :07$/);
    expect(missedBetween(learned, all.filter((_, i) => i !== 20), all[10]!, all[30]!, 'UTC')).toHaveLength(1); // prettier-ignore
  });
  test('at times of day, on working days, over a change of clocks', () => {
    const own: Schedule = { kind: 'daily', times: [2 * HOUR + 15 * MINUTE, 18 * HOUR], weekdays: [1, 2, 3, 4, 5], tolerance: 15 * MINUTE };
    const all = begins(own, 21, (i) => (i % 3) * MINUTE, 'Europe/Berlin', at('2026-10-12T00:00:00Z'));
    const learned = scheduleOf(all, 'Europe/Berlin')!;
    expect(scheduleWords(learned)).toMatch(/^Mon to Fri at 02:1[56], 18:0[01]$/);
    expect(new Date(nextDue(learned, at('2026-11-06T20:00:00Z'), 'Europe/Berlin')! / 1000).getUTCDay()).toBe(1);
  });
  test('what begins late is the one that was due; what never comes is missed', () => {
    const own: Schedule = { kind: 'every', period: 30 * MINUTE, offset: 0, tolerance: 3 * MINUTE };
    const all = begins(own, 1, () => 0);
    const [due, gone] = [all[12]!, all[20]!];
    const real = all.filter((at) => at !== gone).map((at) => (at === due ? at + 22 * MINUTE : at));
    expect([...lateBetween(own, real, all[0]!, all.at(-1)!, 'UTC')]).toEqual([[due + 22 * MINUTE, due]]);
    expect(missedBetween(own, real, all[0]!, all.at(-1)!, 'UTC')).toEqual([gone]);
    // one more than there should be is not late
    expect(lateBetween(own, [...all.slice(0, 5), all[4]! + 10 * MINUTE, ...all.slice(5)], all[0]!, all.at(-1)!, 'UTC').size).toBe(0);
  });
  test('what people do follows none', () => {
    let seed = 11;
    const chance = (): number => (seed = (seed * 16807) % 2147483647) / 2147483647;
    let now = at('2026-11-02T00:00:00Z');
    expect(scheduleOf(Array.from({ length: 300 }, () => (now += -Math.log(chance()) * 20 * MINUTE)), 'UTC')).toBeNull(); // prettier-ignore
    expect(scheduleOf([1, 2, 3], 'UTC')).toBeNull();
  });
  test('what follows a schedule exactly is never missed, whatever the schedule', () => {
    const period = fc.integer({ min: 2, max: 600 }).map((minutes) => minutes * MINUTE);
    fc.assert(
      fc.property(period, fc.integer({ min: 0, max: 1e9 }), (every, offset) => {
        const own: Schedule = { kind: 'every', period: every, offset: offset % every, tolerance: every / 10 };
        const all = duesBetween(own, at('2026-11-02T00:00:00Z'), at('2026-11-02T00:00:00Z') + 40 * every, 'UTC');
        const learned = scheduleOf(all, 'UTC');
        expect(learned).not.toBeNull();
        expect(missedBetween(learned!, all, all[0]!, all.at(-1)!, 'UTC')).toEqual([]);
      }),
      // near some time of day most days
      { examples: [[130 * MINUTE, 0], [119 * MINUTE, 0]] }, // prettier-ignore
    );
  });
});

describe('a run against the usual', () => {
  const run = (day: number, more: Partial<RunFacts> = {}): RunFacts => ({
    startedAt: day * DAY,
    duration: 10_000_000,
    outcome: 'done',
    volume: 1000,
    ...more,
  });
  const weeks = [0, 7, 14, 21, 1, 2, 3, 8, 9].map((day) => run(day, day % 7 === 0 ? { volume: 100 } : {}));
  test('the same weekday tells what is usual', () => {
    expect(usuallyFor(run(28), weeks)).toEqual({ volume: 100, duration: 10_000_000 });
    expect(usuallyFor(run(25), weeks)!.volume).toBe(1000);
    expect(usuallyFor(run(2), weeks.slice(0, 2))).toBeNull();
  });
  test('far too few, far too many, far longer, before the last has ended', () => {
    const usual = { volume: 1000, duration: 10_000_000 };
    expect(odditiesOf(run(1, { volume: 12 }), usual, undefined)).toEqual(['thin']);
    expect(odditiesOf(run(1, { volume: 0 }), usual, undefined)).toEqual(['thin']);
    expect(odditiesOf(run(1, { volume: 9000 }), usual, undefined)).toEqual(['many']);
    expect(odditiesOf(run(1, { duration: 90_000_000 }), usual, undefined)).toEqual(['long']);
    expect(odditiesOf(run(1), usual, run(1, { startedAt: DAY - 5_000_000 }))).toEqual(['overlapped']);
    expect(odditiesOf(run(1, { volume: null }), usual, run(0))).toEqual([]);
  });
});
