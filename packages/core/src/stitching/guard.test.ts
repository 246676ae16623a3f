import { describe, expect, test } from '@jest/globals';
import { Graph } from './graph.ts';
import { overJoining } from './guard.ts';

const [ORDER, TRACE, TENANT, SESSION, SHOP] = [1, 2, 3, 4, 5];
const KINDS = new Map([
  [ORDER, { business: true, shared: false, lease: NaN }],
  [TRACE, { business: false, shared: false, lease: NaN }],
  [TENANT, { business: false, shared: false, lease: NaN }],
  [SESSION, { business: false, shared: false, lease: 1000 }],
  [SHOP, { business: false, shared: true, lease: NaN }],
]);
/** Orders 1 to `orders`; each has a trace of its own, one of `tenants`, and a session. */
function world(orders: number, tenants: number, sharing = 0): Graph {
  const graph = new Graph(KINDS);
  const name = (kind: number, value: number, at: number): number => {
    graph.see(kind * 1_000_000 + value, kind, at, at);
    return kind * 1_000_000 + value;
  };
  for (let i = 0; i < orders; i++) {
    const order = name(ORDER, i, i);
    // every so many orders use the trace of the one before
    const trace = sharing > 0 && i % sharing === 0 ? Math.max(0, i - 1) : i;
    for (const other of [name(TRACE, trace, i), name(TENANT, i % tenants, i), name(SESSION, i % 3, i)]) graph.tie(order, other, i, i);
  }
  return graph;
}
const judged = (graph: Graph) => overJoining(graph.nodes(), graph.edges(), (kind) => KINDS.get(kind)!.shared === false && !KINDS.get(kind)!.business);

describe('links that join too much', () => {
  test('are those that stand beside several orders; traces, and sessions that are used again, are not', () => {
    expect(judged(world(400, 40))).toEqual([{ kind: TENANT, values: 40, joining: 40, worst: TENANT * 1_000_000, worstCount: 10 }]);
  });
  test('a few of many are forgiven, and few say nothing', () => {
    expect(judged(world(400, 400, 40))).toEqual([]);
    expect(judged(world(12, 4))).toEqual([]);
  });
  test('of a kind of which several may be one, so many are forgiven', () => {
    const most = (kind: number): number => (kind === ORDER ? 4 : 1);
    const crowded = world(400, 200);
    expect(judged(crowded).map((one) => one.kind)).toEqual([TENANT]);
    expect(overJoining(crowded.nodes(), crowded.edges(), (kind) => kind === TENANT, most)).toEqual([]);
    const more = world(400, 40);
    expect(overJoining(more.nodes(), more.edges(), (kind) => kind === TENANT, most).map((one) => one.kind)).toEqual([TENANT]);
  });
  test('one in four is too much', () => {
    expect(judged(world(400, 400, 4)).map((one) => one.kind)).toEqual([TRACE]);
  });
});
