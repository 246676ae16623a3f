import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { stretchOf, type Counted } from './onset.ts';
import { die } from './testing/flows.ts';

/** A minute each: so many, and the share of them that is at issue from `begin` to `end`; a hundredth of it elsewhere. */
function course(begin: number, end: number, share: number, seed: number): Counted[] {
  const next = die(seed);
  return Array.from({ length: 600 }, (_, at) => {
    const all = 5;
    const own = at >= begin && at < end ? share : share / 100;
    return { at, all, some: Array.from({ length: all }, next).filter((one) => one < own).length };
  });
}

test('begins where it became more frequent, not with the first one ever', () => {
  let near = 0;
  for (let seed = 1; seed <= 40; seed++) {
    const found = stretchOf(course(200, 320, 0.4, seed), 0.004)!;
    if (Math.abs(found.from - 200) <= 3 && Math.abs(found.to - 319) <= 3) near++;
  }
  expect(near).toBeGreaterThanOrEqual(36);
});

test('of one alone is that one; of none there is none', () => {
  const quiet = course(0, 0, 0, 1);
  expect(stretchOf(quiet, 0.01)).toBeNull();
  quiet[77]!.some = 1;
  expect(stretchOf(quiet, 0.01)).toEqual({ from: 77, to: 77, all: 5, some: 1 });
});

test('begins and ends with one that is at issue, whatever is counted', () => {
  const one = fc.record({ all: fc.integer({ min: 1, max: 9 }), part: fc.double({ min: 0, max: 1, noNaN: true }) });
  fc.assert(
    fc.property(fc.array(one, { maxLength: 80 }), fc.double({ min: 0, max: 0.5, noNaN: true }), (list, usual) => {
      const counted = list.map(({ all, part }, at) => ({ at, all, some: Math.floor(all * part) }));
      const found = stretchOf(counted, usual);
      if (!found) return expect(counted.every(({ some }) => some === 0)).toBe(true);
      expect(counted[found.from]!.some).toBeGreaterThan(0);
      expect(counted[found.to]!.some).toBeGreaterThan(0);
      const within = counted.slice(found.from, found.to + 1);
      expect([found.all, found.some]).toEqual([within.reduce((sum, { all }) => sum + all, 0), within.reduce((sum, { some }) => sum + some, 0)]);
    }),
  );
});
