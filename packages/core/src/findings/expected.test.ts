import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { pathOf } from '../path/path.ts';
import type { StrandRecord } from '../path/types.ts';
import { dice, milling, usualOf } from '../usual/testing/legs.ts';
import { sentenceText } from './sentence.ts';
import type { FlowRules } from './types.ts';
import { judgedLeg } from './leg.ts';
import { verdict } from './verdict.ts';

const flow: FlowRules = { name: 'milling', label: 'milling', kind: 'order', prefix: '', patienceMs: 60_000, expects: [] };
const usual = usualOf(200);
const END = 1e12;
const leg = (of: Parameters<typeof milling>[1] = {}): StrandRecord[] => milling(dice(5), { start: 0, ...of });
const judge = (records: StrandRecord[], more: Partial<FlowRules>, end = END) => {
  const { outcome, findings } = verdict(
    judgedLeg({ records, path: pathOf(records, () => false), flow: { ...flow, ...more }, evidenceEnd: end, usual }),
  );
  return { outcome, findings, told: findings[0] ? sentenceText(findings[0].sentence, () => 'then') : '' };
};
const loaded = { component: 'cart', words: 'loaded', withinMs: null };

describe('what is declared of a flow', () => {
  test('a good leg meets it', () =>
    expect(judge(leg(), { must: [{ ...loaded, withinMs: 60_000 }], path: ['shop', 'mill', 'cart'], longestMs: 60_000 })).toMatchObject({
      outcome: 'done',
      findings: [],
    }));

  test('a step that has to follow and never came stalls a leg whatever end it reached', () => {
    const without = leg().filter((record) => record.component !== 'cart');
    const { outcome, findings, told } = judge(without, { must: [{ ...loaded, withinMs: 9000 }] });
    expect(outcome).toBe('stalled');
    expect(findings[0]).toMatchObject({ kind: 'stopped-before', component: 'shop', missingNext: 'cart', record: 3 });
    expect(told).toBe('Never came to cart’s “loaded”, which has to follow within 9.00 s. Its last record is shop, then: “order 0 delivered”.');
    // what is learned tells it too, once it cannot come any more
    expect(judge(without, {}).findings[0]).toMatchObject({ kind: 'stopped-before', missingNext: 'cart' });
    expect(judge(without, { must: [loaded] }, 50_000_000).outcome).toBe('done');
  });

  test('a step that came too late, and a leg that took too long, are slow by what was declared', () => {
    const late = judge(leg(), { must: [{ ...loaded, withinMs: 1000 }] });
    expect([late.outcome, late.findings[0]!.component, late.findings[0]!.record]).toEqual(['slow', 'cart', 3]);
    expect(late.told).toMatch(/^Slow in cart, then: “loaded” came \d\.\d\d s after its begin; it has to come within 1\.00 s\.$/);
    const long = judge(leg(), { longestMs: 2000 });
    expect([long.outcome, long.findings[0]!.component, long.findings[0]!.record]).toEqual(['slow', 'mill', 2]);
    expect(long.findings[0]!.excess).toBe(leg().at(-1)!.at - 2_000_000);
    expect(long.told).toMatch(/^Slow in mill, .* All of it took \d\.\d\d s, declared are 2\.00 s\.$/);
  });

  test('a component off the declared path is astray', () => {
    const { outcome, findings, told } = judge(leg(), { path: ['shop', 'mill'] });
    expect(outcome).toBe('odd');
    expect(findings[0]).toMatchObject({ kind: 'went-astray', component: 'cart', record: 3 });
    expect(told).toBe('Went astray: cart, then: “loaded”. Its way is declared as shop, mill.');
  });

  test('nothing that is declared is found without evidence', () =>
    fc.assert(
      fc.property(fc.nat(20_000), fc.nat(20_000), fc.subarray(['shop', 'mill', 'cart']), fc.nat(4), (within, longest, path, cut) => {
        const records = leg().slice(0, 1 + cut);
        const { findings } = judge(records, { must: [{ ...loaded, withinMs: within + 1 }], path, longestMs: longest + 1 });
        for (const one of findings) {
          expect(one.evidence.length).toBeGreaterThan(0);
          for (const index of [one.record, ...one.evidence]) expect(records[index]).toBeDefined();
        }
      }),
    ));
});
