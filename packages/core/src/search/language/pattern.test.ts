import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { RE2JS } from 're2js';
import { nativeOf, patternTest } from './pattern.ts';

describe('patterns', () => {
  test.each([
    ['(?i)^/(?:health|ping)(?:[/?]|$)', '/Health?x', true],
    ['(?i)^/(?:health|ping)(?:[/?]|$)', '/healthy', false],
    ['^lock', 'a lock', false],
    ['lock|wait', 'to wait', true],
    ['a.c', 'a\nc', false],
    ['a.c', 'a\rc', true],
    ['(?s)a.c', 'a\nc', true],
    ['\\sx', ' x', true],
    ['[[:digit:]]+x', '12x', true],
    ['\\bOPTIONS$', '1 OPTIONS', true],
  ])('%s on “%s”: %s', (pattern, text, found) => expect(patternTest(pattern)(text)).toBe(found));

  test.each(['(a+)+', '(?:a|b|ab)*c', 'a.c', '\\s', 'ä', '(?=a)', '\\pL', '[[:alpha:]]', 'a*b*c*', '\\1', 'a++', '', '(?m)^a'])(
    '%s is left to the linear engine',
    (pattern) => expect(nativeOf(pattern)).toBeNull(),
  );
  test.each(['^/health$', '(?i)(?:REGISTER|OPTIONS)$', '[a-k]$', 'SS-\\d{4}', 'x[^/]*y'])('%s runs natively', (pattern) =>
    expect(nativeOf(pattern)?.pattern).toBeInstanceOf(RegExp),
  );

  test('both engines think alike of whatever runs natively', () => {
    const piece = fc.constantFrom(
      'a',
      'b',
      '1',
      '-',
      '/',
      '[ab]',
      '[^a]',
      '\\d',
      '\\w',
      '\\b',
      '(?:a|b1)',
      '(?:ab)?',
      'a*',
      'b{2}',
      '\\D',
      '|',
      '^',
      '$',
    );
    const text = fc.string({ unit: fc.constantFrom('a', 'b', '1', '-', '/', 'A', ' ', '\n', 'ſ', 'é'), maxLength: 12 });
    let native = 0;
    fc.assert(
      fc.property(fc.array(piece, { minLength: 1, maxLength: 6 }), fc.boolean(), fc.array(text, { maxLength: 8 }), (pieces, folds, texts) => {
        const pattern = (folds ? '(?i)' : '') + pieces.join('');
        if (nativeOf(pattern) === null) return;
        native++;
        const own = patternTest(pattern);
        const compiled = RE2JS.compile(pattern);
        for (const one of texts) expect([pattern, one, own(one)]).toEqual([pattern, one, compiled.matcher(one).find()]);
      }),
      { numRuns: 1500 },
    );
    expect(native).toBeGreaterThan(300);
  });
});
