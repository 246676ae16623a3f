import { describe, expect, test } from '@jest/globals';
import { EVERYWHERE, type Reach } from '../coverage/reach.ts';
import { pathOf } from '../path/path.ts';
import type { StrandRecord } from '../path/types.ts';
import { Usual } from '../usual/index-of.ts';
import type { Lesson } from '../usual/good-ones.ts';
import { learnUsual } from '../usual/learn.ts';
import { dice, milling, said } from '../usual/testing/legs.ts';
import { verdictByLeg } from './by-leg.ts';
import { sentenceText } from './sentence.ts';
import type { FlowRules } from './types.ts';

const HOUR = 3_600_000;
const flow: FlowRules = { name: 'milling', label: 'milling', kind: 'order', prefix: '', patienceMs: 60_000, expects: [] };
const random = dice(11);
/** The shop asks hours later whether all was well; `links` tie what belongs together. */
function order(start: number, asks: boolean): StrandRecord[] {
  const leg = milling(random, { start }).map((one) => ({ ...one, keys: [start] }));
  const at = start + HOUR * (1 + 2 * random());
  return asks
    ? [...leg, said(at, 'shop', `order ${start} is praised`, { keys: [start + 1] }), said(at + 9, 'desk', 'noted', { keys: [start + 1] })]
    : leg;
}
const pathsOf = (records: StrandRecord[]) => pathOf(records, () => true);
/** What is known of so many orders of two days, each of which goes on but for a few. */
function learned(count: number, without: number): Usual {
  const until = 48 * HOUR * 1000;
  const lessons = Array.from({ length: count }, (_, i): Lesson => {
    const records = order(Math.floor((i / count) * 47 * HOUR), i >= without);
    const { legs } = pathsOf(records);
    return { records: legs[0]!.records.map((index) => records[index]!), outcome: 'done', later: legs.slice(1).map((leg) => records[leg.records[0]!]!), until }; // prettier-ignore
  });
  return new Usual(learnUsual('milling', lessons)!);
}
const judge = (records: StrandRecord[], usual: Usual, hours: number, reach: Reach = EVERYWHERE) =>
  verdictByLeg({ records, path: pathsOf(records), flow, evidenceEnd: records[0]!.at + hours * HOUR * 1000, usual, reach });

describe('what a strand usually goes on with hours after its end', () => {
  const usual = learned(400, 2);
  test('is learned with how often and how long after it comes', () => {
    expect(usual.of.continues).toMatchObject([{ component: 'shop', text: 'order ‹› is praised' }]);
    const [one] = usual.of.continues;
    expect(one!.legs / one!.of).toBeGreaterThan(0.98);
    expect(one!.of).toBeLessThan(400);
    expect(one!.wait.median / 1000 / HOUR).toBeCloseTo(2, 0);
  });
  test('is missed where it never came, once it is too late for it', () => {
    const never = judge(order(70 * HOUR, false), usual, 9);
    expect(never.outcome).toBe('stalled');
    expect(never.findings[0]).toMatchObject({ kind: 'stopped-before', component: 'shop', missingNext: 'shop', record: 4, rank: 1 });
    expect(sentenceText(never.findings[0]!.sentence, () => 'noon')).toMatch(
      /^Ended well with shop, noon: “order \d+ delivered”, but never went on\. Usually shop says “order ‹› is praised” 2 h .*good ones\)/,
    );
    expect(judge(order(70 * HOUR, false), usual, 3).outcome).toBe('done');
    expect(judge(order(70 * HOUR, true), usual, 9).outcome).toBe('done');
  });
  test('is not missed in a hole of the evidence, nor where not nearly all have it', () => {
    const hole: Reach = () => ({ kind: 'hole', from: 1, to: 2 });
    expect(judge(order(70 * HOUR, false), usual, 9, hole).outcome).toBe('done');
    const some = learned(400, 200);
    expect(some.of.continues[0]!.legs).toBeGreaterThan(100);
    expect(judge(order(70 * HOUR, false), some, 9).outcome).toBe('done');
  });
  test('is not told of evidence that ends before it could have come', () => {
    expect(learnUsual('milling', Array.from({ length: 100 }, (_, i): Lesson => ({ records: milling(random, { start: i * 1000 }), outcome: 'done', later: [], until: 200e6 })))!.continues).toEqual([]); // prettier-ignore
  });
});
