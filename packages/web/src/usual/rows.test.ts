import { describe, expect, test } from '@jest/globals';
import type { FlowUsual } from '@fadenweg/api';
import { place, rowsOf, shareWords } from './rows.ts';

const time = { medianMs: 4, p90Ms: 6, p99Ms: 9, fenceMs: 20 };
const saying = (component: string, legs: number, more: object = {}) => ({ component, text: `said by ${component}`, traits: '', legs, bad: 0, most: 1, after: null, then: [], volumes: [], ...more }); // prettier-ignore
const usual = {
  flow: 'x', label: 'x', legs: 200, bad: 10, since: '', until: '', whole: time, records: { least: 1, median: 2, most: 3 }, ends: [], variants: [],
  sayings: [saying('shop', 200), saying('mill', 199, { after: { saying: 0, ...time }, bad: 5 }), saying('shop', 30), saying('cat', 1)],
} as FlowUsual; // prettier-ignore

describe('the rows of a usual path', () => {
  test('are what enough good ones have, each component with one lane', () => {
    expect(rowsOf(usual, 0.1)).toMatchObject({ lanes: ['shop', 'mill'], rows: [{ share: 1, medianMs: null }, { medianMs: 4, p99Ms: 9, badShare: 0.5 }, { share: 0.15 }] }); // prettier-ignore
    expect(rowsOf(usual, 0).lanes).toEqual(['shop', 'mill', 'cat']);
    expect(rowsOf({ ...usual, bad: 0 }, 0.5).rows.map((row) => row.badShare)).toEqual([0, 0]);
  });
  test.each([[1, 'all'], [0.999, '> 99 %'], [0.9949, '99 %'], [0.15, '15 %'], [0.004, '< 1 %']])('a share of %d is said as %s', (share, words) => expect(shareWords(share)).toBe(words)); // prettier-ignore
  test('a time stands on a scale of factors', () => {
    expect([1, 10, 100, 1000, 0.1].map((one) => Math.round(place(one, 1, 100) * 100))).toEqual([0, 50, 100, 100, 0]);
    expect(place(5, 5, 5)).toBe(0);
  });
});
