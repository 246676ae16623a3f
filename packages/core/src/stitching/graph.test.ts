import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { Graph } from './graph.ts';

const KINDS = new Map([
  [1, { business: true, shared: false, lease: NaN }],
  [2, { business: false, shared: false, lease: 5_000_000 }],
  [3, { business: false, shared: true, lease: NaN }],
]);

describe('the graph of identifiers', () => {
  test('keeps the first and the last moment of each identifier and pair, whatever it was told first', () => {
    const graph = new Graph(KINDS);
    graph.see(10, 1, 500, 500);
    graph.see(20, 2, 600, 700);
    graph.see(10, 1, 100, 200);
    graph.tie(10, 20, 650, 660);
    graph.tie(10, 20, 610, 620);
    expect([graph.size, graph.bornAt(graph.node(10)), graph.lastAt(graph.node(10))]).toEqual([2, 100, 500]);
    const edges = graph.edges();
    expect([edges.length, edges.first[0], edges.last[0]]).toEqual([1, 610, 660]);
    const nodes = graph.nodes();
    expect([nodes.business[0], nodes.business[1], nodes.leased[0], nodes.leased[1], nodes.leaseOf(1)]).toEqual([1, 0, 0, 1, 5_000_000]);
  });

  test('what was never seen has no node, and cannot be tied', () => {
    const graph = new Graph(KINDS);
    expect(graph.node(5)).toBe(-1);
    graph.see(5, 3, 1, 1);
    expect(graph.isShared(graph.node(5))).toBe(true);
    expect(() => graph.tie(5, 6, 1, 1)).toThrow(RangeError);
  });

  test('grows, and finds every key again', () => {
    const key = fc.integer({ min: 0, max: Number.MAX_SAFE_INTEGER });
    fc.assert(
      fc.property(fc.uniqueArray(key, { minLength: 1, maxLength: 3000 }), (keys) => {
        const graph = new Graph(KINDS);
        keys.forEach((one, index) => graph.see(one, 1, index, index));
        for (let i = 1; i < keys.length; i++) graph.tie(keys[i - 1]!, keys[i]!, i, i);
        expect(graph.size).toBe(keys.length);
        expect(graph.edges().length).toBe(keys.length - 1);
        keys.forEach((one, index) => expect(graph.keyOf(graph.node(one))).toBe(keys[index]));
      }),
      { numRuns: 15 },
    );
  });

  test('telling the same again changes nothing', () => {
    const build = (times: number): unknown => {
      const graph = new Graph(KINDS);
      for (let round = 0; round < times; round++) {
        for (let i = 0; i < 50; i++) graph.see(i, 1, i, i + 5);
        for (let i = 0; i < 49; i++) graph.tie(i, i + 1, i, i + 3);
      }
      const { length, first, last } = graph.edges();
      return [graph.size, length, [...first.slice(0, length)], [...last.slice(0, length)]];
    };
    expect(build(3)).toEqual(build(1));
  });
});
