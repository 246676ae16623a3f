import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { csvCells, quotesBalanced } from './csv.ts';

test.each([
  ['a,b,c', ['a', 'b', 'c']],
  ['a,,c', ['a', '', 'c']],
  ['"a,b",c', ['a,b', 'c']],
  ['"say ""no""",2', ['say "no"', '2']],
  ['"two\nlines",x', ['two\nlines', 'x']],
  ['', ['']],
  [',', ['', '']],
  ['"open', ['open']],
])('cells of %j', (text, cells) => expect(csvCells(text)).toEqual(cells));

test('what was written by the rules of RFC 4180 is read again', () => {
  fc.assert(
    fc.property(fc.array(fc.string({ unit: fc.constantFrom(...'ab",\n ;') }), { minLength: 1, maxLength: 6 }), (cells) => {
      const text = cells.map((cell) => (/[",\n]/.test(cell) ? `"${cell.replaceAll('"', '""')}"` : cell)).join(',');
      expect(csvCells(text)).toEqual(cells);
      expect(quotesBalanced(text)).toBe(true);
    }),
  );
});

test('a record goes on while a quote is open', () => {
  expect(quotesBalanced('a,"open')).toBe(false);
  expect(quotesBalanced('closed",b', false)).toBe(true);
  expect(quotesBalanced('plain')).toBe(true);
});
