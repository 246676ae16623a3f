import { describe, expect, test } from '@jest/globals';
import { LeaseList, NO_LEASES } from '@fadenweg/core/stitching';
import { slicesOf } from './slices.ts';

/** Nodes by number: key, first and last mention. */
const NODES = [
  { key: 100, born: 50, last: 60 },
  { key: 200, born: 10, last: 30 },
  { key: 300, born: 20, last: 90 },
  { key: 400, born: 5, last: 99 },
  { key: 500, born: 70, last: 80 },
];
const graph = {
  node: (key: number) => NODES.findIndex((one) => one.key === key),
  keyOf: (node: number) => NODES[node]!.key,
  bornAt: (node: number) => NODES[node]!.born,
  lastAt: (node: number) => NODES[node]!.last,
};
/** 300 belongs to the strand of 200, 500 to that of 100, 400 to none. */
const OWNER = Int32Array.from([0, 1, 1, -1, 0]);

describe('slices of strands', () => {
  test('few are one slice, whenever their records are', () => {
    expect(slicesOf([100, 200], graph, OWNER, NO_LEASES, 2)).toEqual([{ founders: [100, 200], from: -Infinity, to: Infinity }]);
  });
  test('many lie in the order in which they were born, each with the moments of all that belongs to them', () => {
    expect(slicesOf([100, 200], graph, OWNER, NO_LEASES, 1)).toEqual([
      { founders: [200], from: 10, to: 90 },
      { founders: [100], from: 50, to: 80 },
    ]);
  });
  test('a reused key belongs to a strand for its lease', () => {
    const leases = new LeaseList();
    leases.add(3, 0, 1, 7);
    leases.add(3, 1, 93, 97);
    const [first, second] = slicesOf([100, 200], graph, OWNER, leases.leases(), 1);
    expect([first, second]).toEqual([
      { founders: [200], from: 10, to: 97 },
      { founders: [100], from: 1, to: 80 },
    ]);
  });
  test('what founds no strand any more is in a slice too: its row has to go', () => {
    expect(slicesOf([100, 700], graph, OWNER, NO_LEASES, 1)[0]).toEqual({ founders: [700], from: Infinity, to: -Infinity });
  });
});
