import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { countsOf, numbersIn } from './numbers.ts';

describe('numbers that a message counts', () => {
  test.each<[string, number[]]>([
    ['took 40 sacks', [40]],
    ['1,204 of 12,000 rows', [1204, 12000]],
    ['a rate of 2.5', [NaN]],
    ['answered (result 500, ms 12, status=202 bytes=162)', [NaN, NaN, NaN, 162]],
    ['nothing at all', []],
    ['first line\nsecond with 7', []],
    ['ORD-4711 for 3', [3]],
    ['at 2026-03-04 from 10.0.0.7:8080', []],
    ['/jobs/17/rows', []],
    ['retry 3, 5', [NaN, 5]],
    ['lots 3, 5', [3, 5]],
    ['#5 and 6', [6]],
    ['took 12ms', []],
  ])('%s', (message, numbers) => expect(numbersIn(message)).toEqual(numbers));

  test.each(['took 12 ms', 'took 4 s', 'for 3 minutes', 'at 80 %', '80%', 'waits 2 h', 'in 7µs'])('a duration or a share is none: %s', (message) =>
    expect(numbersIn(message)).toEqual([NaN]),
  );

  test('a unit that is only the beginning of a word is none', () => expect(numbersIn('5 minor faults, 3 months, 9 sacks')).toEqual([5, 3, 9]));

  test('are as many as stand there, with their places, at most eight', () => {
    fc.assert(
      fc.property(fc.array(fc.nat(1_000_000), { maxLength: 12 }), (numbers) => {
        const message = numbers.map((one) => `${one} sacks`).join(' and ');
        expect(numbersIn(message)).toEqual(numbers.slice(0, 8));
      }),
    );
  });
});

describe('everything that a record counts', () => {
  test('are the numbers of its words by place, then those of its fields by name, without durations', () => {
    expect(countsOf({ message: 'read 40 in 3 ms, wrote 39', measures: 'rows=40 a=b=2.5', took: NaN })).toEqual([
      { of: '0', value: 40 },
      { of: '2', value: 39 },
      { of: 'rows', value: 40 },
      { of: 'a=b', value: 2.5 },
    ]);
    expect(countsOf({ message: 'nothing', took: NaN })).toEqual([]);
  });
  test('numbers of fields beside the words count by their names, whichever of them are there', () => {
    const counts = (message: string, measures = '') => countsOf({ message, measures, took: NaN });
    const bare = [{ of: '0', value: 18 }];
    expect(counts('18 shelves counted again')).toEqual(bare);
    expect(counts('customer=C12 18 shelves counted again request=af0')).toEqual(bare);
    expect(counts('shelf_rows=7 18 shelves counted again')).toEqual([...bare, { of: 'shelf_rows', value: 7 }]);
    expect(counts('18 shelves counted again (order LX-2, rows 7)')).toEqual([...bare, { of: 'rows', value: 7 }]);
    // what the reader told already is told once
    expect(counts('18 shelves counted again rows=7', 'rows=7')).toEqual([...bare, { of: 'rows', value: 7 }]);
  });
  test('what it took is no volume, whatever it is called and in whatever unit', () => {
    for (const [text, took] of [
      ['lots 1165', 1_165_000],
      ['lots 1165', 1_165_204],
      ['lots 7', 7_000_000],
      ['lots 250', 250],
    ] as const)
      expect(countsOf({ message: text, measures: '', took })).toEqual([]);
    expect(countsOf({ message: 'lots 1165', measures: '', took: 1_170_000 })).toHaveLength(1);
  });
});
