import { describe, expect, test } from '@jest/globals';
import { fit } from './fit.ts';
import type { ClockReading } from './types.ts';

const HOUR = 3_600_000_000;
/** A reading an hour; what it allows, in milliseconds. */
const readings = (ranges: readonly (readonly [number, number])[]): ClockReading[] =>
  ranges.map(([low, high], i) => ({ from: i * HOUR, to: (i + 1) * HOUR - 1, low: low * 1000, high: high * 1000, hops: 200 }));
const fitted = (ranges: readonly (readonly [number, number])[]) => fit(readings(ranges)).map(({ ahead, within }) => [ahead / 1000, within / 1000]);
const repeated = (count: number, range: readonly [number, number]) => Array.from({ length: count }, () => range);

describe('the account of a clock', () => {
  test('is the simplest that holds: right, off by as much all the time, set once', () => {
    expect(fit([])).toEqual([]);
    expect(fitted(repeated(5, [-10, 4]))).toEqual([[0, 10]]);
    expect(fitted(repeated(5, [-10, -4]))).toEqual([[-7, 3]]);
    expect(fitted([...repeated(3, [-5, 5]), ...repeated(3, [95, 105])])).toEqual([[0, 5], [100, 5]]); // prettier-ignore
  });
  test('is that it is right where one reading of many objects, which mistakes narrowed', () => {
    const odd = [...repeated(11, [-14, 2]), [-11, -4], ...repeated(3, [-14, 0])] as const;
    expect(fitted(odd)).toEqual([[0, 14]]);
    expect(fit(readings(odd))[0]).toMatchObject({ from: 0, to: 15 * HOUR - 1 });
  });
  test('is what suits all where several object, or few are known', () => {
    expect(fitted([...repeated(11, [-14, 2]), ...repeated(3, [-11, -4])])).toEqual([[-7.5, 3.5]]);
    expect(fitted([...repeated(4, [-14, 2]), [-11, -4]])).toEqual([[-7.5, 3.5]]);
  });
  test('leaves out one that nothing suits', () => {
    expect(fitted([...repeated(6, [-5, 5]), [900, 910], ...repeated(6, [-5, 5])])[0]).toEqual([0, 5]);
  });
});
