import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { MARK } from '../path/marks.ts';
import { pathOf } from '../path/path.ts';
import type { StrandRecord } from '../path/types.ts';
import { durationWords, headline, sentenceText } from './sentence.ts';
import type { FlowRules } from './types.ts';
import { judgedLeg } from './leg.ts';
import { verdict } from './verdict.ts';

const flow: FlowRules = {
  name: 'lens-order',
  label: 'lens order',
  kind: 'order',
  prefix: '',
  patienceMs: 60_000,
  expects: [{ field: 'rows', words: 'read', min: 1000, max: 5000 }],
};
const record = (ms: number, component: string, message: string, marks = 0, took = NaN): StrandRecord => ({
  id: String(ms),
  at: ms * 1000,
  component,
  host: '',
  level: 3,
  marks,
  took,
  message,
  shape: 0,
  traits: '',
  keys: [],
});
const judge = (records: StrandRecord[], end = 10_000_000, rules: FlowRules | null = flow) =>
  verdict(judgedLeg({ records, path: pathOf(records, () => false), flow: rules, evidenceEnd: end * 1000, usual: null }));
const said = (records: StrandRecord[], end?: number): string => sentenceText(judge(records, end).findings[0]!.sentence, (at) => `${at / 1000}`);

describe('how a strand ended, and why', () => {
  test('the database’s cancelled statement counts before the component that gave up and the one that shouts', () => {
    const records = [
      record(0, 'desk', 'handed over'),
      record(10, 'store', 'reserve blank'),
      record(1014, 'labdb', 'process 7 still waiting for ShareLock', MARK.waits, 1_000_000),
      record(8014, 'labdb', 'canceling statement due to lock timeout', MARK.failing),
      record(8018, 'store', 'reserve failed, SQLSTATE 55P03', MARK.failing),
      record(8046, 'desk', 'OrderFailedException', MARK.failing),
    ];
    const { outcome, findings } = judge(records);
    expect(outcome).toBe('failed');
    expect(findings[0]).toMatchObject({ kind: 'failed-at', component: 'labdb', failedIn: 'store', record: 3 });
    expect(said(records)).toBe(
      'Failed in store, 8018: labdb said “canceling statement due to lock timeout”, after it had waited 8.00 s for a lock. What desk reported after it is a consequence.',
    );
    expect(headline(findings[0]!.sentence)).toBe(
      'Failed in store: labdb said “canceling statement due to lock timeout”, after it had waited 8.00 s for a lock. What desk reported after it is a consequence.',
    );
  });

  test('clocks that differ by milliseconds do not make the caller the cause', () => {
    const records = [
      record(0, 'desk', 'begins'),
      record(10, 'store', 'reserve'),
      record(12, 'labdb', 'duration: 1 ms'),
      record(30, 'store', 'reserve failed', MARK.failing),
      record(33, 'labdb', 'deadlock detected', MARK.failing),
    ];
    expect(judge(records).findings[0]).toMatchObject({ component: 'labdb', failedIn: 'store' });
  });

  test('a retry that succeeded is no failure', () => {
    expect(
      judge([record(0, 'store', 'attempt 1 failed', MARK.failing), record(80, 'store', 'reserved'), record(99, 'desk', 'released', MARK.done)])
        .outcome,
    ).toBe('done');
  });
  test('an end that is neutral does not heal a failure before it', () => {
    expect(judge([record(0, 'switch', '488', MARK.failing), record(80, 'switch', 'BYE', MARK.ends)]).outcome).toBe('failed');
  });
  test('a refusal for a business reason is no fault, also where an error follows from it', () => {
    const { outcome, findings } = judge([
      record(0, 'desk', 'refused LX-1: out of range', MARK.refusing),
      record(5, 'portal', 'could not place', MARK.failing),
    ]);
    expect(outcome).toBe('refused');
    expect(findings[0]).toMatchObject({ kind: 'refused', component: 'desk', record: 0 });
  });
  test('silence counts only while the evidence goes on', () => {
    const records = [record(0, 'relay', 'enqueued queue=orders.in')];
    expect(judge(records, 59_000).outcome).toBe('running');
    expect(judge(records, 61_000).outcome).toBe('stalled');
    expect(said(records, 61_000)).toBe(
      'Nothing more after relay, 0: “enqueued queue=orders.in”. No source names it in the 1 min 1 s of evidence after it.',
    );
  });
  test('a run that ended well with a fraction of the rows is odd', () => {
    const run = (rows: number) =>
      judge([record(0, 'batch', 'started'), record(5, 'batch', `read ${rows} rows`), record(9, 'batch', 'finished in 1 s', MARK.done)]);
    expect(run(4200).outcome).toBe('done');
    expect(run(118).outcome).toBe('odd');
    expect(run(118).findings[0]).toMatchObject({ kind: 'odd-volume', record: 1 });
    expect(run(9000).outcome).toBe('odd');
  });
  test('a proxy that closes a request does not hide where it stopped', () => {
    const records = [record(0, 'portal', 'accepted'), record(30, 'relay', 'enqueued'), record(40, 'edge', 'POST /orders 202', 0, 38_000)];
    const { findings } = judge(records, 200_000);
    expect(findings[0]).toMatchObject({ kind: 'stopped-before', component: 'relay', record: 1 });
    expect(said(records, 200_000)).toBe(
      'Nothing more after relay, 30: “enqueued”. edge only closed what had begun before; no source names it in the 3 min 20 s of evidence after it.',
    );
    // what states how long it worked itself is no closing
    expect(judge([record(0, 'portal', 'accepted'), record(30, 'calc', 'done in 20 ms', 0, 20_000)], 200_000).findings[0]).toMatchObject({
      component: 'calc',
    });
  });
  test('strands of no declared flow are not called stalled', () => {
    expect(judge([record(0, 'x', 'y')], 10_000_000, null).outcome).toBe('done');
  });

  test('every finding rests on records, and the same evidence gives the same finding', () => {
    const any = fc.array(
      fc.record({ component: fc.constantFrom('a', 'b', 'c'), marks: fc.integer({ min: 0, max: 511 }), gap: fc.integer({ min: 0, max: 400 }) }),
      { minLength: 1, maxLength: 20 },
    );
    fc.assert(
      fc.property(any, (list) => {
        let at = 0;
        const records = list.map(({ component, marks, gap }) => record((at += gap), component, `said by ${component}`, marks));
        const first = judge(records);
        expect(judge(records)).toEqual(first);
        expect(['done', 'running'].includes(first.outcome)).toBe(first.findings.length === 0);
        for (const finding of first.findings) {
          expect(finding.evidence).toContain(finding.record);
          expect(finding.confidence).toBeGreaterThan(0);
          expect(finding.confidence).toBeLessThanOrEqual(1);
          expect(records[finding.record]!.component).toBe(finding.component);
        }
      }),
      { numRuns: 300 },
    );
  });
});

test.each([
  [500, '0.5 ms'],
  [2_913, '2.9 ms'],
  [812_000, '812 ms'],
  [8_003_000, '8.00 s'],
  [14_213_000, '14.2 s'],
  [250_000_000, '4 min 10 s'],
  [7_500_000_000, '2 h 5 min'],
  [60_000_000, '1 min'],
])('%d µs are said as %s', (micros, words) => {
  expect(durationWords(micros)).toBe(words);
});
