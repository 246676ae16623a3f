import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { differentShapes, type SaidCounts } from './different.ts';

const said = (now: number, before: number[], more: Partial<SaidCounts> = {}): SaidCounts => ({ now, before, known: false, silent: false, ...more });
const steady = Array.from({ length: 12 }, (_, i) => said(100 + (i % 3), [100, 98, 103, 101, 99, 100]));
const kinds = (list: SaidCounts[]) => differentShapes([...steady, ...list]).told.map(({ one, kind, few }) => [one.now, kind, few]);

test('new, surging, fading and gone; what is as before is quiet', () => {
  expect(kinds([])).toEqual([]);
  expect(kinds([said(40, [0, 0, 0, 0])])).toEqual([[40, 'new', false]]);
  expect(kinds([said(90, [10, 12, 9, 11, 10])])).toEqual([[90, 'surging', false]]);
  expect(kinds([said(6, [60, 64, 58, 61, 57])])).toEqual([[6, 'fading', false]]);
  expect(kinds([said(0, [60, 64, 58, 61, 57])])).toEqual([[0, 'gone', false]]);
});

test('one that hardly ever comes is new, but told apart; one that was said long ago is not new', () => {
  expect(kinds([said(1, [0, 0, 0, 0])])).toEqual([[1, 'new', true]]);
  expect(kinds([said(40, [0, 0, 0, 0], { known: true })])).toEqual([]);
});

test('what its component was silent for is not gone', () => {
  expect(kinds([said(0, [60, 64, 58, 61, 57], { silent: true })])).toEqual([]);
});

test('one that comes in bursts may burst', () => {
  expect(kinds([said(300, [0, 0, 250, 0, 0, 400, 10])])).toEqual([]);
});

test('twice as much of all is a shift, and none of it surges; what grew five times beside it does', () => {
  const doubled = steady.map((one) => ({ ...one, now: 2 * one.now }));
  const { told, shift } = differentShapes([...doubled, said(100, [10, 12, 9, 11, 10])]);
  expect(shift).toBeCloseTo(2, 1);
  expect(told.map(({ one }) => one.now)).toEqual([100]);
});

test('what a clock starts stays as it was while all else doubles, and is quiet', () => {
  const tripled = steady.map((one) => ({ ...one, now: 3 * one.now }));
  expect(differentShapes([...tripled, said(48, [48, 48, 48, 48, 48])]).told).toEqual([]);
});

test('with nothing before nothing is told', () => {
  expect(differentShapes([said(5, []), said(500, [])])).toEqual({ told: [], shift: null });
});

test('counts that vary by chance alone are hardly ever told', () => {
  let told = 0;
  fc.assert(
    fc.property(fc.integer({ min: 1, max: 1e6 }), (seed) => {
      let state = seed;
      const next = (): number => (state = (state * 48_271) % 2_147_483_647) / 2_147_483_647;
      const poisson = (mean: number): number => {
        let [k, p] = [0, next()];
        for (const least = Math.exp(-mean); p > least; k++) p *= next();
        return k;
      };
      const list = Array.from({ length: 60 }, (_, i) =>
        said(
          poisson(2 + i),
          Array.from({ length: 7 }, () => poisson(2 + i)),
        ),
      );
      told += differentShapes(list).told.length;
    }),
    { numRuns: 50, seed: 7 },
  );
  // of 3,000 shapes
  expect(told).toBeLessThan(15);
});
