import { describe, expect, it } from '@jest/globals';
import fc from 'fast-check';
import { copiesAmong, type Teller } from './copies-among.ts';

const teller = (id: number, more: Partial<Teller> = {}): Teller => ({ id, path: `file-${id}`, names: 1, words: 10, coarse: 1000, ...more });
const found = (...asked: Parameters<typeof copiesAmong>): [number, number][] => [...copiesAmong(...asked)].map(([id, { of }]) => [id, of]);
const all = (...sets: [number, number[]][]): Map<number, Set<number>> => new Map(sets.map(([id, others]) => [id, new Set(others)]));

describe('copies', () => {
  it('are of the one that names more, tells finer times, says more', () => {
    const both = all([1, [2]], [2, [1]]);
    expect(found([teller(1), teller(2, { names: 2 })], both)).toEqual([[1, 2]]);
    expect(found([teller(1, { coarse: 1 }), teller(2, { words: 90 })], both)).toEqual([[2, 1]]);
    expect(found([teller(1), teller(2, { words: 90 })], both)).toEqual([[1, 2]]);
    expect(found([teller(2), teller(1)], both)).toEqual([[2, 1]]);
  });
  it('are the part, not the whole, whatever it says', () => {
    expect(found([teller(1, { names: 5, words: 90 }), teller(2)], all([1, [2]]))).toEqual([[1, 2]]);
  });
  it('are of what is a copy of none itself, the same for any order', () => {
    const ids = [1, 2, 3, 4, 5, 6];
    const relation = fc.array(fc.tuple(fc.constantFrom(...ids), fc.constantFrom(...ids)));
    const words = fc.array(fc.integer({ min: 5, max: 60 }), { minLength: 6, maxLength: 6 });
    fc.assert(
      fc.property(relation, words, fc.shuffledSubarray(ids, { minLength: 6 }), (pairs, sizes, order) => {
        const within = new Map<number, Set<number>>();
        for (const [a, b] of pairs) if (a !== b) within.set(a, (within.get(a) ?? new Set()).add(b));
        const tellers = ids.map((id) => teller(id, { words: sizes[id - 1]! }));
        const found = copiesAmong(tellers, within);
        for (const [copy, { of: original }] of found) {
          expect(within.get(copy)!.has(original)).toBe(true);
          expect(found.has(original)).toBe(false);
        }
        const shuffled = copiesAmong(order.map((id) => tellers[id - 1]!), within); // prettier-ignore
        expect(new Map([...shuffled].sort())).toEqual(new Map([...found].sort()));
      }),
    );
  });
});
