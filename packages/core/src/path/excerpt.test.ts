import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { EXCERPT, excerptOf } from './excerpt.ts';

test('an excerpt is the first and the last characters, whatever plane they are of', () => {
  expect(excerptOf('short')).toBe('short');
  fc.assert(
    fc.property(fc.array(fc.constantFrom('a', 'é', '漢', '😀', '\n'), { minLength: 2 * EXCERPT - 3, maxLength: 2 * EXCERPT + 40 }), (characters) => {
      const all = characters.length <= 2 * EXCERPT ? characters : [...characters.slice(0, EXCERPT), '\n', ...characters.slice(-EXCERPT)];
      expect(excerptOf(characters.join(''))).toBe(all.join(''));
    }),
    { numRuns: 60 },
  );
});
