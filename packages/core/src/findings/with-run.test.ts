import { describe, expect, test } from '@jest/globals';
import type { Outcome, StrandRecord } from '../path/types.ts';
import { sentenceText } from './sentence.ts';
import type { Verdict } from './types.ts';
import { withRun } from './with-run.ts';

const records = (...messages: string[]): StrandRecord[] =>
  messages.map((message, i) => ({ id: `${i}`, at: i * 1e6, component: 'batch', host: 'h', level: 3, marks: 0, took: NaN, message, shape: i, traits: '', keys: [] })); // prettier-ignore
const judged = (outcome: Outcome, ...messages: string[]): Verdict => withRun({ outcome, findings: [] }, records(...messages));
const START = 'run started, input=a.csv';

describe('what a run says of its end', () => {
  test.each([
    ['run ended, rows read=390 written=386 rejected=4, 0.9 s, result=PARTIAL', 'odd'],
    ['read 390 rows, Lauf unvollständig', 'odd'],
    ['read 390 rows, exit code 3', 'failed'],
    ['read 390 rows, ended with rc=12', 'failed'],
    ['read 390 rows, exit code 0', 'done'],
    ['read 390 rows, rc: 0, not partial', 'done'],
    ['read 390 rows, partial=0', 'done'],
    ['read 390 rows, 0 partial', 'done'],
    ['run ended, rows read=390 written=390, result=OK', 'done'],
  ])('%s', (end, outcome) => expect(judged('done', START, end).outcome).toBe(outcome));
  test('it is told where it says so', () => {
    const { findings } = judged('done', START, 'read 9 rows, wrote 5 rows', 'ended, PARTIAL');
    expect(findings).toMatchObject([{ kind: 'odd-result', record: 2, rank: 1 }]);
    expect(sentenceText(findings[0]!.sentence, () => 'then')).toBe('Came through partly, by its own words, in batch, then: “ended, PARTIAL”.');
  });
  test('what is no run, what is graver already, and what it said on its way stay as they are', () => {
    expect(judged('done', START, 'partial content sent').outcome).toBe('done');
    expect(judged('failed', START, 'read 9 rows, PARTIAL').outcome).toBe('failed');
    expect(judged('done', START, 'partial batch, read 9 rows', 'read 20 rows', 'wrote 20 rows', 'ended').outcome).toBe('done');
  });
});
