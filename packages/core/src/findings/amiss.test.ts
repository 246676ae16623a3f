import { describe, expect, test } from '@jest/globals';
import { reachOf, type Reach } from '../coverage/reach.ts';
import { pathOf } from '../path/path.ts';
import { dice } from '../usual/testing/legs.ts';
import { parcel, parcelsUsual, type Fate } from '../usual/testing/parcels.ts';
import { sentenceText } from './sentence.ts';
import type { FlowRules } from './types.ts';
import { judgedLeg } from './leg.ts';
import { verdict } from './verdict.ts';

const flow: FlowRules = { name: 'parcels', label: 'parcels', kind: 'parcel', prefix: '', patienceMs: 60_000, expects: [] };
const usual = parcelsUsual(300);
function judge(fate: Fate, end = 3_600_000, reach?: Reach) {
  const records = parcel(dice(5), { start: 0, ...fate });
  const { outcome, findings } = verdict(judgedLeg({ records, path: pathOf(records, () => false), flow, evidenceEnd: end * 1000, usual, reach })); // prettier-ignore
  return { outcome, findings, told: findings.map(({ sentence }) => sentenceText(sentence, () => 'then')) };
}

describe('behind an end that looks well', () => {
  test('a good one is done', () => expect(judge({})).toMatchObject({ outcome: 'done', findings: [] }));

  test('what was handed on and never taken up', () => {
    const { outcome, findings, told } = judge({ stamp: 'lost' });
    expect(outcome).toBe('stalled');
    expect(findings[0]).toMatchObject({
      kind: 'stopped-before',
      failedIn: 'desk',
      component: 'desk',
      missingNext: 'stamp',
      record: 2,
      evidence: [2],
    });
    expect(told[0]).toMatch(/^Went no further than desk, then: “handed on as \d+”\. Usually stamp says “stamping ‹›” \d+ ms later \(300 of 300 good ones\)\. What clerk said later does not stand for it; nothing of it came in the .+ of evidence after it\.$/); // prettier-ignore
  });
  test('who fell silent in the middle of the work', () => {
    const { outcome, findings, told } = judge({ stamp: 'begun' });
    expect(outcome).toBe('stalled');
    expect(findings[0]).toMatchObject({ kind: 'stopped-before', failedIn: 'stamp', component: 'stamp', missingNext: 'stamp', record: 3 });
    expect(told[0]).toMatch(/^Went no further than stamp, then: “stamping \d+”\. Usually stamp says “stamped ‹›” \d+ ms later/);
  });
  test('what went astray, and who handed it on', () => {
    const { outcome, findings, told } = judge({ stamp: 'elsewhere' });
    expect(outcome).toBe('stalled');
    expect(findings[0]).toMatchObject({ kind: 'went-astray', component: 'cellar', missingNext: 'stamp', record: 3, evidence: [2, 3] });
    expect(told[0]).toMatch(/^Went astray: cellar, then: “kept \d+”\. None of 300 good ones comes to cellar; it never came to stamp, where they go\. It was handed on by desk, then: “handed on as \d+”\.$/); // prettier-ignore
  });
  test('what was done twice', () => {
    const { outcome, findings, told } = judge({ stamp: 'twice' });
    expect(outcome).toBe('doubled');
    expect(findings[0]).toMatchObject({ kind: 'doubled', failedIn: 'desk', component: 'desk' });
    expect(told[0]).toMatch(/^Doubled in desk, then: “handed on as \d+”, though it had done so before and nothing had failed: “handed on as \d+”\. stamp did it twice\.$/); // prettier-ignore
  });
  test('what had to be done again is no fault', () => expect(judge({ stamp: 'again after an error' }).outcome).toBe('done'));
  test('as long as it may still come, nothing is missing', () => expect(judge({ stamp: 'lost' }, 30_000).outcome).toBe('done'));
  test('what may have come where our evidence has a hole is not missing', () => {
    const span = (from: number, to: number) => ({ component: 'stamp', from: from * 1e6, to: to * 1e6 });
    const holed = reachOf([span(-900, -600), span(600, 900)], 60e6);
    expect(judge({ stamp: 'lost' }, 3_600_000, holed).outcome).toBe('done');
  });
  test('parcels that met the same are alike, whatever their numbers', () => {
    const signatures = [1, 2, 3].map((start) => judge({ stamp: 'begun', start }).findings[0]!.signature);
    expect(new Set(signatures).size).toBe(1);
    expect(judge({ stamp: 'lost' }).findings[0]!.signature).not.toBe(signatures[0]);
  });
});
