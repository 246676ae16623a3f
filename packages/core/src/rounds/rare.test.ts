import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { chanceOfCount, chanceOfShare, discoveries } from './rare.ts';

describe('how likely a share is', () => {
  test('as a tea taster would have it: 1 in 70 that all four of eight are guessed', () => {
    expect(chanceOfShare(4, 4, 0, 4)).toBeCloseTo(1 / 70, 10);
    expect(chanceOfShare(3, 4, 1, 4)).toBeCloseTo(17 / 70, 10);
  });
  test('never more than 1, the smaller the more there are, and 1 where there are none', () => {
    const n = fc.integer({ min: 0, max: 400 });
    fc.assert(
      fc.property(n, n, n, n, (a, b, c, d) => {
        const [all, allOthers] = [a + b, c + d];
        const chance = chanceOfShare(a, all, c, allOthers);
        expect(chance).toBeGreaterThanOrEqual(0);
        expect(chance).toBeLessThanOrEqual(1);
        if (a === 0) expect(chance).toBe(1);
      }),
    );
  });
});

describe('how likely a count is', () => {
  test('as chance has it, more spread out, and evener', () => {
    expect(chanceOfCount(0, 3, 1).fewer).toBeCloseTo(Math.exp(-3), 10);
    expect(chanceOfCount(1, 3, 1).more).toBeCloseTo(1 - Math.exp(-3), 10);
    // negative binomial of mean 3 and variance 6: zero has (1/2)^3
    expect(chanceOfCount(0, 3, 2).fewer).toBeCloseTo(0.125, 10);
    expect(chanceOfCount(0, 2, 0.05).fewer).toBeLessThan(1e-5);
    expect(chanceOfCount(0, 0, 1)).toEqual({ fewer: 1, more: 1 });
    expect(chanceOfCount(2, 0, 1).more).toBe(0);
  });
  test('both sides together hold every count', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 0, max: 300 }),
        fc.double({ min: 0.1, max: 200, noNaN: true }),
        fc.double({ min: 1, max: 20, noNaN: true }),
        (count, mean, spread) => {
          const { fewer, more } = chanceOfCount(count, mean, spread);
          expect(fewer + more).toBeGreaterThanOrEqual(1 - 1e-9);
          expect(Math.min(fewer, more)).toBeGreaterThanOrEqual(0);
          expect(Math.max(fewer, more)).toBeLessThanOrEqual(1 + 1e-9);
        },
      ),
    );
  });
});

test('of many tests those are told of which hardly any is told by chance', () => {
  expect(discoveries([0.9, 0.001, 0.02, 0.3], 0.05)).toEqual([false, true, true, false]);
  expect(discoveries([0.04, 0.04, 0.04], 0.05)).toEqual([true, true, true]);
  expect(discoveries([], 0.05)).toEqual([]);
  expect(
    discoveries(
      Array.from({ length: 1000 }, (_, i) => (i + 1) / 1000),
      0.05,
    ).some(Boolean),
  ).toBe(false);
});
