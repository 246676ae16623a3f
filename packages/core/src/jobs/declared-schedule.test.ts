import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { duesBetween, missedBetween, nextDue, scheduleFrom, scheduleProblem, scheduleWords, type DeclaredSchedule } from './index.ts';

const MINUTE = 60_000_000;
const HOUR = 60 * MINUTE;
const at = (iso: string): number => Date.parse(iso) * 1000;
const iso = (us: number): string => new Date(us / 1000).toISOString();
const own = (cron: string, zone = 'Europe/Berlin', lateMs: number | null = null): DeclaredSchedule => ({ cron, zone, lateMs });

describe('what is declared', () => {
  test('is due in its own zone, also where the clock is set', () => {
    const schedule = scheduleFrom(own('30 6 * * 1-5'));
    expect(duesBetween(schedule, at('2026-10-23T00:00:00Z'), at('2026-10-27T00:00:00Z'), 'UTC').map(iso)).toEqual([
      '2026-10-23T04:30:00.000Z',
      '2026-10-26T05:30:00.000Z',
    ]);
    // what is due at the very begin of a stretch counts, at its very end not
    expect(duesBetween(schedule, at('2026-10-23T04:30:00Z'), at('2026-10-26T05:30:00Z'), 'UTC')).toHaveLength(1);
    expect(scheduleWords(schedule)).toBe('at 06:30, Monday through Friday (Europe/Berlin)');
  });
  test('in an hour that comes twice it is due once, in one that is left out behind it, and nothing is lost beside it', () => {
    const all = (cron: string, from: string, to: string): string[] => duesBetween(scheduleFrom(own(cron)), at(from), at(to), 'UTC').map(iso);
    expect(all('30 2 * * *', '2026-10-25T00:00:00Z', '2026-10-25T03:00:00Z')).toHaveLength(1);
    expect(all('30 2 * * *', '2026-03-29T00:00:00Z', '2026-03-29T12:00:00Z')).toHaveLength(1);
    expect(all('0 * * * *', '2026-03-29T00:00:00Z', '2026-03-29T05:00:00Z')).toEqual([0, 1, 2, 3, 4].map((hour) => `2026-03-29T0${hour}:00:00.000Z`));
  });
  test('may be due once a year, and then it is known when', () => {
    expect(iso(nextDue(scheduleFrom(own('0 3 29 2 *', 'UTC')), at('2026-11-24T00:00:00Z'), 'UTC')!)).toBe('2028-02-29T03:00:00.000Z');
  });
  test('tells a run that did not begin from one that began late', () => {
    const begins = ['2026-11-23T06:01:00Z', '2026-11-24T07:10:00Z', '2026-11-26T06:00:00Z'].map(at);
    const missed = missedBetween(scheduleFrom(own('0 6 * * *', 'UTC')), begins, at('2026-11-23T00:00:00Z'), at('2026-11-26T12:00:00Z'), 'UTC');
    expect(missed.map(iso)).toEqual(['2026-11-25T06:00:00.000Z']);
  });
  test('how much later a run may begin is stated, else it hangs on how often one is due', () => {
    expect(scheduleFrom(own('*/5 * * * *')).tolerance).toBe(MINUTE / 2);
    expect(scheduleFrom(own('0 * * * *')).tolerance).toBe(6 * MINUTE);
    expect(scheduleFrom(own('0 6 1 * *')).tolerance).toBe(15 * MINUTE);
    expect(scheduleFrom(own('0 6 1 * *', 'UTC', 3_600_000)).tolerance).toBe(HOUR);
  });
  test.each([
    ['30 6 * *', 'UTC', 'five fields'],
    ['* * * * * *', 'UTC', 'five fields'],
    ['61 6 * * *', 'UTC', 'minutes part'],
    ['0 0 31 2 *', 'UTC', 'no such day comes'],
    ['0 6 * * *', 'Atlantis/Sunken', 'Atlantis'],
  ])('%s in %s is refused with a reason', (cron, zone, reason) => {
    expect(scheduleProblem({ cron, zone })).toContain(reason);
  });
  test('whatever is typed is refused or understood, and what is understood has words and comes in order', () => {
    const field = fc.stringMatching(/^[0-9*,/\-LW#A-Z]{1,6}$/);
    fc.assert(
      fc.property(fc.array(field, { minLength: 4, maxLength: 6 }), (fields) => {
        const cron = fields.join(' ');
        if (scheduleProblem({ cron, zone: 'Europe/Berlin' }) !== null) return;
        const schedule = scheduleFrom(own(cron));
        const dues = duesBetween(schedule, at('2026-11-01T00:00:00Z'), at('2026-11-08T00:00:00Z'), 'UTC');
        expect(dues.every((due, i) => i === 0 || due > dues[i - 1]!)).toBe(true);
        expect(schedule.tolerance).toBeGreaterThan(0);
        expect(scheduleWords(schedule)).not.toMatch(/undefined|NaN|null/);
      }),
    );
  });
});
