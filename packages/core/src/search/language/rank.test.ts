import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import type { Searchable } from './evaluate.ts';
import { searchable } from './testing/searchable.ts';
import { compareRanks, Foremost, rankOf, rankOfText, type Rank } from './rank.ts';

const ranks = fc.oneof(
  fc.integer(),
  fc.string().map((text) => `x${text}`),
);

describe('what puts a record in its place', () => {
  test.each<[string, Partial<Searchable>, Rank | null]>([
    ['level', { level: 5 }, 5],
    ['level', {}, null],
    ['took', { took: 1500 }, 1500],
    ['took', {}, null],
    ['time', {}, 5],
    ['rows', { fields: { rows: '118' } }, 118],
    ['rows', { fields: { 'job.rows': '4.2e3' } }, 4200],
    ['shop', { fields: { shop: 'B-12' } }, 'B-12'],
    ['order', { identifiers: [{ kind: 'order', value: 'LX-1' }] }, 'LX-1'],
    ['nothing', {}, null],
  ])('%s of %j is %j', (field, more, rank) => expect(rankOf(searchable({ at: 5, ...more }), field)).toBe(rank));

  test('a rank written down is read as the same', () => {
    fc.assert(
      fc.property(
        fc.oneof(fc.integer(), fc.string()),
        (one) => compareRanks(rankOfText(String(rankOfText(String(one)))), rankOfText(String(one))) === 0,
      ),
    );
  });
  test('every two are in one order, and any three agree', () => {
    fc.assert(
      fc.property(ranks, ranks, ranks, (a, b, c) => {
        expect(Math.sign(compareRanks(a, b))).toBe(-Math.sign(compareRanks(b, a)) + 0);
        if (compareRanks(a, b) <= 0 && compareRanks(b, c) <= 0) expect(compareRanks(a, c)).toBeLessThanOrEqual(0);
      }),
    );
  });
});

test('the foremost are those that sorting all of them would put first, equal ones as they came', () => {
  fc.assert(
    fc.property(fc.array(fc.integer({ min: 0, max: 30 }), { maxLength: 500 }), fc.integer({ min: 1, max: 20 }), fc.boolean(), (all, most, down) => {
      const foremost = new Foremost<number>(most, down);
      all.forEach((rank, i) => foremost.add(rank, i));
      const wanted = all.map((rank, item) => ({ rank, item })).sort((a, b) => (down ? b.rank - a.rank : a.rank - b.rank) || a.item - b.item);
      expect(foremost.items()).toEqual(wanted.slice(0, most));
    }),
  );
});
