import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { common, wordsOf } from './words.ts';

describe('words', () => {
  it('are the same whatever stands between them', () => {
    const asText = wordsOf(['Order LX-204817 stored, 12.5 kg, by "Müller"']);
    const asJson = wordsOf(['{"order":"lx-204817"', 'STORED', '12.5', 'kg', 'by', 'müller"}']);
    expect([...asJson]).toEqual([...asText]);
  });
  it('stand in ascending order, each once', () => {
    fc.assert(
      fc.property(fc.array(fc.string()), (texts) => {
        const words = wordsOf(texts);
        expect([...words]).toEqual([...new Set(words)].sort((a, b) => a - b));
      }),
    );
  });
  it('are counted where both have them', () => {
    const numbers = fc.uniqueArray(fc.integer({ min: -20, max: 20 })).map((all) => Int32Array.from(all).sort());
    fc.assert(fc.property(numbers, numbers, (a, b) => expect(common(a, b)).toBe([...a].filter((word) => b.includes(word)).length)));
  });
});
