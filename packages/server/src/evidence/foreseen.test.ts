import { describe, expect, test } from '@jest/globals';
import { foreseenCost, type PlanNode } from './foreseen.ts';

const node = (type: string, cost: number, rows: number, more: Partial<PlanNode> = {}): PlanNode => ({
  'Node Type': type,
  'Total Cost': cost,
  'Plan Rows': rows,
  ...more,
});
const stretch = (records: number, index = 'record_20261123_pkey', cost = 100_000): PlanNode =>
  node('Limit', cost + 10, 1, {
    Plans: [
      node('Sort', cost + 8, 1, {
        Plans: [node('Bitmap Heap Scan', cost, 1, { Plans: [node('Bitmap Index Scan', records * 0.015, records, { 'Index Name': index })] })],
      }),
    ],
  });

describe('what a query is expected to cost', () => {
  test('records of a stretch of time lie together: it grows with their number', () => {
    expect(foreseenCost(stretch(200_000))).toBeCloseTo(10 + 200_000 * 0.085);
    expect(foreseenCost(stretch(400_000)) / foreseenCost(stretch(200_000))).toBeCloseTo(2, 2);
  });
  test('where words are indexed, each of few records is on a page of its own', () => {
    expect(foreseenCost(stretch(5000, 'record_20261123_words', 5600))).toBe(5610);
  });
  test('it is never more than the planner says', () => {
    expect(foreseenCost(stretch(2_000_000))).toBe(100_010);
  });
  test('all that is gone through costs what it costs', () => {
    expect(foreseenCost(node('Seq Scan', 98_000, 3))).toBe(98_000);
    expect(foreseenCost(node('Append', 700, 3, { Plans: [node('Index Scan', 600, 2, { 'Index Name': 'record_20261123_pkey' })] }))).toBe(700);
  });
});
