import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { durationWords, firstLine, headline, said, sentenceText, words } from './sentence.ts';

describe('durations as a person says them', () => {
  test.each([
    [0, '0 ms'],
    [12, '0.012 ms'],
    [999, '0.999 ms'],
    [3_000, '3 ms'],
    [3_140, '3.1 ms'],
    [812_400, '812 ms'],
    [999_499, '999 ms'],
    [999_500, '1.00 s'],
    [8_000_000, '8.00 s'],
    [59_940_000, '59.9 s'],
    [59_960_000, '1 min'],
    [250_000_000, '4 min 10 s'],
    [3_600_000_000, '1 h'],
    [7_500_000_000, '2 h 5 min'],
  ])('%d µs are %s', (time, text) => expect(durationWords(time)).toBe(text));

  test('never say 60 seconds or 60 minutes, and a longer one never sounds shorter', () => {
    const said = (text: string): number =>
      [...text.matchAll(/([\d.]+) (ms|s|min|h)/g)].reduce((sum, [, n, unit]) => sum + Number(n) * { ms: 1, s: 1e3, min: 6e4, h: 3.6e6 }[unit!]!, 0);
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 400_000_000_000 }), fc.integer({ min: 0, max: 10_000_000_000 }), (time, more) => {
        expect(durationWords(time)).not.toMatch(/\b60(\.0+)? (s|min)\b/);
        expect(said(durationWords(time + more))).toBeGreaterThanOrEqual(said(durationWords(time)));
        expect(Math.abs(said(durationWords(time)) - time / 1000)).toBeLessThanOrEqual(Math.max(0.05, (time / 1000) * 0.01));
      }),
    );
  });
});

describe('a sentence', () => {
  const parts = [words('Failed in '), ...said({ component: 'shop', at: 5, message: 'no sacks\nat all' }, 3), words('.')];
  test('tells its times by the clock that it is given', () =>
    expect(sentenceText(parts, (at) => `${at} o’clock`)).toBe('Failed in shop, 5 o’clock: “no sacks”.'));
  test('stands without times where they are shown beside it', () => expect(headline(parts)).toBe('Failed in shop: “no sacks”.'));
  test('bears one line, and not too much of that', () => {
    expect(firstLine('one\ntwo')).toBe('one');
    expect(firstLine('x'.repeat(160))).toHaveLength(160);
    expect(firstLine('x'.repeat(500))).toBe(`${'x'.repeat(159)}…`);
  });
});
