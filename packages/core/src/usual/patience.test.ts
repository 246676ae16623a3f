import { describe, expect, test } from '@jest/globals';
import type { StrandRecord } from '../path/types.ts';
import { firstPatience, learnedPatience, patienceBehind, silenceOf, UNLEARNED } from './patience.ts';
import { dice, milling, said, usualOf } from './testing/legs.ts';

const MINUTE = 60_000_000;
const LEAST = MINUTE / 6;
const usual = usualOf(400);
/** A leg up to and with its record of this index. */
const upTo = (last: number): StrandRecord[] => milling(dice(3)).slice(0, last + 1);

describe('the silence after which a leg does not go on', () => {
  test('is what is declared, else ten minutes until something is learned', () => {
    expect(patienceBehind(5000, usual, upTo(1))).toBe(5_000_000);
    expect(patienceBehind(null, null, upTo(1))).toBe(UNLEARNED);
  });
  test('is never shorter than sources may be apart', () => expect(patienceBehind(null, usual, upTo(1))).toBe(LEAST));
  test('is longer behind a step that takes long, and only there', () => {
    const random = dice(9);
    const slow = usualOf(0, Array.from({ length: 300 }, () => ({ records: milling(random, { grinding: 3_000_000 * (0.9 + 0.2 * random()) }), outcome: 'done' as const }))); // prettier-ignore
    const grinding = patienceBehind(null, slow, upTo(1));
    expect(grinding).toBeGreaterThan(50 * MINUTE);
    expect(grinding).toBeLessThan(120 * MINUTE);
    expect(patienceBehind(null, slow, upTo(2))).toBe(LEAST);
  });
  test('where nothing is known to come, is how long good ones are silent anywhere', () => {
    const unknown = [said(0, 'shop', 'lost his way')];
    expect(patienceBehind(null, usual, unknown)).toBe(learnedPatience(usual.of.silence));
    const gaps = Array.from({ length: 2000 }, (_, i) => [said(0, 'a', 'x'), said(i < 30 ? 600_000 : 1000, 'a', 'y')]);
    expect(learnedPatience(silenceOf(gaps))).toBe(15 * MINUTE);
  });
  test('before anything is known but legs, a few with the silence of another leg do not count', () => {
    const gaps = Array.from({ length: 100 }, (_, i) => [said(0, 'a', 'x'), said(i < 5 ? 6e6 : 50_000, 'a', 'y')]);
    expect(firstPatience(silenceOf(gaps))).toBe(2.5 * MINUTE);
    expect(learnedPatience(silenceOf(gaps))).toBeGreaterThan(100 * MINUTE);
    expect(firstPatience(silenceOf([[said(0, 'a', 'x'), said(10, 'a', 'y')]]))).toBe(LEAST);
  });
});
