import { describe, expect, test } from '@jest/globals';
import type { Outcome } from '../path/types.ts';
import { said } from '../usual/testing/legs.ts';
import { handedTwice, withTwin, type Twin } from './doubled.ts';
import { headline } from './sentence.ts';
import type { Finding, Verdict } from './types.ts';

const twin: Twin = { key: 7, label: 'invoice', value: 'INV-7', of: 'ORD-1' };
const records = [said(0, 'shop', 'order ORD-2 taken', { keys: [1] }), said(9, 'books', 'invoice INV-7 written', { keys: [1, 7] })];
const good: Verdict = { outcome: 'done', findings: [] };
const other: Finding = {
  rank: 1,
  kind: 'failed-at',
  failedIn: 'shop',
  component: 'shop',
  record: 0,
  sentence: [],
  confidence: 0.9,
  evidence: [0],
  missingNext: null,
  excess: null,
  signature: 's',
};

describe('a strand whose identifier another one had before', () => {
  test.each<Outcome>(['done', 'slow', 'odd', 'running'])('counts as doubled where it is %s otherwise, and that comes first', (outcome) => {
    const found = withTwin({ outcome, findings: [other] }, records, twin);
    expect(found.outcome).toBe('doubled');
    expect(found.findings.map(({ kind, rank }) => [kind, rank])).toEqual([['doubled', 1], ['failed-at', 2]]); // prettier-ignore
  });

  test.each<Outcome>(['failed', 'stalled', 'refused'])('stays %s, and is told behind what went wrong', (outcome) => {
    const found = withTwin({ outcome, findings: [other] }, records, twin);
    expect(found.outcome).toBe(outcome);
    expect(found.findings.map(({ kind, rank }) => [kind, rank])).toEqual([['failed-at', 1], ['doubled', 2]]); // prettier-ignore
  });

  test('is told by the record that names it, with whose it was before', () => {
    const [found] = withTwin(good, records, twin).findings;
    expect([found!.record, found!.component]).toEqual([1, 'books']);
    expect(headline(found!.sentence)).toBe('Doubled in books: “invoice INV-7 written”. ORD-1 has the same invoice, INV-7, and began before it.');
  });

  test('is told by its first record where the one that names it is not among those at hand', () => {
    expect(withTwin(good, records, { ...twin, key: 99 }).findings[0]!.record).toBe(0);
  });

  test('keeps what else a verdict holds, and does not change the one that it was given', () => {
    const given = { outcome: 'done' as const, findings: [other], legs: ['done'] };
    expect(withTwin(given, records, twin).legs).toEqual(['done']);
    expect(given).toEqual({ outcome: 'done', findings: [other], legs: ['done'] });
  });
});

describe('a component that was handed the same twice', () => {
  const leg = [
    said(0, 'desk', 'handed on as 11', { keys: [1, 11] }),
    said(5, 'stamp', 'stamping 11', { keys: [11] }),
    said(60, 'desk', 'handed on as 12', { keys: [1, 12] }),
  ];
  test('is named with who took it up the second time', () => {
    const found = handedTwice([...leg, said(65, 'stamp', 'stamping 12', { keys: [12] })], 2, 0);
    expect([found.record, found.evidence, found.component]).toEqual([2, [0, 2], 'desk']);
    expect(headline(found.sentence)).toBe(
      'Doubled in desk: “handed on as 12”, though it had done so before and nothing had failed: “handed on as 11”. stamp did it twice.',
    );
  });

  test('is told without it where nobody is seen to take it up', () => {
    expect(headline(handedTwice(leg, 2, 0).sentence)).toMatch(/“handed on as 11”\.$/);
  });
});
