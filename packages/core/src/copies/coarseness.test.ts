import { describe, expect, it } from '@jest/globals';
import { coarsenessOf } from './coarseness.ts';

describe('how fine times are told', () => {
  it.each([
    [[120_000_000, 0], 60_000_000],
    [[120_000_000, 7_000_000], 1_000_000],
    [[120_000_000, 7_001_000], 1_000],
    [[120_000_000, 7_001_001], 1],
  ])('%j', (times, coarse) => expect(coarsenessOf(times)).toBe(coarse));
});
