import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { lowerShare } from './share.ts';

test('lies below the share, comes nearer with more of them, and is nothing of nothing', () => {
  expect(lowerShare(0, 0)).toBe(0);
  expect(lowerShare(0, 186)).toBe(0);
  expect(lowerShare(3, 3)).toBeCloseTo(0.5258, 3);
  fc.assert(
    fc.property(fc.integer({ min: 1, max: 500 }), fc.integer({ min: 0, max: 500 }), (of, part) => {
      const count = Math.min(part, of);
      const low = lowerShare(count, of);
      expect(low).toBeGreaterThanOrEqual(0);
      expect(low).toBeLessThanOrEqual(count / of);
      expect(lowerShare(count * 10, of * 10)).toBeGreaterThanOrEqual(low);
    }),
  );
});
