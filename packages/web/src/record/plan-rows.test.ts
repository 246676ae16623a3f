import { describe, expect, test } from '@jest/globals';
import type { PlanNode } from '@fadenweg/core/structure';
import { planRows } from './plan-rows.ts';

const node = (more: Partial<PlanNode>): PlanNode => ({ depth: 0, what: '', details: [], cost: 1, rows: 1, actualRows: null, loops: null, totalMs: null, ownMs: null, ...more }); // prettier-ignore

describe('the rows of a plan', () => {
  test('tell where its time went and where the estimate was wrong', () => {
    const rows = planRows([
      node({ totalMs: 10, ownMs: 1, rows: 5, actualRows: 6, loops: 1 }),
      node({ depth: 1, totalMs: 9, ownMs: 9, rows: 2, actualRows: 4000, loops: 10 }),
      node({ depth: 1, totalMs: 0, ownMs: 0, rows: 900, actualRows: 0, loops: 1 }),
    ]);
    expect(rows.map(({ share, most, off }) => [share, most, off])).toEqual([
      [0.1, false, null],
      [0.9, true, { factor: 200, more: true }],
      [0, false, { factor: 900, more: false }],
    ]);
  });
  test('of one that was not run tell estimates alone', () =>
    expect(planRows([node({ rows: 4000 })])).toMatchObject([{ share: null, most: false, off: null }]));
});
