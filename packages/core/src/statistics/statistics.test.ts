import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { contrast } from './contrast.ts';
import { distribution } from './distribution.ts';

describe('distribution', () => {
  test('percentiles are values that occur', () => {
    const hundred = Array.from({ length: 100 }, (_, i) => i + 1);
    expect(distribution(hundred)).toMatchObject({ count: 100, min: 1, p50: 50, p90: 90, p99: 99, max: 100 });
    expect(distribution([7])).toMatchObject({ count: 1, min: 7, p50: 7, p99: 7, max: 7, bins: [{ from: 7, to: 7, count: 1 }] });
    expect(distribution([NaN, Infinity])).toBeNull();
  });
  test('bins grow where numbers span magnitudes', () => {
    const { bins } = distribution([0, 1, 2, 10, 100, 1000, 8000])!;
    expect(bins[0]!.from).toBe(0);
    expect(bins[19]!.to - bins[19]!.from).toBeGreaterThan(100 * (bins[2]!.to - bins[2]!.from));
  });
  test('bins hold every number once, side by side', () => {
    fc.assert(
      fc.property(fc.array(fc.double({ min: -1e6, max: 1e6, noNaN: true }), { minLength: 1, maxLength: 200 }), (numbers) => {
        const found = distribution(numbers)!;
        expect(found.bins.reduce((sum, bin) => sum + bin.count, 0)).toBe(numbers.length);
        found.bins.forEach((bin, i) => i > 0 && expect(bin.from).toBe(found.bins[i - 1]!.to));
        expect(found.min).toBeLessThanOrEqual(found.p50);
        expect(found.p99).toBeLessThanOrEqual(found.max);
      }),
    );
  });
});

describe('contrast', () => {
  test('tells what stands out, the clearest first', () => {
    const found = contrast(
      [
        { field: 'host', value: 'app-3', inside: 48, outside: 30 },
        { field: 'shop', value: '0417', inside: 9, outside: 90 },
        { field: 'version', value: '6.15', inside: 50, outside: 200 },
        { field: 'lens', value: 'x', inside: 0, outside: 500 },
        { field: 'note', value: 'once', inside: 1, outside: 0 },
      ],
      50,
      1000,
      10,
    );
    expect(found.map((one) => one.value)).toEqual(['app-3', '6.15', 'x']);
    expect(found[0]!.odds).toBeGreaterThan(100);
    expect(found[2]!.odds).toBeLessThan(0.05);
  });
  test('is silent without another group', () => expect(contrast([{ field: 'a', value: 'b', inside: 9, outside: 0 }], 9, 0, 5)).toEqual([]));
});
