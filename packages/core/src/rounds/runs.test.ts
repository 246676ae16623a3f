import { expect, test } from '@jest/globals';
import { cellRuns } from './runs.ts';
import type { Cell, CellKind, FlowCloth } from './types.ts';

const cell = (all: number, amiss = 0, kind: CellKind | null = null): Cell => ({ all, outcomes: {}, amiss, late: 0, expected: 10, departs: kind && { kind, usual: 0.1, chance: 1e-9 } }) as Cell; // prettier-ignore
const flow = (cells: Cell[], spread: number | null = 1): FlowCloth => ({ flow: 'lens-order', cells, spread, shift: null, known: 100, usual: 10, usualAmiss: 0.1, fence: null }); // prettier-ignore
const seen = (list: readonly boolean[]) => list.map((one) => ({ seen: one, exposure: 1 }));

test('marked cells of one kind are one stretch over a quiet or an unseen one, and two over more', () => {
  const cells = [cell(10, 5, 'not-done'), cell(10), cell(10, 6, 'not-done'), cell(10), cell(10), cell(10, 7, 'not-done')];
  expect(cellRuns([flow(cells)], seen(cells.map(() => true)))).toMatchObject([
    { kind: 'not-done', first: 0, last: 2, count: 11, of: 30, expected: 3, weight: 8 },
    { kind: 'not-done', first: 5, last: 5, count: 7, of: 10, expected: 1, weight: 6 },
  ]);
  expect(cellRuns([flow(cells)], seen([true, true, true, false, false, true]))).toHaveLength(1);
});

test('none and fewer are one; a run of a clock that is missing weighs more', () => {
  const cells = [cell(0, 0, 'none'), cell(2, 0, 'fewer')];
  const [both] = cellRuns([flow(cells)], seen([true, true]));
  expect(both).toMatchObject({ kind: 'fewer', first: 0, last: 1, count: 2, of: null, expected: 20 });
  const [clock] = cellRuns([flow(cells, 0.01)], seen([true, true]));
  expect(clock!.weight).toBeGreaterThan(both!.weight);
});
