import { expect, test } from '@jest/globals';
import { OUTCOME_MEANINGS, OUTCOME_PATHS, OUTCOME_WORDS, OUTCOMES } from './outcomes.ts';

test('each outcome has a glyph of its own, a word and a meaning', () => {
  expect(new Set(OUTCOMES).size).toBe(9);
  expect(Object.keys(OUTCOME_PATHS).sort()).toEqual([...OUTCOMES].sort());
  expect(new Set(Object.values(OUTCOME_PATHS)).size).toBe(9);
  for (const outcome of OUTCOMES) {
    expect(OUTCOME_WORDS[outcome].length).toBeGreaterThan(2);
    expect(OUTCOME_MEANINGS[outcome].length).toBeGreaterThan(8);
  }
});

test('glyphs stay within their box', () => {
  for (const path of Object.values(OUTCOME_PATHS)) {
    for (const number of path.match(/-?\d+(?:\.\d+)?/g) ?? []) {
      expect(Number(number)).toBeGreaterThanOrEqual(0);
      expect(Number(number)).toBeLessThanOrEqual(18);
    }
  }
});
