import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import type { RoundsCell, RoundsFlow } from '@fadenweg/api';
import { columnsOf } from './groups.ts';

const cell = (all: number, amiss: number, departs: RoundsCell['departs'] = null): RoundsCell => ({ all, outcomes: { failed: amiss, done: all - amiss }, amiss, late: 0, expected: all, departs }); // prettier-ignore
const flow = (name: string, group: string, cells: RoundsCell[]): RoundsFlow => ({ flow: name, label: name, group, cells, shift: null, known: 9, usual: 2, usualAmiss: 0, fenceMs: null }); // prettier-ignore
const failing = { kind: 'not-done', usual: 0, chance: 1e-9 } as const;

test('a group stands where its gravest flow stands; folded it is one column that leads to all of them', () => {
  const flows = [
    flow('a', '', [cell(1, 0)]),
    flow('b', 'shop floor', [cell(9, 4, failing)]),
    flow('c', '', [cell(1, 0)]),
    flow('', 'shop floor', [cell(5, 1)]),
  ];
  expect(columnsOf(flows, new Set(), [true]).map((one) => one.flow)).toEqual(['a', 'b', '', 'c']);
  const [, folded, ...rest] = columnsOf(flows, new Set(['shop floor']), [true]);
  expect(rest).toHaveLength(1);
  expect(folded).toMatchObject({ label: 'shop floor (2)', leads: 'b,none', folded: true, usual: 4 });
  expect(folded!.cells[0]).toMatchObject({ all: 14, amiss: 5, outcomes: { failed: 5, done: 9 }, departs: failing });
  expect(folded!.cells[0]!.told).toBe('b: 9 came: 4 failed, 5 done; usually 9. Departs: 4 not done, usually none');
});

test('folding loses no strand and no mark', () => {
  const any = fc.record({ group: fc.constantFrom('', 'x', 'y'), all: fc.nat(9), marked: fc.boolean() });
  fc.assert(
    fc.property(fc.array(any), fc.subarray(['x', 'y']), (list, folded) => {
      const flows = list.map(({ group, all, marked }, i) => flow(`f${i}`, group, [cell(all, 0, marked ? failing : null)]));
      const columns = columnsOf(flows, new Set(folded), [true]);
      expect(columns.reduce((sum, one) => sum + one.cells[0]!.all, 0)).toBe(list.reduce((sum, one) => sum + one.all, 0));
      expect(columns.some((one) => one.cells[0]!.departs)).toBe(list.some((one) => one.marked));
      expect(columns.flatMap((one) => one.leads.split(',')).sort()).toEqual(flows.map((one) => one.flow).sort());
    }),
  );
});
