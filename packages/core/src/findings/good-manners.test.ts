import { describe, expect, test } from '@jest/globals';
import { MARK } from '../path/marks.ts';
import { pathOf } from '../path/path.ts';
import type { StrandRecord } from '../path/types.ts';
import { dice, milling, said, usualOf } from '../usual/testing/legs.ts';
import { judgedLeg } from './leg.ts';
import { sentenceText } from './sentence.ts';
import type { FlowRules } from './types.ts';
import { verdict } from './verdict.ts';

const flow: FlowRules = { name: 'milling', label: 'milling', kind: 'order', prefix: '', patienceMs: 60_000, expects: [] };
const usual = usualOf(200);
const judge = (records: StrandRecord[]) => verdict(judgedLeg({ records, path: pathOf(records, () => false), flow, evidenceEnd: 1e12, usual }));
const leg = (): StrandRecord[] => milling(dice(5), { start: 0 });
const shop = (status: number, more: Partial<StrandRecord> = {}) => said(9000, 'shop', 'answered', { traits: `status=${status}`, ...more });

describe('a no in good manners', () => {
  test('is refused by whoever decided it, not by who passes the answer on', () => {
    const { outcome, findings } = judge([...leg().slice(0, 2), said(30, 'mill', 'grain is wet', { level: 4 }), shop(422)]);
    expect(outcome).toBe('refused');
    expect(findings[0]).toMatchObject({ component: 'mill', record: 2 });
  });
  test('is a failure where somebody broke further in', () => {
    const { outcome, findings } = judge([...leg().slice(0, 2), said(30, 'mill', 'millstone broke', { level: 5, marks: MARK.failing }), shop(404)]);
    expect([outcome, findings[0]!.component]).toEqual(['failed', 'mill']);
  });
  test('may be a last word that no good one has, behind which nobody new speaks', () => {
    const { outcome, findings } = judge([...leg().slice(0, 2), said(30, 'mill', 'grain of 0 turned away')]);
    expect([outcome, findings[0]!.record]).toEqual(['refused', 2]);
    expect(judge(leg().slice(0, 2)).outcome).toBe('stalled');
  });
});

describe('a failure that was made good', () => {
  const broken = said(100, 'mill', 'belt slipped', { level: 5, marks: MARK.failing });
  test('is done, and told', () => {
    const records = [...leg().slice(0, 2), broken, ...leg().slice(2).map((one) => ({ ...one, marks: 0 }))]; // prettier-ignore
    const { outcome, findings } = judge(records);
    expect(outcome).toBe('done');
    expect(findings[0]).toMatchObject({ component: 'mill', record: 2 });
    expect(sentenceText(findings[0]!.sentence, () => 'then')).toMatch(/^Made good, it went on well\. Failed in mill/);
  });
  test('is not, where something that good ones have is missing, or nobody went on', () => {
    const without = leg().slice(3).map((one) => ({ ...one, marks: 0 })); // prettier-ignore
    expect(judge([...leg().slice(0, 2), broken, ...without]).outcome).toBe('failed');
    const all = leg().map((one) => ({ ...one, marks: 0 }));
    expect(judge([...all, said(1e5, 'mill', 'belt slipped', { level: 5, marks: MARK.failing })]).outcome).toBe('failed');
  });
});
