import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { bucketAt, bucketOf, durationOf } from './lasted.ts';

test('a bucket stands for its durations to 2 %', () => {
  fc.assert(
    fc.property(fc.integer({ min: 1, max: 10 ** 13 }), (duration) => {
      expect(Math.abs(durationOf(bucketOf(duration)) - duration) / duration).toBeLessThanOrEqual(0.0201);
    }),
  );
  expect(bucketOf(0)).toBe(bucketOf(1));
});

test('a quantile lies where it lies in the durations themselves', () => {
  fc.assert(
    fc.property(
      fc.array(fc.integer({ min: 1, max: 10 ** 9 }), { minLength: 1, maxLength: 200 }),
      fc.constantFrom(0.5, 0.95, 1),
      (durations, quantile) => {
        const counts = new Map<number, number>();
        for (const one of durations) counts.set(bucketOf(one), (counts.get(bucketOf(one)) ?? 0) + 1);
        const sorted = [...durations].sort((a, b) => a - b);
        const exact = sorted[Math.ceil(sorted.length * quantile) - 1]!;
        expect(bucketAt([...counts].map(([bucket, count]) => ({ bucket, count })), quantile)).toBe(bucketOf(exact)); // prettier-ignore
      },
    ),
  );
  expect(bucketAt([], 0.5)).toBeNull();
});
