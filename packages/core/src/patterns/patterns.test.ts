import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { RE2JS } from 're2js';
import { effortOf, longestSwift } from './effort.ts';
import { patternProblem } from './problem.ts';
import { Searcher } from './searcher.ts';

describe('patterns of one’s own', () => {
  test.each([
    ['(\\w*)*', 'nothing at all'],
    ['(?=x)y', 'look-around'],
    ['(a)\\1', 'back-references'],
    ['[', 'Unterminated'],
    ['', 'empty'],
    ['.*', 'nothing at all'],
    ['x'.repeat(301), 'longer'],
    ['\\ua', 'bounded'],
  ])('%s is refused with a reason', (pattern, reason) => {
    expect(patternProblem(pattern)).toMatch(new RegExp(reason, 'i'));
  });
  test.each(['LX-\\d{6}', '(?:PL|SS)-\\d{4}', '[A-Z]{2}\\d+', 'order (\\d+)', '([0-9a-f]{4}){2}', '(a+)+b', '(?:a|b|ab)*c'])(
    '%s may be used',
    (pattern) => {
      expect(patternProblem(pattern)).toBeNull();
    },
  );
});

describe('what a pattern may cost', () => {
  test.each([
    ['LX-\\d{6}', { unbounded: 0, bits: 0 }],
    ['LX-?\\d{6,9}', { unbounded: 0, bits: 3 }],
    ['[^\\])]+', { unbounded: 1, bits: 0 }],
    ['(?:PL|SS)-\\d{4}', { unbounded: 0, bits: 1 }],
    ['(a+)?b*c{2,}', { unbounded: 3, bits: 1 }],
    ['a\\+b\\{2,3\\}', { unbounded: 0, bits: 0 }],
    ['[+*]a{x}', { unbounded: 0, bits: 0 }],
    ['x{1,300}', { unbounded: 1, bits: 0 }],
  ])('%s', (pattern, effort) => expect(effortOf(pattern)).toEqual(effort));
  test.each(['(?:a|b|ab)*c', '(a+)+', '(a?){20}', '((ab)*c)+', '(?:a|ab){9}'])('%s may take for ever', (pattern) =>
    expect(effortOf(pattern)).toBeNull(),
  );

  test.each([
    ['(?:a|b|ab)*c', 'ab'.repeat(20_000)],
    ['(a+)+b', 'a'.repeat(30_000)],
    ['(?:a?){28}a{28}b', 'a'.repeat(400)],
    ['[a-z]+[a-z]+[a-z]+Z', 'x'.repeat(3000)],
    ['(?:x+x+)+y', 'x'.repeat(5000)],
  ])('%s is through with a text that was made against it', (pattern, text) => {
    const searcher = new Searcher(pattern);
    const began = performance.now();
    expect([searcher.next(text, 0), searcher.all(text), searcher.at(text, 0)]).toEqual([null, null, null]);
    // not a figure: the ready-made engine would take longer than anyone waits
    expect(performance.now() - began).toBeLessThan(20_000);
  });
});

test('both engines find the same, wherever one begins to look', () => {
  const piece = fc.constantFrom(
    'a',
    'b',
    '1',
    '-',
    '[ab]',
    '[^a]',
    '\\d',
    '\\w',
    '(a|b1)',
    '(?:ab)?',
    'a*',
    'b{2}',
    'b{1,3}',
    '\\D',
    'a+?',
    '(?:a|b)*',
    '|',
  );
  const text = fc.string({ unit: fc.constantFrom('a', 'b', '1', '-', 'A', ' '), maxLength: 14 });
  let swift = 0;
  fc.assert(
    fc.property(fc.array(piece, { minLength: 1, maxLength: 5 }), text, fc.nat(6), (pieces, one, at) => {
      const pattern = pieces.join('');
      if (patternProblem(pattern) !== null) return;
      const place = Math.min(at, one.length);
      if (one.length <= longestSwift(effortOf(pattern))) swift++;
      const matcher = RE2JS.compile(pattern).matcher(one);
      const found = matcher.find(place)
        ? { from: matcher.start(), to: matcher.end(), group: matcher.groupCount() > 0 ? matcher.group(1) : null }
        : null;
      const searcher = new Searcher(pattern);
      expect([pattern, one, searcher.next(one, place)]).toEqual([pattern, one, found]);
      expect(searcher.all(one) === null).toBe(!RE2JS.compile(pattern).matcher(one).matches());
    }),
    { numRuns: 3000 },
  );
  expect(swift).toBeGreaterThan(500);
});
