import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { likeTest } from './like.ts';

test.each([
  ['order%', 'order taken', true],
  ['order%', 'an order', false],
  ['%taken', 'order taken', true],
  ['%a%b%', 'xaxbx', true],
  ['%a%b%', 'xbxax', false],
  ['a_c', 'abc', true],
  ['a_c', 'ac', false],
  ['100\\%', '100%', true],
  ['100\\%', '1000', false],
  ['a\\_b', 'a_b', true],
  ['a\\_b', 'axb', false],
  ['', '', true],
  ['%', '', true],
  ['_', '', false],
  ['ab%ba', 'aba', false],
  ['a.c%', 'abc', false],
  ['%\n%', 'two\nlines', true],
])('%j on %j: %s', (pattern, text, found) => expect(likeTest(pattern)(text)).toBe(found));

test('it is what its definition says, of any pattern and text', () => {
  const defined = (pattern: string, text: string): boolean => {
    if (pattern === '') return text === '';
    if (pattern[0] === '%') return defined(pattern.slice(1), text) || (text !== '' && defined(pattern, text.slice(1)));
    return text !== '' && (pattern[0] === '_' || pattern[0] === text[0]) && defined(pattern.slice(1), text.slice(1));
  };
  fc.assert(
    fc.property(
      fc.string({ unit: fc.constantFrom('a', 'b', '%', '_'), maxLength: 9 }),
      fc.string({ unit: fc.constantFrom('a', 'b'), maxLength: 10 }),
      (pattern, text) => {
        expect(likeTest(pattern)(text)).toBe(defined(pattern, text));
      },
    ),
    { numRuns: 2000 },
  );
});

test('patterns that were made to take for ever do not', () => {
  const text = 'y'.repeat(200_000);
  for (const pattern of [`${'%_'.repeat(60)}Z`, `${'_'.repeat(2000)}Z%`, `%${'y%'.repeat(900)}Z`, `%${'_y'.repeat(50)}Z%`])
    expect(likeTest(pattern)(text)).toBe(false);
});
