import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { EXCERPT, excerptOf } from './excerpt.ts';

test('an excerpt is the first characters, whatever plane they are of', () => {
  expect(excerptOf('short')).toBe('short');
  fc.assert(
    fc.property(fc.array(fc.constantFrom('a', 'é', '漢', '😀', '\n'), { minLength: EXCERPT - 3, maxLength: EXCERPT + 40 }), (characters) => {
      expect(excerptOf(characters.join(''))).toBe(characters.slice(0, EXCERPT).join(''));
    }),
    { numRuns: 60 },
  );
});
