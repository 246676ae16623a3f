import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { LeaseList, NO_LEASES, type Leases } from './leases.ts';

interface Lease {
  node: number;
  founder: number;
  from: number;
  to: number;
}
/** Leases of some nodes, those of each in order of time and never overlapping. */
const some = fc
  .array(fc.record({ node: fc.nat(6), founder: fc.nat(3), gap: fc.integer({ min: 1, max: 4 }), length: fc.nat(4) }), { maxLength: 40 })
  .map((list) => {
    const reached = new Map<number, number>();
    return list.map(({ node, founder, gap, length }): Lease => {
      const from = (reached.get(node) ?? 0) + gap;
      reached.set(node, from + length);
      return { node, founder, from, to: from + length };
    });
  });
function made(list: readonly Lease[]): Leases {
  const into = new LeaseList();
  for (const { node, founder, from, to } of list) into.add(node, founder, from, to);
  return into.leases();
}
const of = (list: readonly Lease[], node: number): Lease[] => list.filter((one) => one.node === node);
const text = ({ founder, from, to }: Lease): string => `${founder} ${from} ${to}`;

describe('leases in columns', () => {
  test('are by node, those of a node in order of time, whatever order nodes came in', () => {
    fc.assert(
      fc.property(some, (list) => {
        const leases = made(list);
        expect(leases.length).toBe(list.length);
        for (let node = 0; node < 9; node++) {
          const own = of(list, node);
          expect([leases.end(node) - leases.begin(node), leases.has(node)]).toEqual([own.length, own.length > 0]);
          const places = own.map((_, i) => leases.begin(node) + i);
          expect(places.map((i) => text({ node, founder: leases.founder[i]!, from: leases.from[i]!, to: leases.to[i]! }))).toEqual(own.map(text));
        }
      }),
    );
  });

  test('tell whose a key was at a moment as a search of all of them does', () => {
    fc.assert(
      fc.property(some, fc.nat(8), fc.nat(90), (list, node, at) => {
        const own = of(list, node).find(({ from, to }) => from <= at && at <= to);
        expect(made(list).ownerAt(node, at)).toBe(own?.founder ?? -1);
      }),
    );
  });

  test('tell what another state of them does not have', () => {
    fc.assert(
      fc.property(some, fc.oneof(some, fc.constant(null)), fc.array(fc.nat(40)), (one, other, without) => {
        // of the same leases some are left out, or they are wholly different ones
        const two = other ?? one.filter((_, i) => !without.includes(i));
        const [first, second] = [made(one), made(two)];
        for (let node = 0; node < 8; node++) {
          const theirs = new Set(of(two, node).map(text));
          const found: number[] = [];
          first.differing(node, second, (founder) => found.push(founder));
          expect(found).toEqual(of(one, node).flatMap((lease) => (theirs.has(text(lease)) ? [] : [lease.founder])));
          expect(first.isAs(node, second)).toBe(of(one, node).map(text).join() === of(two, node).map(text).join());
        }
      }),
    );
  });

  test('begin and end at whole microseconds; a list is empty once they are taken', () => {
    const list = new LeaseList();
    list.add(5, 1, 10.7, 20.9);
    const leases = list.leases();
    expect([leases.from[0], leases.to[0], leases.ownerAt(5, 20), leases.ownerAt(5, 21)]).toEqual([10, 20, 1, -1]);
    expect(list.leases().length).toBe(0);
    expect([NO_LEASES.has(0), NO_LEASES.ownerAt(3, 5)]).toEqual([false, -1]);
  });

  test('grow as far as they have to', () => {
    const leases = made(Array.from({ length: 5000 }, (_, i) => ({ node: 4999 - i, founder: i, from: i, to: i })));
    expect([leases.length, leases.ownerAt(0, 4999), leases.ownerAt(4999, 0)]).toEqual([5000, 4999, 0]);
  });
});
