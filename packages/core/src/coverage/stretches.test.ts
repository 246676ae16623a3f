import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { joinStretches, stretchesOf } from './stretches.ts';

const MINUTE = 60_000_000;
const every = (step: number, from: number, to: number): number[] =>
  Array.from({ length: Math.ceil((to - from) / step) }, (_, i) => (from + i * step) * MINUTE);

describe('coverage', () => {
  test('a log with a record each minute is broken by ten silent minutes', () => {
    expect(stretchesOf([...every(1, 0, 100), ...every(1, 110, 200)])).toEqual([
      { from: 0, to: 100 * MINUTE },
      { from: 110 * MINUTE, to: 200 * MINUTE },
    ]);
  });
  test('a log with a record each hour is whole', () => {
    expect(stretchesOf(every(60, 0, 1440))).toEqual([{ from: 0, to: (1380 + 1) * MINUTE }]);
  });
  test('a single minute, and none', () => {
    expect(stretchesOf([7 * MINUTE])).toEqual([{ from: 7 * MINUTE, to: 8 * MINUTE }]);
    expect(stretchesOf([])).toEqual([]);
  });
  test('stretches cover each minute that holds records, in order and apart from each other', () => {
    fc.assert(
      fc.property(fc.uniqueArray(fc.integer({ min: 0, max: 5000 }), { maxLength: 200 }), (list) => {
        const minutes = list.sort((a, b) => a - b).map((minute) => minute * MINUTE);
        const found = stretchesOf(minutes);
        for (const minute of minutes) expect(found.filter(({ from, to }) => from <= minute && minute < to)).toHaveLength(1);
        found.slice(1).forEach(({ from }, i) => expect(from - found[i]!.to).toBeGreaterThanOrEqual(5 * MINUTE));
        expect(joinStretches([...found, ...found].reverse())).toEqual(found);
      }),
    );
  });
});
