import { describe, expect, test } from '@jest/globals';
import { Judge } from './judge.ts';
import { shareOf } from './sheet.ts';
import type { ToldStrand, TrueTransaction } from './true-transaction.ts';

const truth = (more: Partial<TrueTransaction> = {}): TrueTransaction => ({
  id: 'T1',
  kind: 'order',
  strand: 'S1',
  legs: [['a.log:1', 'a.log:2', 'b.log:1']],
  byLeg: false,
  identifiers: ['LX-1', 'req 7'],
  outcomes: ['failed'],
  good: false,
  fault: 'exception',
  cause: { components: ['b'], records: ['b.log:1'] },
  next: null,
  slowIn: null,
  ...more,
});
const told = (more: Partial<ToldStrand> = {}): ToldStrand => ({
  id: 'whatever',
  outcome: 'failed',
  identifiers: ['lx1'],
  legs: ['failed'],
  records: [
    { place: 'a.log:1', leg: 1 },
    { place: 'a.log:2', leg: 1 },
    { place: 'b.log:1', leg: 1 },
  ],
  findings: [{ leg: 1, component: 'b', failedIn: 'a', place: 'b.log:1', confidence: 0.9, missingNext: null }],
  ...more,
});

describe('the judge', () => {
  test('a transaction is matched by its records, whatever its strand is called', () => {
    const { sheet } = new Judge([truth()], [told({ id: 'another number' })]);
    expect([sheet.records, sheet.faulty, sheet.component, sheet.record].map(shareOf)).toEqual([1, 1, 1, 1]);
    // without case and punctuation; one of two
    expect(shareOf(sheet.identifiers)).toBe(0.5);
  });

  test('what no strand holds counts as nothing found', () => {
    const { sheet, misses } = new Judge([truth()], [told({ records: [{ place: 'z.log:9', leg: 1 }] })]);
    expect([sheet.records, sheet.faulty, sheet.component].map(shareOf)).toEqual([0, 0, 0]);
    expect(misses[0]!.why).toMatch(/not found instead of failed/);
  });

  test('a strand that swallows another one’s records loses precision, and what is neutral does not', () => {
    const all = told({ records: [...told().records, { place: 'c.log:1', leg: 1 }, { place: 'c.log:2', leg: 1 }, { place: 'c.log:3', leg: 1 }] });
    expect(shareOf(new Judge([truth()], [all]).sheet.records)).toBeCloseTo(6 / 9);
    const neutral = new Map([['S1', new Set(['c.log:1', 'c.log:2', 'c.log:3'])]]);
    expect(shareOf(new Judge([truth()], [all], undefined, neutral).sheet.records)).toBe(1);
  });

  test('where a transaction is a leg, that leg’s outcome and findings count', () => {
    const strand = told({
      outcome: 'done',
      legs: ['done', 'failed'],
      records: [...told().records.map((one) => ({ ...one, leg: 2 })), { place: 'd.log:1', leg: 1 }],
      findings: [
        { leg: 1, component: 'd', failedIn: 'd', place: 'd.log:1', confidence: 0.5, missingNext: null },
        { leg: 2, component: 'b', failedIn: 'a', place: 'b.log:1', confidence: 0.9, missingNext: null },
      ],
    });
    const other = truth({ id: 'T2', legs: [['d.log:1']], outcomes: ['done'], fault: null, good: true, cause: null, byLeg: true });
    const { sheet } = new Judge([truth({ byLeg: true }), other], [strand]);
    expect([sheet.records, sheet.legs, sheet.faulty, sheet.component, sheet.blamed].map(shareOf)).toEqual([1, 1, 1, 1, 0]);
    // of the strand as a whole nothing departs
    expect(shareOf(new Judge([truth()], [strand]).sheet.faulty)).toBe(0);
  });

  test('a record counts by the place where it is shown', () => {
    const shownAt = (place: string): string => (place === 'copy.log:5' ? 'b.log:1' : place);
    const copied = truth({ legs: [['a.log:1', 'a.log:2', 'b.log:1', 'copy.log:5']], cause: { components: ['b'], records: ['copy.log:5'] } });
    const { sheet } = new Judge([copied], [told()], shownAt);
    expect([sheet.records, sheet.record].map(shareOf)).toEqual([1, 1]);
  });

  test('good ones that are told to have departed are counted, and those that run on are not', () => {
    const good = truth({ outcomes: ['done'], good: true, fault: null, cause: null });
    expect(shareOf(new Judge([good], [told()]).sheet.blamed)).toBe(1);
    expect(shareOf(new Judge([good], [told({ outcome: 'running' })]).sheet.blamed)).toBe(0);
  });
});
