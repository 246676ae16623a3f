import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { MARK } from '../path/marks.ts';
import { departures } from './depart.ts';
import { numbersIn } from './numbers.ts';
import { fences, lieOf, usually } from './robust.ts';
import { dice, milling, said, usualOf } from './testing/legs.ts';

const usual = usualOf(200);

describe('what departs from the usual', () => {
  test('is nothing in nearly all good legs', () => {
    const random = dice(99);
    const departing = Array.from({ length: 500 }, () => departures(milling(random), usual)).filter((found) => found.length > 0);
    expect(departing.length).toBeLessThanOrEqual(1);
  });

  test('is what came late, by how much more than usual', () => {
    const [late, ...more] = departures(milling(dice(5), { grinding: 30_000 }), usual);
    expect(more).toEqual([]);
    expect(late).toMatchObject({ kind: 'late', record: 2, since: 1, took: 30_000_000 });
    if (late?.kind === 'late') expect(late.excess / 1e6).toBeCloseTo(26, 0);
  });

  test('is not what came late by far less than the whole takes', () => {
    // twelve times the usual few milliseconds, in a flow of seconds
    const records = milling(dice(5));
    expect(departures([records[0]!, ...records.slice(1).map((one) => ({ ...one, at: one.at + 60_000 }))], usual)).toEqual([]);
  });

  test('counts once where several wait for it: with whoever waits for nobody, told finely', () => {
    const random = dice(8);
    // the gate tells whole seconds at its end, and waits for the mill
    const called = (grinding: number) => [
      said(0, 'mill', 'grinding'),
      said(grinding, 'mill', 'ground'),
      { ...said(grinding, 'gate', 'answered'), marks: MARK.coarse },
    ];
    const learned = usualOf(0, Array.from({ length: 200 }, () => ({ records: called(4 + 2 * random()), outcome: 'done' as const }))); // prettier-ignore
    const found = departures(called(3000), learned).filter(({ kind }) => kind === 'late');
    expect(found).toMatchObject([{ record: 1, since: 0 }]);
  });

  test('is seen behind the next closest saying where the closest one is not there', () => {
    // nobody knows whose line it was that the grinding began
    const records = milling(dice(5), { grinding: 30_000 });
    const found = departures([records[0]!, ...records.slice(2)], usual);
    expect(found).toMatchObject([{ kind: 'late', record: 1, since: 0 }]);
  });

  test('is not what may have been in time: of whole seconds nobody knows one', () => {
    const late = milling(dice(5), { grinding: 7500 });
    const excess = (marks: number) => departures(late.map((one) => ({ ...one, marks: one.marks | marks })), usual).filter(({ kind }) => kind === 'late'); // prettier-ignore
    const [told] = excess(0);
    expect(told).toMatchObject({ kind: 'late', record: 2 });
    const fence = told?.kind === 'late' ? told.usual.fence : NaN;
    expect(excess(MARK.coarse).length).toBe(7_500_000 - 1_000_000 > fence ? 1 : 0);
    const justBeyond = milling(dice(5), { grinding: fence / 1000 + 500 });
    expect(departures(justBeyond, usual).some(({ kind }) => kind === 'late')).toBe(true);
    expect(departures(justBeyond.map((one) => ({ ...one, marks: MARK.coarse })), usual).some(({ kind }) => kind === 'late')).toBe(false); // prettier-ignore
  });

  test('is a number out of what it usually is, on either side', () => {
    for (const sacks of [1, 4000])
      expect(departures(milling(dice(5), { sacks }), usual)).toMatchObject([{ kind: 'volume', record: 2, value: sacks }]);
    for (const sacks of [33, 47]) expect(departures(milling(dice(5), { sacks }), usual)).toEqual([]);
  });

  test('of waits of which one lies in the other, the inner one is told', () => {
    const records = [...milling(dice(5)).slice(0, 2), said(40_000, 'else', 'unheard of')];
    const start = records[0]!.at / 1000;
    const found = departures(
      [records[0]!, said(start + 50_000, 'mill', 'grinding for 1'), said(start + 54_000, 'mill', 'ground 40 sacks for 1')],
      usual,
    );
    expect(found).toMatchObject([{ kind: 'late', record: 1 }]);
  });
});

describe('numbers of a line', () => {
  test.each<[string, number[]]>([
    ['read 118 rows', [118]],
    ['wrote 4,213 of 4,220 prices', [4213, 4220]],
    ['took 812 ms, waited 4.5 s, 7 rounds', [NaN, NaN, 7]],
    ['order LX-204817 at 10.7.0.13:50122 on 2026-11-24 12:03:04.5', []],
    ['http://a.example/17/b?c=9 x2 3x v1.2.3', [9]],
    ['count=17, size=4', [17, 4]],
    ['94 % of 12 done', [NaN, 12]],
    ['first 5\nsecond 6', [5]],
    ['1 2 3 4 5 6 7 8 9 10', [1, 2, 3, 4, 5, 6, 7, 8]],
  ])('%s', (line, wanted) => expect(numbersIn(line)).toEqual(wanted));
});

describe('where numbers lie', () => {
  test('the fence lies beyond all but a few, and a few strangers do not move it far', () => {
    const random = dice(2);
    const times = Array.from({ length: 400 }, () => 50_000 * (0.5 + random()));
    const clean = usually(times);
    const soiled = usually([...times, ...Array.from({ length: 12 }, () => 90_000_000)]);
    expect(times.filter((time) => time > clean.fence)).toEqual([]);
    expect(soiled.fence).toBeLessThan(clean.fence * 2);
    expect(soiled.median).toBeLessThan(clean.median * 1.1);
  });

  test('another way that one in eight goes counts as usual, however far off it lies', () => {
    const random = dice(3);
    const many = (count: number, around: number): number[] => Array.from({ length: count }, () => around * (0.8 + 0.4 * random()));
    const both = usually([...many(528, 50_000), ...many(72, 200_000_000)]);
    expect(both.fence).toBeGreaterThan(250_000_000);
    expect(both.median).toBeLessThan(60_000);
  });

  test('bounds hold the middle, whatever the numbers', () => {
    fc.assert(
      fc.property(fc.array(fc.integer({ min: 0, max: 1e9 }), { minLength: 1, maxLength: 200 }), (numbers) => {
        const lie = lieOf(numbers, 1);
        const { low, high } = fences(lie, 1);
        expect(low).toBeLessThanOrEqual(lie.median + 1e-6 * (1 + lie.median));
        expect(high).toBeGreaterThanOrEqual(lie.median - 1e-6 * (1 + lie.median));
        expect(Math.min(...numbers)).toBeLessThanOrEqual(lie.median);
        expect(lie.p90).toBeGreaterThanOrEqual(lie.median);
      }),
    );
  });
});
