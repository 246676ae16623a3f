import { describe, expect, test } from '@jest/globals';
import { dice, milling, said, usualOf } from '../usual/testing/legs.ts';
import { headline } from './sentence.ts';
import { lastReached, missingAfter, silence } from './stopped.ts';

const MINUTE = 60_000_000;

describe('how far a leg came', () => {
  test('is its last record', () => {
    expect(lastReached([said(0, 'shop', 'asks'), said(5, 'mill', 'grinds')])).toBe(1);
    expect(lastReached([said(0, 'shop', 'asks')])).toBe(0);
  });

  test('is not where a door closes what it had opened before others', () => {
    const records = [said(2, 'shop', 'asks'), said(5, 'mill', 'grinds'), said(900, 'door', 'answered 504', { took: 899_000 })];
    expect(lastReached(records)).toBe(1);
  });

  test('is where something says how long it took while nobody else spoke', () => {
    const records = [said(2, 'shop', 'asks'), said(5, 'mill', 'grinds'), said(900, 'mill', 'ground', { took: 800_000 })];
    expect(lastReached(records)).toBe(2);
  });

  test('is its first record where all others only close', () => {
    const records = [said(10, 'shop', 'asks'), said(20, 'door', 'closed', { took: 15_000 }), said(30, 'gate', 'closed', { took: 28_000 })];
    expect(lastReached(records)).toBe(0);
  });
});

describe('what did not come', () => {
  const usual = usualOf(200);
  const whole = milling(dice(5));

  test('is what comes behind the last record in good ones', () => {
    for (const [last, component] of [
      [1, 'mill'],
      [2, 'cart'],
      [3, 'shop'],
    ] as const) {
      // prettier-ignore
      const next = missingAfter(whole.slice(0, last + 1), last, usual)!;
      expect([next.behind, usual.of.sayings[next.saying]!.component]).toEqual([last, component]);
      expect(next.share).toBeGreaterThan(0.95);
    }
    expect(missingAfter(whole, whole.length - 1, usual)).toBeUndefined();
  });

  test('is told behind the closest record that good ones have, where the last one is none of them', () => {
    const records = [...whole.slice(0, 2), said(whole[1]!.at / 1000 + 3, 'mill', 'the stone is stuck')];
    const next = missingAfter(records, 2, usual)!;
    expect([next.behind, usual.of.sayings[next.saying]!.text]).toEqual([1, 'ground ‹› sacks for ‹›']);
  });

  test('stands in the sentence with how many good ones have it, and for how long nothing came', () => {
    const records = whole.slice(0, 3);
    const last = records[2]!;
    const finding = silence({ records, evidenceEnd: last.at + 10 * MINUTE, usual }, 2, undefined);
    expect([finding.kind, finding.failedIn, finding.missingNext, finding.record, finding.evidence]).toEqual([
      'stopped-before',
      'mill',
      'cart',
      2,
      [2],
    ]);
    const sentence = headline(finding.sentence);
    expect(sentence).toContain('Nothing more after');
    expect(sentence).toMatch(/Usually cart says “loaded” .*\(200 of 200 good ones\)/);
    expect(sentence).toMatch(/No source names it in the 10:00|No source names it in the 10 min/);
  });

  test('without knowledge of good ones is not made up', () => {
    const records = whole.slice(0, 3);
    const finding = silence({ records, evidenceEnd: records[2]!.at + MINUTE, usual: null }, 2, undefined);
    expect([finding.missingNext, headline(finding.sentence).includes('Usually')]).toEqual([null, false]);
  });

  test('blames an earlier record that tells this leg from good ones, and says so', () => {
    const records = [whole[0]!, said(whole[0]!.at / 1000 + 1, 'mill', 'the sieve is torn'), ...whole.slice(1, 3)];
    const finding = silence({ records, evidenceEnd: records[3]!.at + MINUTE, usual }, 3, 1);
    expect([finding.record, finding.evidence, finding.component]).toEqual([1, [1, 3], 'mill']);
    expect(headline(finding.sentence)).toContain('what no good one has');
  });
});
