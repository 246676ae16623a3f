import { describe, expect, test } from '@jest/globals';
import type { StrandRecord } from '../path/types.ts';
import { departures } from './depart.ts';
import { learnUsual } from './learn.ts';
import { Usual } from './index-of.ts';
import { dice, lessons, milling, said } from './testing/legs.ts';

const DAY = 86_400_000;
const seconds = (of: number, random: () => number): number => of * 1000 * (0.8 + 0.4 * random());

/** Forty legs a day; `of` tells how long the mill takes on a day, and whether a broom sweeps behind it. */
function days(count: number, of: (day: number) => { grinding: number; swept?: boolean }, seed = 11): StrandRecord[][] {
  const random = dice(seed);
  return Array.from({ length: count * 40 }, (_, i) => {
    const day = Math.floor(i / 40);
    const { grinding, swept } = of(day);
    const records = milling(random, { start: day * DAY + (i % 40) * 1_800_000, grinding: seconds(grinding, random) });
    return swept ? [...records.slice(0, 3), said(records[2]!.at / 1000 + 1, 'broom', 'swept'), ...records.slice(3)] : records;
  });
}
const learned = (legs: StrandRecord[][]) => learnUsual('milling', lessons(legs))!;

describe('a flow that changes for good', () => {
  const usual = learned(days(10, (day) => ({ grinding: day < 5 ? 4 : 20, swept: day >= 5 })));

  test('says since when, and what changed', () => {
    expect(usual.changed.length).toBeGreaterThan(2);
    for (const one of usual.changed) expect(one.at / 1000).toBe(5 * DAY);
    const what = (kind: string) => usual.changed.filter((one) => one.what === kind);
    expect(what('there')).toEqual([{ at: 5 * DAY * 1000, what: 'there', component: 'broom', text: 'swept', before: 0, since: 1 }]);
    const ground = what('wait').find(({ text }) => text?.startsWith('ground'))!;
    expect([ground.before / 1e6, ground.since / 1e6].map(Math.round)).toEqual([4, 20]);
  });
  test('follows it: each strand is judged by what was usual when it began', () => {
    const known = new Usual(usual);
    const odd = (at: number, grinding: number, day: number): string[] => {
      const records = milling(dice(at), { start: day * DAY + 1, grinding: grinding * 1000 });
      return departures(records, known.holding(records[0]!.at)).map(({ kind }) => kind);
    };
    expect([odd(1, 4, 2), odd(1, 20, 2), odd(1, 20, 8), odd(1, 90, 8)]).toEqual([[], ['late'], [], ['late']]);
    expect([usual.legs, usual.before!.legs]).toEqual([200, 200]);
  });
});

describe('no change for good', () => {
  test.each<[string, number, (day: number) => { grinding: number }]>([
    ['all days alike', 10, () => ({ grinding: 4 })],
    ['an incident of two days that is over', 10, (day) => ({ grinding: day === 4 || day === 5 ? 20 : 4 })],
    ['an incident of the last two days', 10, (day) => ({ grinding: day > 7 ? 20 : 4 })],
    ['a change too small to tell', 10, (day) => ({ grinding: day < 5 ? 4 : 4.2 })],
    ['a single day', 1, () => ({ grinding: 4 })],
  ])('%s', (_, count, of) => {
    const usual = learned(days(count, of));
    expect(usual.changed).toEqual([]);
    expect(usual.before).toBeNull();
  });
  test('of noise, whatever the dice say', () => {
    for (let seed = 1; seed <= 40; seed++) expect(learned(days(6, () => ({ grinding: 4 }), seed)).changed).toEqual([]);
  });
});
