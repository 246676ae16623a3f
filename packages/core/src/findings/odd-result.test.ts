import { describe, expect, test } from '@jest/globals';
import { pathOf } from '../path/path.ts';
import type { StrandRecord } from '../path/types.ts';
import { dice, lessons, milling, said } from '../usual/testing/legs.ts';
import { Usual } from '../usual/index-of.ts';
import { learnUsual } from '../usual/learn.ts';
import { judgedLeg } from './leg.ts';
import { sentenceText } from './sentence.ts';
import type { FlowRules } from './types.ts';
import { verdict } from './verdict.ts';

const flow: FlowRules = { name: 'milling', label: 'milling', kind: 'order', prefix: '', patienceMs: 60_000, expects: [] };
const random = dice(3);
/** Of 300 good ones, so many state another result than the others. */
const usualWith = (others: number, answer: string): Usual =>
  new Usual(learnUsual('milling', lessons(Array.from({ length: 300 }, (_, i) => milling(random, { answer: i < others ? answer : 'ok' }))))!);
const judge = (records: StrandRecord[], usual: Usual) =>
  verdict(judgedLeg({ records, path: pathOf(records, () => false), flow, evidenceEnd: 1e12, usual }));
const leg = (answer: string): StrandRecord[] => milling(dice(5), { start: 0, answer });

describe('a result that good ones do not state', () => {
  test('makes a leg odd that ended well otherwise, and is told with the usual one', () => {
    const { outcome, findings } = judge(leg('bounced'), usualWith(2, 'bounced'));
    expect(outcome).toBe('odd');
    expect(findings[0]).toMatchObject({ kind: 'odd-result', component: 'cart', record: 3 });
    expect(sentenceText(findings[0]!.sentence, () => 'then')).toBe(
      'Ended without an error in cart, then: “loaded” with status=bounced. Usually status=ok (298 of 300 good ones).',
    );
  });
  test('is none where enough of them state it, or where it is the usual one', () => {
    expect(judge(leg('late'), usualWith(40, 'late')).outcome).toBe('done');
    expect(judge(leg('ok'), usualWith(2, 'bounced')).outcome).toBe('done');
  });
  test('is none where it is a status of HTTP that tells of nothing amiss', () => expect(judge(leg('204'), usualWith(0, 'x')).outcome).toBe('done'));
  test('is none where the same component stated a better one later', () => {
    const records = leg('bounced');
    const again = said(records[3]!.at / 1000 + 5, 'cart', 'loaded', { traits: 'status=ok' });
    expect(judge([...records.slice(0, 4), again, ...records.slice(4)], usualWith(2, 'bounced')).findings.map((one) => one.kind)).not.toContain('odd-result'); // prettier-ignore
  });
});
