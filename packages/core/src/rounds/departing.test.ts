import { describe, expect, test } from '@jest/globals';
import { departing, type Alike } from './departing.ts';

const alike = (more: Partial<Alike>): Alike => ({
  outcome: 'failed',
  count: 0,
  of: 1000,
  before: { count: 0, of: 10_000 },
  stretch: null,
  byClock: false,
  ...more,
});
const told = (found: Alike[], knows = true): number[] => departing(found, knows).map((one) => found.indexOf(one.one));

describe('findings that are more frequent than usual', () => {
  test('are told, the gravest first, and what is as frequent as ever is not', () => {
    expect(
      told([
        alike({ count: 10, before: { count: 100, of: 10_000 } }),
        alike({ count: 20 }),
        alike({ count: 60, outcome: 'refused' }),
        alike({ count: 2 }),
      ]),
    ).toEqual([1, 2]);
  });
  test('few of many are told where they came at once', () => {
    const few = { count: 4, before: { count: 0, of: 2000 } };
    expect(told([alike(few)])).toEqual([]);
    expect(told([alike({ ...few, stretch: { from: 0, to: 9, all: 6, some: 4 } })])).toEqual([0]);
  });
  test('a single run of a clock counts, and for more than one of many', () => {
    const found = [
      alike({ count: 6, stretch: { from: 0, to: 3, all: 7, some: 6 } }),
      alike({ count: 1, of: 24, before: { count: 0, of: 480 }, byClock: true, outcome: 'odd' }),
    ];
    expect(told(found)).toEqual([1, 0]);
    expect(told([alike({ count: 1, of: 24, before: { count: 0, of: 30 }, byClock: true })])).toEqual([]);
  });
  test('where nothing earlier is known each is told, with nothing expected', () => {
    expect(departing([alike({ count: 1, before: { count: 0, of: 0 } })], false)).toMatchObject([{ expected: 0 }]);
  });
});
