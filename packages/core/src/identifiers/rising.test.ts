import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { MOSTLY, risingShare } from './rising.ts';

describe('numbers that are given out one after another', () => {
  test('rise over the end of a width and of a year, whatever check letter stands behind them', () => {
    const counter = Array.from({ length: 40 }, (_, i) => `RUN-${90 + i}-${'QXB'[i % 3]!}`);
    expect(risingShare([counter])).toBe(1);
    const years = Array.from({ length: 40 }, (_, i) => (i < 20 ? `OR-25-${99_960 + i}` : `OR-26-${String(i).padStart(5, '0')}`));
    expect(risingShare([years])).toBe(1);
  });
  test('rise where neighbours are told in the wrong order now and then', () => {
    fc.assert(
      fc.property(fc.uniqueArray(fc.nat(98), { minLength: 1, maxLength: 8 }), (swapped) => {
        const values = Array.from({ length: 100 }, (_, i) => `A${1000 + i}`);
        for (const at of swapped) [values[at], values[at + 1]] = [values[at + 1]!, values[at]!];
        expect(risingShare([values])).toBeGreaterThanOrEqual(MOSTLY);
      }),
    );
  });
  test('numbers drawn from a pool do not; the component that tells most counts; of few nothing is told', () => {
    const pool = Array.from({ length: 200 }, (_, i) => `C${1000 + ((i * 7919) % 997)}`);
    expect(risingShare([pool])).toBeLessThan(MOSTLY);
    const rising = Array.from({ length: 30 }, (_, i) => `C${i}`);
    expect(risingShare([pool, rising])).toBe(1);
    expect(risingShare([rising.slice(0, 19)])).toBeNaN();
  });
});
