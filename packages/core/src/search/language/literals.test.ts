import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { literalsOf, type Literals } from './literals.ts';
import { patternTest } from './pattern.ts';

const holds = (text: string, needed: Literals): boolean =>
  typeof needed === 'string'
    ? text.includes(needed)
    : needed.of === 'all'
      ? needed.parts.every((part) => holds(text, part))
      : needed.parts.some((part) => holds(text, part));
/** As a database folds it: letters of ASCII alone. */
const lower = (text: string): string => text.replace(/[A-Z]/g, (letter) => letter.toLowerCase());

describe('what a text must hold for a pattern to find anything', () => {
  test.each<[string, ReturnType<typeof literalsOf>]>([
    ['timeout', { folded: false, needed: 'timeout' }],
    ['^lock wait \\d+ms$', { folded: false, needed: { of: 'all', parts: ['lock wait ', 'ms'] } }],
    [
      'due to (lock|statement) timeout',
      { folded: false, needed: { of: 'all', parts: ['due to ', { of: 'any', parts: ['lock', 'statement'] }, ' timeout'] } },
    ],
    ['(?i)Deadlock', { folded: true, needed: 'deadloc' }],
    ['(?i)Überlauf', { folded: true, needed: 'berlauf' }],
    ['refused|(?i:late)', null],
    ['(refused)?', null],
    ['[a-z]+', null],
    ['a|b', null],
    ['(?i)task|kiss', null],
  ])('“%s”', (pattern, literals) => expect(literalsOf(pattern)).toEqual(literals));

  test('what too many alternatives need is not asked', () => {
    const names = Array.from({ length: 40 }, (_, i) => `${String.fromCharCode(97 + (i % 26))}${i}-failed`);
    expect(literalsOf(names.join('|'))).toBeNull();
  });

  test('is held by whatever a pattern finds', () => {
    const letter = fc.constantFrom('a', 'b', 'K', 's', 'S', '\u212a', '\u017f', 'ü', '1');
    const atom = fc.oneof(
      fc.string({ unit: fc.constantFrom('a', 'b', 'K', 's', 'S', 'ü', '1'), minLength: 1, maxLength: 4 }),
      fc.constantFrom('[ab]', '.', '\\d', '(?:ab|Ks)', '(?:ab)?', '(aS)+', 'b*', '(?:s1|1a|bb){1,2}', '(?i:ab)', '^', '\\b'),
    );
    const pattern = fc.tuple(fc.boolean(), fc.array(fc.array(atom, { minLength: 1, maxLength: 3 }), { minLength: 1, maxLength: 2 }));
    let found = 0;
    fc.assert(
      fc.property(pattern, fc.array(fc.string({ unit: letter, maxLength: 40 }), { minLength: 20, maxLength: 20 }), ([folds, parts], texts) => {
        const written = (folds ? '(?i)' : '') + parts.map((atoms) => atoms.join('')).join('|');
        const literals = literalsOf(written);
        if (!literals) return;
        const finds = patternTest(written);
        for (const text of texts) {
          if (!finds(text)) continue;
          found++;
          expect([written, text, holds(literals.folded ? lower(text) : text, literals.needed)]).toEqual([written, text, true]);
        }
      }),
      { numRuns: 3000 },
    );
    expect(found).toBeGreaterThan(100);
  });
});
