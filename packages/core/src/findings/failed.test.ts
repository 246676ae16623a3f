import { describe, expect, test } from '@jest/globals';
import { MARK } from '../path/marks.ts';
import { pathOf } from '../path/path.ts';
import type { StrandRecord } from '../path/types.ts';
import { said } from '../usual/testing/legs.ts';
import { failure } from './failed.ts';
import { headline } from './sentence.ts';
import { BORNE_OUT, SAID } from './sure.ts';

const find = (records: readonly StrandRecord[], telling?: number) => {
  const path = pathOf(records, () => false);
  const failing = records.flatMap(({ marks }, index) => (marks & MARK.failing ? [index] : []));
  return failure(records, path, failing, telling);
};
const broken = { marks: MARK.failing, level: 5 as const };

describe('what failed first', () => {
  test('of one failure that nobody bears out', () => {
    const found = find([said(0, 'shop', 'asks'), said(40, 'shop', 'no sacks', broken)]);
    expect([found.record, found.failedIn, found.component, found.confidence, found.evidence]).toEqual([1, 'shop', 'shop', SAID, [1]]);
    expect(headline(found.sentence)).toBe('Failed in shop: “no sacks”.');
  });

  test('is the one deepest in the calls of those that stand close together, whoever says so first', () => {
    const records = [said(0, 'shop', 'asks'), said(5, 'mill', 'grinds'), said(50, 'shop', 'gave up', broken), said(60, 'mill', 'stuck', broken)];
    const found = find(records);
    expect([found.component, found.failedIn, found.record, found.confidence]).toEqual(['mill', 'shop', 3, BORNE_OUT]);
    expect(headline(found.sentence)).toBe('Failed in shop: mill said “stuck”.');
    expect(found.evidence).toEqual([2, 3]);
  });

  test('is the first one where they stand apart: what comes much later does not hide it', () => {
    const records = [said(0, 'shop', 'asks'), said(50, 'shop', 'gave up', broken), said(900, 'mill', 'grinds'), said(950, 'mill', 'stuck', broken)];
    const found = find(records);
    expect([found.component, found.record, found.confidence]).toEqual(['shop', 1, SAID]);
    expect(headline(found.sentence)).toBe('Failed in shop: “gave up”. What mill reported after it is a consequence.');
  });

  test('names each component that only reported it once', () => {
    const records = [
      said(0, 'door', 'opens'),
      said(2, 'shop', 'asks'),
      said(5, 'mill', 'grinds'),
      said(60, 'mill', 'stuck', broken),
      said(70, 'shop', 'gave up', broken),
      said(80, 'door', 'closed', broken),
      said(90, 'door', 'closed for good', broken),
    ];
    const sentence = headline(find(records).sentence);
    expect(sentence).toBe('Failed in shop: mill said “stuck”. What door reported after it is a consequence.');
  });

  test('tells for how long a lock was waited for, with the records that say so', () => {
    const records = [
      said(0, 'shop', 'asks'),
      said(5, 'store', 'reserves'),
      said(1005, 'store', 'process 4 still waiting for ShareLock', { marks: MARK.waits, took: 1_000_000 }),
      said(3005, 'store', 'lock timeout', broken),
    ];
    const found = find(records);
    expect(headline(found.sentence)).toBe('Failed in store: “lock timeout”, after it had waited 3.00 s for a lock.');
    expect(found.evidence).toEqual([2, 3]);
  });

  test('is an earlier record that tells it from good ones, where there is one; who failed is named before it', () => {
    const records = [said(0, 'shop', 'asks'), said(5, 'mill', 'the answer', { traits: 'status=rejected' }), said(90, 'shop', 'gave up', broken)];
    const found = find(records, 1);
    expect([found.component, found.failedIn, found.record, found.evidence]).toEqual(['mill', 'shop', 1, [1, 2]]);
    expect(headline(found.sentence)).toBe('Failed in shop: mill said “the answer” with status=rejected.');
  });

  test('has the same signature for the same failure of another strand, and another one for another', () => {
    const leg = (order: number, problem: string): StrandRecord[] => [said(order, 'shop', `order ${order}`), said(order + 9, 'shop', problem, broken)];
    const one = find(leg(4711, 'no sacks for 4711')).signature;
    expect(find(leg(815, 'no sacks for 815')).signature).toBe(one);
    expect(find(leg(815, 'no cart for 815')).signature).not.toBe(one);
  });
});
