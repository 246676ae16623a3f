import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { literalPrefix } from '../patterns/literal-prefix.ts';
import { RunSearch } from './run-search.ts';

describe('looking for runs of one class', () => {
  test('is offered for patterns that begin so, and for no others', () => {
    expect(RunSearch.of('[0-9a-f]{32}')).not.toBeNull();
    expect(RunSearch.of('([0-9A-Z]{8})-x')).not.toBeNull();
    for (const pattern of ['LX-\\d{6}', '[0-9]{2}', '[0-9a-f]{32}|x', '[^a]{9}', '\\d{9}']) expect(RunSearch.of(pattern)).toBeNull();
  });

  test('finds every run at the beginning of a word, and none elsewhere, as a slow search does', () => {
    const run = RunSearch.of('[0-9a-f]{4}')!;
    fc.assert(
      fc.property(fc.string({ unit: fc.constantFrom(...'09afgz_- .\n'), maxLength: 60 }), (text) => {
        const found: number[] = [];
        for (let at = run.next(text, 0); at >= 0; at = run.next(text, at + 1)) found.push(at);
        const slow = [...text].flatMap((_, at) => (/^[0-9a-f]{4}/.test(text.slice(at)) && !/\w$/.test(text.slice(0, at)) ? [at] : []));
        expect(found).toEqual(slow);
      }),
      { numRuns: 500 },
    );
  });
});

describe('the literal beginning of a pattern', () => {
  test.each([
    ['LX-\\d{6}', 'LX-'],
    ['00-([0-9a-f]{32})', '00-'],
    ['sips?:x', 'sip'],
    ['tel:(\\+?[0-9]+)', 'tel:'],
    ['a{2}b', ''],
    ['(?:PL|SS)-\\d', ''],
    ['\\d+', ''],
    ['run\\.id=(\\w+)', 'run.id='],
  ])('%s begins with “%s”', (pattern, literal) => expect(literalPrefix(pattern)).toBe(literal));

  test('every match of a pattern holds its literal beginning', () => {
    const patterns = ['LX-\\d{2}', 'ab?c', 'xy+', 'k=v*'];
    fc.assert(
      fc.property(fc.constantFrom(...patterns), fc.string({ unit: fc.constantFrom(...'LX-12abcxyk=v') }), (pattern, text) => {
        if (new RegExp(pattern).test(text)) expect(text).toContain(literalPrefix(pattern));
      }),
      { numRuns: 500 },
    );
  });
});
