import { describe, expect, test } from '@jest/globals';
import type { FlowUsual } from '@fadenweg/api';
import { changeWords, place, rangeWords, rowsOf, shareWords, spanWords } from './rows.ts';

const time = { medianMs: 4, p90Ms: 6, p99Ms: 9, fenceMs: 20, times: [] };
const saying = (component: string, legs: number, more: object = {}) => ({ component, text: `said by ${component}`, traits: '', legs, bad: 0, most: 1, after: null, then: [], volumes: [], ...more }); // prettier-ignore
const usual = {
  flow: 'x', label: 'x', legs: 200, bad: 10, since: '', until: '', whole: time, patienceMs: 60_000, records: { least: 1, median: 2, most: 3 }, ends: [], variants: [], continues: [], zone: 'UTC', changed: [],
  sayings: [saying('shop', 200), saying('mill', 199, { after: { saying: 0, ...time }, bad: 5 }), saying('shop', 30), saying('cat', 1)],
} as FlowUsual; // prettier-ignore

describe('the rows of a usual path', () => {
  test('are what enough good ones have, each component with one lane', () => {
    expect(rowsOf(usual, 0.1)).toMatchObject({ lanes: ['shop', 'mill'], rows: [{ share: 1, medianMs: null }, { medianMs: 4, p99Ms: 9, badShare: 0.5 }, { share: 0.15 }] }); // prettier-ignore
    expect(rowsOf(usual, 0).lanes).toEqual(['shop', 'mill', 'cat']);
    expect(rowsOf({ ...usual, bad: 0 }, 0.5).rows.map((row) => row.badShare)).toEqual([0, 0]);
  });
  test.each([[1, 'all'], [0.999, '> 99 %'], [0.9949, '99 %'], [0.15, '15 %'], [0.004, '< 1 %']])('a share of %d is said as %s', (share, words) => expect(shareWords(share)).toBe(words)); // prettier-ignore
  test.each([
    [{ by: 'hour', from: 2, count: 1 }, '02:00–03:00'],
    [{ by: 'hour', from: 23, count: 3 }, '23:00–02:00'],
    [{ by: 'weekday', from: 0, count: 1 }, 'Sundays'],
    [{ by: 'weekday', from: 5, count: 3 }, 'Fridays to Sundays'],
  ] as const)('%o is said as %s', (span, words) => expect(spanWords(span)).toBe(words));
  test('what is otherwise at some times is told beside it', () => {
    const at = { by: 'weekday' as const, from: 6, count: 2, days: 9 };
    const more = { after: { saying: 0, ...time, times: [{ ...at, medianMs: 4000, p99Ms: 9000 }] }, volumes: [{ of: '0', median: 9, least: 1, most: 12, times: [{ ...at, least: 2, most: 2 }] }] }; // prettier-ignore
    expect(rowsOf({ ...usual, sayings: [saying('mill', 200, more)] }, 0).rows[0]!.otherwise).toEqual(['Saturdays to Sundays: 4.00 s', 'Saturdays to Sundays: 2']); // prettier-ignore
    expect(rangeWords({ least: 1, most: 1200 })).toBe('1 to 1,200');
  });
  test('a time stands on a scale of factors', () => {
    expect([1, 10, 100, 1000, 0.1].map((one) => Math.round(place(one, 1, 100) * 100))).toEqual([0, 50, 100, 100, 0]);
    expect(place(5, 5, 5)).toBe(0);
  });
});

test('what changed for good is told in words', () => {
  const change = { at: '', component: 'mill', text: 'ground', before: 4000, since: 20_000 };
  expect(changeWords({ ...change, what: 'whole' })).toBe('it takes 20.0 s instead of 4.00 s');
  expect(changeWords({ ...change, what: 'wait' })).toBe('mill says “ground” after 20.0 s instead of 4.00 s');
  expect(changeWords({ ...change, what: 'there', before: 0, since: 1 })).toBe('mill says “ground” in all of those that went well instead of none');
});
