import { describe, expect, test } from '@jest/globals';
import { clothOf } from './cloth.ts';
import { flowOf, SEEN, type Habits } from './testing/flows.ts';
import type { CellKind, FlowSums } from './types.ts';

const daytime = (hour: number): number => (hour >= 7 && hour < 19 ? 40 : 4);
const ORDERS: Habits = { flow: 'orders', mean: daytime, amiss: 0.01 };
const CALLS: Habits = { flow: 'calls', mean: (hour) => daytime(hour) / 2, amiss: 0.03 };
const SYNC: Habits = { flow: 'sync', mean: () => 2, amiss: 0, even: true };

/** Marked cells, as flow, slot and kind. */
function marked(flows: FlowSums[], slots = SEEN, within = false): [string, number, CellKind][] {
  return clothOf(flows, slots, within).flows.flatMap(({ flow, cells }) =>
    cells.flatMap((cell, slot) => (cell.departs ? [[flow, slot, cell.departs.kind] as [string, number, CellKind]] : [])),
  );
}

describe('what departs in a window', () => {
  test('is next to nothing on days like any other', () => {
    let told = 0;
    for (let day = 0; day < 40; day++)
      told += marked([flowOf(ORDERS, 20, day + 1), flowOf(CALLS, 20, day + 501), flowOf(SYNC, 20, day + 901)]).length;
    expect(told / 40).toBeLessThan(0.2);
  });

  test('is where more fail than usual, in its hour', () => {
    const [first] = marked([flowOf(ORDERS, 20, 3, { 10: { amiss: 0.25 } }), flowOf(CALLS, 20, 4)]);
    expect(first).toEqual(['orders', 10, 'not-done']);
  });

  test('is where what always comes did not, not where our evidence has a hole', () => {
    const flows = [flowOf(SYNC, 20, 5, { 3: { count: 0 } }), flowOf(ORDERS, 20, 6, { 11: { count: 0 } })];
    expect(marked(flows)).toEqual([['sync', 3, 'none'], ['orders', 11, 'none']]); // prettier-ignore
    const holes = SEEN.map((slot, i) => (i === 3 || i === 11 ? { ...slot, seen: false } : slot));
    expect(marked(flows, holes)).toEqual([]);
  });

  test('is a single run of a clock that went amiss, not a single one of many', () => {
    const one = flowOf(SYNC, 20, 7);
    const now = one.now.map((sums, slot) => (slot === 6 ? [{ outcome: 'odd' as const, bucket: 1, count: 1 }, ...sums.slice(1)] : sums));
    expect(marked([{ ...one, now }])).toEqual([['sync', 6, 'not-done']]);
    expect(marked([flowOf({ ...ORDERS, amiss: 0 }, 20, 8, { 10: { count: 40, amiss: 0.03 } })]).filter(([, slot]) => slot === 10)).toEqual([]);
  });

  test('is where many are late though none failed', () => {
    expect(marked([flowOf(ORDERS, 20, 9, { 14: { late: 0.5 } })])).toEqual([['orders', 14, 'late']]);
  });

  test('is fewer than usual, or more', () => {
    expect(marked([flowOf(ORDERS, 20, 10, { 9: { count: 8 }, 15: { count: 130 } }), flowOf(SYNC, 20, 1)])).toEqual([['orders', 9, 'fewer'], ['orders', 15, 'more']]); // prettier-ignore
  });

  test('what shifted all at once is told once; cells are compared after it', () => {
    const half = (more = {}): FlowSums[] => [flowOf(ORDERS, 20, 11, more, 0.4), flowOf(CALLS, 20, 12, {}, 0.4), flowOf(SYNC, 20, 13)];
    const cloth = clothOf(half(), SEEN);
    expect(cloth.shift!.flows.sort()).toEqual(['calls', 'orders']);
    expect(cloth.shift!.factor).toBeGreaterThan(0.33);
    expect(cloth.shift!.factor).toBeLessThan(0.47);
    expect(marked(half())).toEqual([]);
    expect(marked(half({ 12: { amiss: 0.5 } }))).toEqual([['orders', 12, 'not-done']]);
  });

  test('where nothing earlier is known, one hour departs from the others', () => {
    const flow = { ...flowOf({ ...ORDERS, mean: () => 40 }, 0, 14, { 10: { amiss: 0.3 } }), lasted: [] };
    expect(marked([flow], SEEN, true)).toEqual([['orders', 10, 'not-done']]);
  });

  test('too few are said to be too few', () => {
    const rare = flowOf({ flow: 'rare', mean: () => 0.02, amiss: 0 }, 5, 15, { 4: { count: 3, amiss: 1 } });
    const [cloth] = clothOf([rare], SEEN).flows;
    expect([cloth!.usual, cloth!.spread, cloth!.cells[4]!.expected]).toEqual([null, null, null]);
  });
});
