import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { reachOf, type Reach } from '../coverage/reach.ts';
import { MARK } from '../path/marks.ts';
import { pathOf } from '../path/path.ts';
import { LASTED } from './sure.ts';
import type { StrandRecord } from '../path/types.ts';
import type { Usual } from '../usual/index-of.ts';
import { dice, lessons, milling, said, usualOf } from '../usual/testing/legs.ts';
import { withTwin } from './doubled.ts';
import { sentenceText } from './sentence.ts';
import type { Finding, FlowRules } from './types.ts';
import { judgedLeg } from './leg.ts';
import { verdict } from './verdict.ts';

const flow: FlowRules = { name: 'milling', label: 'milling', kind: 'order', prefix: '', patienceMs: 60_000, expects: [] };
const usual = usualOf(200);
const END = 1e12;
const judge = (records: StrandRecord[], by: Usual | null = usual, end = END, reach?: Reach) =>
  verdict(judgedLeg({ records, path: pathOf(records, () => false), flow, evidenceEnd: end * 1000, usual: by, reach }));
const told = ({ sentence }: Finding): string => sentenceText(sentence, () => 'then');
/** A leg that begins at 0, so that its sentences are always the same. */
const leg = (of: Parameters<typeof milling>[1] = {}): StrandRecord[] => milling(dice(5), { start: 0, ...of });
/** The same up to a record, and other ones instead of what follows. */
const until = (count: number, ...others: StrandRecord[]): StrandRecord[] => [...leg().slice(0, count), ...others];

