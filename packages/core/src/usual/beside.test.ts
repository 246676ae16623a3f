import { describe, expect, test } from '@jest/globals';
import * as fc from 'fast-check';
import type { StrandRecord } from '../path/types.ts';
import { besideAnother, type Beside, type Side } from './beside.ts';
import { dice, milling, said } from './testing/legs.ts';

const side = (records: StrandRecord[], fields: Record<string, unknown>[] = [], names: string[] = []): Side => ({
  records,
  fields,
  names: new Set(names),
});
const leg = (start: number, of: Parameters<typeof milling>[1] = {}): Side =>
  side(milling(dice(start), { start, ...of }), [], [String(start), `order ${start}`]);
const kinds = (rows: readonly Beside[]): string[] => rows.map((row) => row.kind);

describe('a strand beside another', () => {
  test('two good ones are alike: their names and their numbers differ by themselves', () => {
    const rows = besideAnother(leg(1000), leg(7000));
    expect(rows.map((row) => [row.own, row.other])).toEqual([0, 1, 2, 3, 4].map((i) => [i, i]));
    expect(rows.flatMap((row) => row.values)).toEqual([]);
  });

  test('what took longer, unless that is usual', () => {
    const [own, other] = [leg(1000, { grinding: 30_000 }), leg(7000, { grinding: 4000 })];
    const rows = besideAnother(own, other);
    expect(kinds(rows)).toEqual(['alike', 'alike', 'slower', 'alike', 'alike']);
    expect([rows[2]!.took, rows[2]!.otherTook]).toEqual([30_000_000, 4_000_000]);
    expect(kinds(besideAnother(other, own))[2]).toBe('faster');
    expect(kinds(besideAnother(own, other, () => true))[2]).toBe('alike');
  });

  test('a result that differs is told before a value that does', () => {
    const own = side([said(1, 'cart', 'loaded crate K-1', { traits: 'status=late' })], [{ status: 'late', place: 'yard', pid: 77 }]);
    const other = side([said(1, 'cart', 'loaded crate K-2', { traits: 'status=ok' })], [{ status: 'ok', place: 'hall', pid: 12 }]);
    const [row] = besideAnother(own, other);
    expect(row!.kind).toBe('differs');
    expect(row!.values).toEqual([
      { field: 'status', own: 'late', other: 'ok', telling: true },
      { field: 'place', own: 'yard', other: 'hall', telling: false },
      { field: '', own: 'K-1', other: 'K-2', telling: false },
    ]);
  });

  test('what says nearly the same in other words is laid beside it', () => {
    const own = side([said(0, 'shop', 'registered LX-1, 2 lenses, shop 4, trace a1'), said(1, 'check', 'material not allowed')]);
    const other = side([said(0, 'shop', 'registered LX-2, 1 lens, shop 4, trace b2'), said(1, 'check', 'prescription in range, took 9 ms')]);
    expect(besideAnother(own, other).map((row) => [row.kind, row.own, row.other])).toEqual([
      ['differs', 0, 0],
      ['missing', null, 1],
      ['extra', 1, null],
    ]);
  });

  test('what is missing stands where the other one has it, what is extra where it was said', () => {
    const other = leg(7000);
    const own = leg(1000);
    const records = [own.records[0]!, own.records[1]!, said(1010, 'cat', 'meows'), own.records[4]!];
    const rows = besideAnother(side(records), other);
    expect(kinds(rows)).toEqual(['alike', 'alike', 'missing', 'missing', 'extra', 'alike']);
    expect(rows.map((row) => row.other)).toEqual([0, 1, 2, 3, null, 4]);
  });

  test('each record stands once, whatever the two are', () => {
    const words = fc.array(fc.constantFrom('taken', 'ground', 'loaded', 'sent'), { maxLength: 30 });
    const sided = (list: string[]): Side => side(list.map((word, i) => said(i, 'mill', word)));
    fc.assert(
      fc.property(words, words, (a, b) => {
        const rows = besideAnother(sided(a), sided(b));
        const numbers = (of: (row: Beside) => number | null): number[] => rows.flatMap((row) => of(row) ?? []);
        expect(numbers((row) => row.own)).toEqual(a.map((_, i) => i));
        expect(numbers((row) => row.other).sort((x, y) => x - y)).toEqual(b.map((_, i) => i));
        for (const row of rows) if (row.own !== null && row.other !== null) expect(a[row.own]).toBe(b[row.other]);
      }),
    );
  });
});
