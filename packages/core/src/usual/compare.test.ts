import { describe, expect, test } from '@jest/globals';
import { compareWithUsual, type Compared } from './compare.ts';
import { dice, milling, said, usualOf } from './testing/legs.ts';

const usual = usualOf(200);
const leg = (of: Parameters<typeof milling>[1] = {}) => milling(dice(5), { start: 0, ...of });
const kinds = (rows: readonly Compared[]): string[] => rows.map((row) => row.kind);

describe('a leg beside the usual', () => {
  test('a good one is as usual, line by line', () => {
    const rows = compareWithUsual(leg(), usual);
    expect(kinds(rows)).toEqual(Array.from({ length: 5 }, () => 'as usual'));
    expect(rows.map((row) => row.record)).toEqual([0, 1, 2, 3, 4]);
    expect(rows[2]!.took! / rows[2]!.wait!.median).toBeGreaterThan(0.7);
  });

  test('what came late, and a number out of what it usually is', () => {
    expect(kinds(compareWithUsual(leg({ grinding: 30_000 }), usual))).toEqual(['as usual', 'as usual', 'late', 'as usual', 'as usual']);
    expect(kinds(compareWithUsual(leg({ sacks: 2 }), usual))).toEqual(['as usual', 'as usual', 'number', 'as usual', 'as usual']);
  });

  test('what is missing stands where it usually comes, with how long after it', () => {
    const rows = compareWithUsual(leg().filter((_, i) => i !== 2 && i !== 3), usual); // prettier-ignore
    expect(kinds(rows)).toEqual(['as usual', 'as usual', 'missing', 'missing', 'as usual']);
    expect(rows[2]!.saying!.text).toMatch(/^ground/);
    expect(rows[3]!.saying!.component).toBe('cart');
    expect(kinds(compareWithUsual(leg().slice(0, 2), usual))).toEqual(['as usual', 'as usual', 'missing', 'missing', 'missing']);
  });

  test('what is extra, and what is repeated', () => {
    const records = leg();
    const again = { ...records[1]!, at: records[1]!.at + 1000 };
    const rows = compareWithUsual([records[0]!, records[1]!, again, said(12, 'cat', 'meows'), ...records.slice(2)], usual);
    expect(kinds(rows)).toEqual(['as usual', 'as usual', 'repeated', 'extra', 'as usual', 'as usual', 'as usual']);
    expect(rows[1]!.times).toBe(2);
  });

  test('nothing at all misses everything', () => expect(kinds(compareWithUsual([], usual))).toEqual(Array.from({ length: 5 }, () => 'missing')));
});