describe('by what is usual', () => {
  test('a good leg is done, and nothing is found', () => expect(judge(leg())).toEqual({ outcome: 'done', findings: [] }));

  test('a leg that took too long is slow, with where and how much longer than usual', () => {
    const { outcome, findings } = judge(leg({ grinding: 30_000 }));
    expect(outcome).toBe('slow');
    expect(findings).toMatchObject([{ rank: 1, kind: 'slowed-by', component: 'mill', record: 2, evidence: [1, 2] }]);
    expect(findings[0]!.excess! / 1e6).toBeCloseTo(26, 0);
    expect(told(findings[0]!)).toMatch(/^Slow in mill, then: “ground \d+ sacks for 0” came 30\.0 s after “grinding for 0”, usually \d\.\d+ s \(99 of 100 within \d\.\d+ s, learned from 200\)\.$/); // prettier-ignore
    expect(findings[0]!.confidence).toBe(LASTED);
  });

  test('a leg that ended well with a fraction of what it usually does is odd', () => {
    const { outcome, findings } = judge(leg({ sacks: 2 }));
    expect(outcome).toBe('odd');
    expect(told(findings[0]!)).toMatch(/^Ended without an error in mill, but then: “ground 2 sacks for 0”\. Usually 3\d to 4\d \(200 good ones\)\.$/);
  });

  test('a number in the very record that came late tells why it did', () => {
    const { outcome, findings } = judge(leg({ sacks: 900, grinding: 90_000 }));
    expect(outcome).toBe('slow');
    expect(findings.map((one) => [one.rank, one.kind])).toEqual([[1, 'slowed-by'], [2, 'odd-volume']]); // prettier-ignore
  });

  test('silence where the evidence of who should speak has a hole is out of sight', () => {
    const span = (component: string, from: number, to: number) => ({ component, from: from * 1e6, to: to * 1e6 });
    const holed = reachOf([span('cart', -900, -600), span('cart', 600, 900), span('mill', -900, 900)], 60e6);
    const { outcome, findings } = judge(until(3), usual, END, holed);
    expect(outcome).toBe('out-of-sight');
    expect(findings[0]).toMatchObject({ kind: 'stopped-before', component: 'mill', missingNext: 'cart', record: 2, evidence: [2] });
    expect(told(findings[0]!)).toMatch(/^Out of sight after mill, then: “ground \d+ sacks for 0”\. Usually cart speaks next, but our evidence of it has a hole from then to then\.$/); // prettier-ignore
    expect(told(judge(until(3), usual, END, reachOf([span('cart', 600, 900)], 60e6)).findings[0]!)).toMatch(/begins only at then\.$/);
    // a log that ends tells that something may have died; what came to its end needs no more evidence
    expect(judge(until(3), usual, END, reachOf([span('cart', -900, -600)], 60e6)).outcome).toBe('stalled');
    expect(judge(leg(), usual, END, holed).outcome).toBe('done');
    expect(judge(until(3), usual, 5, holed).outcome).toBe('running');
  });

  test('of several tries that ended alike the last is named, after which it was given up', () => {
    const tried = (at: number): StrandRecord => said(at, 'belt', `belt jammed at ${at}`, { level: 4 });
    const gaveUp = said(4000, 'mill', 'given up, no belt', { level: 5, marks: MARK.failing });
    const { outcome, findings } = judge(until(2, tried(1000), tried(2000), tried(3000), gaveUp));
    expect(outcome).toBe('failed');
    expect(findings[0]).toMatchObject({ kind: 'failed-at', component: 'belt', failedIn: 'mill', record: 4 });
  });

  test('silence names what usually comes next, and when', () => {
    const { outcome, findings } = judge(until(3));
    expect(outcome).toBe('stalled');
    expect(findings[0]).toMatchObject({ kind: 'stopped-before', failedIn: 'mill', component: 'mill', missingNext: 'cart', record: 2 });
    expect(told(findings[0]!)).toMatch(/Usually cart says “loaded” \d+ ms later \(200 of 200 good ones\)\. No source names it in the .+ of evidence after it\.$/); // prettier-ignore
    expect(judge(until(3), null).findings[0]).toMatchObject({ missingNext: null });
    expect(judge(until(3), usual, 5).outcome).toBe('running');
  });

  test('an answer that no good one has is the cause of a silence two components later, though its level says nothing', () => {
    const { findings } = judge([...leg({ answer: 'full' }).slice(0, 4), said(9000, 'gate', 'waits for the cart')]);
    expect(findings[0]).toMatchObject({ kind: 'stopped-before', failedIn: 'gate', component: 'cart', record: 3, evidence: [3, 4] });
    expect(told(findings[0]!)).toContain('Before it, what no good one has: cart, then: “loaded” with status=full.');
  });

  test('what told a leg from good ones before it failed elsewhere is the cause', () => {
    const failing = said(9000, 'shop', 'not delivered', { level: 5, marks: MARK.failing });
    const { outcome, findings } = judge([...leg({ answer: 'full' }).slice(0, 4), failing]);
    expect(outcome).toBe('failed');
    expect(findings.map(({ component, failedIn, record }) => [component, failedIn, record])).toEqual([['cart', 'shop', 3], ['shop', 'shop', 4]]); // prettier-ignore
    expect(told(findings[0]!)).toBe('Failed in shop, then: cart said “loaded” with status=full.');
  });

  test('an error that good ones have as often is no news, and one that bad ones have is', () => {
    const random = dice(8);
    const loud = (records: StrandRecord[]): StrandRecord[] => [records[0]!, { ...said(0, 'shop', 'statistics not sent', { level: 5, marks: MARK.failing }), at: records[0]!.at + 1 }, ...records.slice(1)]; // prettier-ignore
    const noisy = usualOf(190, lessons(Array.from({ length: 10 }, () => loud(milling(random)))));
    expect(judge(loud(leg()).slice(0, 4), noisy)).toMatchObject({ outcome: 'stalled' });
    expect(judge(loud(leg()).slice(0, 4), usual)).toMatchObject({ outcome: 'failed' });
    const broken = lessons(Array.from({ length: 10 }, () => [...loud(milling(random)).slice(0, 3)]), 'failed'); // prettier-ignore
    const telling = usualOf(197, [...lessons(Array.from({ length: 3 }, () => loud(milling(random)))), ...broken]);
    expect(judge(loud(leg()).slice(0, 4), telling)).toMatchObject({ outcome: 'failed' });
  });

  test('a refusal names where it was decided', () => {
    const turned = said(20, 'desk', 'refused 0: mill is full', { level: 4, marks: MARK.refusing });
    const decided = said(10, 'mill', 'no place for 0', { level: 4 });
    const { outcome, findings } = judge([leg()[0]!, decided, turned]);
    expect(outcome).toBe('refused');
    expect(findings[0]).toMatchObject({ component: 'mill', failedIn: 'desk', record: 1 });
    expect(told(findings[0]!)).toBe('Refused by desk, then: “refused 0: mill is full”, after mill, then: “no place for 0”.');
  });

  test('a second strand with what belongs to one only is doubled, unless it went wrong otherwise', () => {
    const twin = { key: 17, label: 'ticket', value: 'T-4', of: 'LX-1' };
    const records = leg().map((one, i) => (i === 1 ? { ...one, keys: [17] } : one));
    const doubled = withTwin(judge(records), records, twin);
    expect(doubled).toMatchObject({ outcome: 'doubled', findings: [{ rank: 1, kind: 'doubled', component: 'mill', record: 1 }] });
    expect(told(doubled.findings[0]!)).toBe('Doubled in mill, then: “grinding for 0”. LX-1 has the same ticket, T-4, and began before it.');
    expect(withTwin(judge(records.slice(0, 3)), records, twin)).toMatchObject({ outcome: 'stalled', findings: [{ kind: 'stopped-before' }, { kind: 'doubled', rank: 2 }] }); // prettier-ignore
  });

  test('findings that are alike have one signature, others another', () => {
    const of = (records: StrandRecord[]): string => judge(records).findings[0]!.signature;
    expect(of(leg({ grinding: 30_000 }))).toBe(of(milling(dice(77), { grinding: 80_000 })));
    expect(new Set([of(leg({ grinding: 30_000 })), of(leg({ sacks: 2 })), of(until(3)), of(until(2))]).size).toBe(4);
  });

  test('quiet noise changes nothing', () => {
    const noise = fc.array(fc.record({ at: fc.integer({ min: 0, max: 9000 }), words: fc.constantFrom('tick', 'cache of doors swept', 'heard nothing') }), { maxLength: 12 }); // prettier-ignore
    const legs = fc.constantFrom(leg(), leg({ grinding: 30_000 }), leg({ sacks: 2 }), [...until(4), said(9500, 'cart', 'broke', { level: 5, marks: MARK.failing })]); // prettier-ignore
    fc.assert(
      fc.property(legs, noise, (records, quiet) => {
        const end = records[records.length - 1]!.at;
        const all = [...records, ...quiet.map(({ at, words }) => said(Math.min(at, end / 1000 - 1), 'noise', words))].sort((a, b) => a.at - b.at);
        const [plain, noisy] = [judge(records), judge(all)];
        expect(noisy.outcome).toBe(plain.outcome);
        expect(noisy.findings.map((one) => one.signature)).toEqual(plain.findings.map((one) => one.signature));
        for (const finding of noisy.findings) {
          expect(finding.evidence).toContain(finding.record);
          expect(all[finding.record]!.component).toBe(finding.component);
        }
      }),
    );
  });
});
