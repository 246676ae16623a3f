import { describe, expect, test } from '@jest/globals';
import { departures } from './depart.ts';
import { Usual } from './index-of.ts';
import { learnUsual } from './learn.ts';
import { LocalSlots, regularly, type Case } from './regularly.ts';
import { dice, lessons, milling } from './testing/legs.ts';

const HOUR = 3_600_000;
const DAY = 24 * HOUR;
/** 2026-11-02 is a Monday. */
const MONDAY = Date.UTC(2026, 10, 2);
const UTC = new LocalSlots('UTC');
/** Cases every so many hours for so many days. */
const cases = (days: number, every: number, value: (hour: number, day: number) => number): Case[] =>
  Array.from({ length: Math.floor((days * 24) / every) }, (_, i) => {
    const at = MONDAY + i * every * HOUR;
    return { at: at * 1000, value: value(new Date(at).getUTCHours(), Math.floor((at - MONDAY) / DAY)) };
  });

describe('when something regularly goes otherwise', () => {
  test('is nothing where it does not matter when', () => {
    const random = dice(3);
    expect(
      regularly(
        cases(20, 1, () => 100 + 50 * random()),
        UTC,
      ),
    ).toBeNull();
    expect(
      regularly(
        cases(20, 1, () => 100),
        UTC,
      ),
    ).toBeNull();
    expect(regularly([], UTC)).toBeNull();
  });
  test('is the hours of the night in which it takes longer, around midnight as well', () => {
    const random = dice(4);
    const night = (hour: number): boolean => hour >= 23 || hour < 3;
    const found = regularly(cases(12, 1, (hour) => (night(hour) ? 900 : 100) * (0.8 + 0.4 * random())), UTC)!; // prettier-ignore
    expect(found.span).toEqual({ by: 'hour', from: 23, count: 4 });
    expect(found.inside).toHaveLength(48);
  });
  test('is a day of the week', () => {
    const random = dice(5);
    const found = regularly(
      cases(40, 4, (_, day) => (day % 7 === 6 ? 10 : 400) * (0.8 + 0.4 * random())),
      UTC,
    )!;
    expect(found.span).toEqual({ by: 'weekday', from: 0, count: 1 });
    expect(found.days).toBe(5);
  });
  test('is not the incident of a single morning', () => {
    const random = dice(6);
    expect(
      regularly(
        cases(12, 0.1, (hour, day) => (day === 7 && hour === 9 ? 5000 : 100) * (0.8 + 0.4 * random())),
        UTC,
      ),
    ).toBeNull();
  });
  test('is told in the zone, over its change of the hour', () => {
    const random = dice(7);
    const berlin = new LocalSlots('Europe/Berlin');
    const from = Date.UTC(2026, 9, 12);
    const all = Array.from({ length: 24 * 28 }, (_, i) => {
      const at = (from + i * HOUR) * 1000;
      return { at, value: (berlin.hour(at) === 2 ? 900 : 100) * (0.8 + 0.4 * random()) };
    });
    expect(regularly(all, berlin)!.span).toEqual({ by: 'hour', from: 2, count: 1 });
  });
});

describe('a flow that is slower at night', () => {
  const random = dice(8);
  /** In milliseconds. */
  const start = (day: number, hour: number): number => MONDAY + day * DAY + hour * HOUR + random() * HOUR;
  const grinding = (hour: number): number => (hour === 2 ? 60_000 : 4000) * (0.8 + 0.4 * random());
  const days = Array.from({ length: 12 * 48 }, (_, i) => ({ day: Math.floor(i / 48), hour: Math.floor((i % 48) / 2) }));
  const usual = new Usual(learnUsual('milling', lessons(days.map(({ day, hour }) => milling(random, { start: start(day, hour), grinding: grinding(hour) }))))!); // prettier-ignore

  test('is not slow at its hour, and is in any other', () => {
    expect(departures(milling(random, { start: start(14, 2), grinding: 62_000 }), usual)).toEqual([]);
    expect(departures(milling(random, { start: start(14, 11), grinding: 62_000 }), usual)).toMatchObject([{ kind: 'late', record: 2 }]);
    expect(departures(milling(random, { start: start(14, 2), grinding: 600_000 }), usual)).toMatchObject([{ kind: 'late', record: 2 }]);
  });
  test('tells when it is otherwise, and on how many days it was', () => {
    expect(usual.of.whole.times).toMatchObject([{ span: { by: 'hour', from: 2, count: 1 }, days: 12 }]);
    expect(usual.of.whole.median).toBeLessThan(7e6);
    expect(usual.of.whole.times![0]!.median).toBeGreaterThan(50e6);
  });
});
