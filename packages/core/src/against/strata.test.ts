import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { chanceOfShare } from '../rounds/index.ts';
import { chanceOfLarger, chanceWithin } from './strata.ts';

test('several tables: every way of marking is counted', () => {
  // by hand: two tables of 1 own and 1 other, each with one marked; both own ones marked: a half times a half
  const table = { own: { all: 1, some: 1 }, others: { all: 1, some: 0 } };
  expect(chanceWithin([table, table])).toBeCloseTo(0.25, 12);
  expect(chanceWithin([table, { own: { all: 1, some: 0 }, others: { all: 1, some: 1 } }])).toBeCloseTo(0.75, 12);
});

test('a difference between flows is none within them', () => {
  // own ones come mostly by the flow that often fails; within each flow own and others are alike
  const flows = [
    { own: { all: 90, some: 45 }, others: { all: 10, some: 5 } },
    { own: { all: 10, some: 0 }, others: { all: 90, some: 0 } },
  ];
  expect(chanceWithin(flows)).toBeGreaterThan(0.3);
  expect(chanceOfShare(45, 100, 5, 100)).toBeLessThan(1e-9);
});

const side = (most: number) => fc.integer({ min: 0, max: most }).chain((all) => fc.integer({ min: 0, max: all }).map((some) => ({ all, some })));
test('one table is the exact test; a chance is a chance; more marked is less likely', () => {
  fc.assert(
    fc.property(side(40), side(40), side(40), side(40), (a, b, c, d) => {
      const one = chanceWithin([{ own: a, others: b }]);
      if (a.all > 0 && b.all > 0) expect(one).toBeCloseTo(a.some === 0 ? 1 : chanceOfShare(a.some, a.all, b.some, b.all), 9);
      const both = chanceWithin([{ own: a, others: b }, { own: c, others: d }]); // prettier-ignore
      expect(both).toBeGreaterThanOrEqual(0);
      expect(both).toBeLessThanOrEqual(1);
      if (a.some < a.all && b.some > 0)
        expect(chanceWithin([{ own: { ...a, some: a.some + 1 }, others: { ...b, some: b.some - 1 } }, { own: c, others: d }])).toBeLessThanOrEqual(both + 1e-9); // prettier-ignore
    }),
  );
});

test('many marked are told about alike by both ways', () => {
  const flows = (times: number) => [
    { own: { all: 40 * times, some: 11 * times }, others: { all: 200 * times, some: 40 * times } },
    { own: { all: 20 * times, some: 4 * times }, others: { all: 100 * times, some: 20 * times } },
  ];
  expect(chanceWithin(flows(6))).toBeGreaterThan(chanceWithin(flows(20)));
  expect(chanceWithin(flows(100))).toBeLessThan(1e-6);
});

test('ranks within a flow: shifted is larger, alike is not, ties count half', () => {
  const others = Array.from({ length: 40 }, (_, i) => 100 + i);
  expect(chanceOfLarger([{ own: others.map((one) => one + 200), others }])).toBeLessThan(1e-9);
  expect(chanceOfLarger([{ own: others, others }])).toBeCloseTo(0.5, 6);
  expect(chanceOfLarger([{ own: [5, 5, 5], others: [5, 5, 5, 5] }])).toBe(1);
  // slow by nature, not by whom
  const slow = others.map((one) => one * 50);
  expect(
    chanceOfLarger([
      { own: slow, others: slow.filter((_, i) => i % 4 === 1) },
      { own: others.slice(0, 4), others: others.slice(0, 4) },
    ]),
  ).toBeGreaterThan(0.05);
});

test('larger and smaller add up', () => {
  const values = fc.array(fc.integer({ min: 0, max: 30 }), { minLength: 1, maxLength: 30 });
  fc.assert(
    fc.property(values, values, (own, others) => {
      fc.pre(new Set([...own, ...others]).size > 1);
      expect(chanceOfLarger([{ own, others }]) + chanceOfLarger([{ own: others, others: own }])).toBeCloseTo(1, 6);
    }),
  );
});
