import { expect, test } from '@jest/globals';
import { isFar, rowsBeside, touchWords, whoWords } from './data-words.ts';

const by = (label: string, runs: number) => ({ flow: label, label, runs });
test('who writes and reads', () => {
  expect(whoWords({ writers: [by('load', 10)], readers: [by('a', 3), by('b', 2), by('c', 1), by('d', 1)] })).toBe(
    'written by load (10); read by a (3), b (2), c (1), 1 more',
  );
  expect(whoWords({ writers: [], readers: [] })).toBe('nobody is seen to write it; nobody is seen to read it');
});
test('rows beside the usual', () => {
  expect(rowsBeside(null, 4)).toBe('');
  expect(rowsBeside({ rows: null }, 4)).toBe('');
  expect(rowsBeside({ rows: 118 }, 4200)).toBe('118, usually 4,200');
  expect([isFar(118, 4200), isFar(4000, 4200), isFar(null, 3), isFar(9, 2)]).toEqual([true, false, false, true]);
});
test('what is done', () => {
  expect(touchWords({ way: 'writes', kind: 'table', instance: '', rows: 3, failed: true })).toBe('table written, 3 rows, failed');
  expect(touchWords({ way: 'reads', kind: 'file', instance: 'a_1.csv', rows: null, failed: false })).toBe('file read, a_1.csv');
});
