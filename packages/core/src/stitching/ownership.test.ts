import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { chains } from './chain.ts';
import { Graph } from './graph.ts';
import { HomeChooser } from './home.ts';
import { ownership } from './ownership.ts';
import type { IdentifierKind } from '../identifiers/types.ts';
import { KEEP } from '../identifiers/types.ts';

const ORDER = 1,
  CALL = 2,
  TRACE = 3,
  MESSAGE = 4,
  SESSION = 5,
  PHONE = 6;
const KINDS = new Map([
  [ORDER, { business: true, shared: false, lease: NaN }],
  [CALL, { business: true, shared: false, lease: NaN }],
  [TRACE, { business: false, shared: false, lease: NaN }],
  [MESSAGE, { business: false, shared: false, lease: NaN }],
  [SESSION, { business: false, shared: false, lease: 900_000_000 }],
  [PHONE, { business: false, shared: true, lease: NaN }],
]);
/** Records as the sets of identifiers that they name, the home first; keys are 100 × kind + number. */
const SECOND = 1_000_000;
const MINUTE = 60 * SECOND;
type Naming = { at: number; keys: number[] };
const key = (kind: number, n: number): number => kind * 100 + n;

function strands(
  records: readonly Naming[],
  same: [number, number][] = [],
): { owner: (k: number, at?: number) => number | null; relations: string[] } {
  const graph = new Graph(KINDS);
  for (const { at, keys } of records) {
    for (const k of keys) graph.see(k, Math.floor(k / 100), at, at);
    for (const k of keys.slice(1)) if (!KINDS.get(Math.floor(k / 100))!.shared) graph.tie(keys[0]!, k, at, at);
  }
  graph.join(same);
  const found = ownership(graph.nodes(), graph.edges(), graph.joined());
  return {
    owner: (k, at = 0) => {
      const node = graph.node(k);
      if (node < 0) return null;
      const leased = found.leases.ownerAt(node, at);
      const founder = leased >= 0 ? leased : found.founder[node]!;
      return founder < 0 ? null : graph.keyOf(founder);
    },
    relations: found.relations.map((one) => [graph.keyOf(one.founder), graph.keyOf(one.other)].sort().join('-')).sort(),
  };
}

describe('what is told to be one', () => {
  const named = [
    { at: 1, keys: [key(CALL, 1), key(TRACE, 1)] },
    { at: 2, keys: [key(CALL, 2), key(TRACE, 1)] },
    { at: 3, keys: [key(CALL, 2), key(TRACE, 2)] },
  ];
  test('is one although two of a kind are two else, with the links that both name', () => {
    expect(strands(named).owner(key(CALL, 2))).toBe(key(CALL, 2));
    const { owner, relations } = strands(named, [[key(CALL, 2), key(CALL, 1)]]);
    for (const k of [key(CALL, 2), key(TRACE, 1), key(TRACE, 2)]) expect(owner(k)).toBe(key(CALL, 1));
    expect(relations).toEqual([]);
  });
  test('what was never seen is passed over', () => {
    expect(strands(named, [[key(CALL, 1), key(CALL, 9)]]).owner(key(CALL, 2))).toBe(key(CALL, 2));
  });
  test('records name two of some together, or one link does', () => {
    const graph = new Graph(KINDS);
    for (const { at, keys } of [...named, { at: 4, keys: [key(CALL, 3), key(CALL, 4)] }, { at: 5, keys: [key(PHONE, 1)] }]) {
      for (const k of keys) graph.see(k, Math.floor(k / 100), at, at);
      for (const k of keys.slice(1)) graph.tie(keys[0]!, k, at, at);
    }
    const calls = new Set([1, 2, 3, 4].map((n) => key(CALL, n)));
    expect(graph.together(calls, 4)).toEqual([[key(CALL, 3), key(CALL, 4)], [key(CALL, 1), key(CALL, 2)]]); // prettier-ignore
    expect(graph.together(calls, 1)).toEqual([[key(CALL, 3), key(CALL, 4)]]);
  });
});

describe('what one strand is', () => {
  test('order → trace → message → database session: all belong to the order', () => {
    const { owner } = strands([
      { at: 1, keys: [key(ORDER, 1), key(TRACE, 1)] },
      { at: 2, keys: [key(ORDER, 1), key(MESSAGE, 1)] },
      { at: 3_000_000, keys: [key(MESSAGE, 1), key(SESSION, 1)] },
      { at: 9_000_000, keys: [key(MESSAGE, 1), key(SESSION, 1)] },
    ]);
    for (const k of [key(TRACE, 1), key(MESSAGE, 1)]) expect(owner(k)).toBe(key(ORDER, 1));
    expect(owner(key(SESSION, 1), 5_000_000)).toBe(key(ORDER, 1));
    expect(owner(key(SESSION, 1), 60_000_000)).toBeNull();
  });

  test('a reused session is each order’s own only while it is used for it', () => {
    const { owner } = strands([
      { at: 1_000_000, keys: [key(ORDER, 1), key(SESSION, 1)] },
      { at: 2_000_000, keys: [key(ORDER, 1), key(SESSION, 1)] },
      { at: 2_100_000, keys: [key(ORDER, 2), key(SESSION, 1)] },
      { at: 3_000_000, keys: [key(ORDER, 2), key(SESSION, 1)] },
    ]);
    expect(owner(key(SESSION, 1), 1_500_000)).toBe(key(ORDER, 1));
    expect(owner(key(SESSION, 1), 2_500_000)).toBe(key(ORDER, 2));
  });

  test('a call that asks for an order is related to it, not merged', () => {
    const { owner, relations } = strands([
      { at: 1, keys: [key(ORDER, 1), key(TRACE, 1)] },
      { at: 50 * MINUTE, keys: [key(CALL, 1), key(PHONE, 1)] },
      { at: 51 * MINUTE, keys: [key(CALL, 1), key(ORDER, 1)] },
    ]);
    expect(owner(key(CALL, 1))).toBe(key(CALL, 1));
    expect(owner(key(ORDER, 1))).toBe(key(ORDER, 1));
    expect(relations).toEqual([`${key(ORDER, 1)}-${key(CALL, 1)}`]);
  });

  test('a claim about an order that is known stays itself, though one record of its link names both', () => {
    const { owner, relations } = strands([
      { at: 1, keys: [key(ORDER, 5), key(TRACE, 1)] },
      { at: 7 * MINUTE, keys: [key(CALL, 1), key(TRACE, 2)] },
      { at: 7 * MINUTE + 1, keys: [key(TRACE, 2), key(CALL, 1)] },
      { at: 7 * MINUTE + 1, keys: [key(TRACE, 2), key(ORDER, 5)] },
    ]);
    expect(owner(key(TRACE, 2))).toBe(key(CALL, 1));
    expect(owner(key(ORDER, 5))).toBe(key(ORDER, 5));
    expect(relations).toEqual([`${key(ORDER, 5)}-${key(CALL, 1)}`]);
  });

  test('a number that is born while a strand is under way belongs to it, though a clock that is off names it a little early', () => {
    const { owner } = strands([
      { at: 100 * SECOND, keys: [key(ORDER, 1), key(TRACE, 1)] },
      { at: 98 * SECOND, keys: [key(CALL, 7)] },
      { at: 99 * SECOND, keys: [key(CALL, 7), key(MESSAGE, 3)] },
      { at: 101 * SECOND, keys: [key(TRACE, 1), key(MESSAGE, 3)] },
    ]);
    for (const one of [key(CALL, 7), key(MESSAGE, 3), key(TRACE, 1)]) expect(owner(one)).toBe(owner(key(ORDER, 1)));
  });

  test('what never got a number is a strand of its own, named by the link that came first; what many share founds none', () => {
    const { owner } = strands([
      { at: 5, keys: [key(TRACE, 1), key(MESSAGE, 1)] },
      { at: 2, keys: [key(TRACE, 1), key(PHONE, 1)] },
      { at: 9, keys: [key(MESSAGE, 2)] },
    ]);
    expect([owner(key(TRACE, 1)), owner(key(MESSAGE, 1)), owner(key(MESSAGE, 2)), owner(key(PHONE, 1))]).toEqual([key(TRACE, 1), key(TRACE, 1), key(MESSAGE, 2), null]); // prettier-ignore
  });

  test('an identifier that is born in a strand belongs to it', () => {
    const { owner } = strands([
      { at: 1, keys: [key(ORDER, 1), key(TRACE, 1)] },
      { at: 9, keys: [key(ORDER, 1), key(CALL, 7)] },
      { at: 12, keys: [key(CALL, 7), key(MESSAGE, 3)] },
    ]);
    expect(owner(key(CALL, 7))).toBe(key(ORDER, 1));
    expect(owner(key(MESSAGE, 3))).toBe(key(ORDER, 1));
  });

  test('a trace that lists several orders belongs to none of them, unless it gave birth to exactly one', () => {
    const born = [
      { at: 1, keys: [key(ORDER, 1), key(TRACE, 1)] },
      { at: 2, keys: [key(ORDER, 2), key(TRACE, 2)] },
    ];
    // it has no number then, and is named by itself
    expect(
      strands([...born, { at: 5, keys: [key(ORDER, 1), key(TRACE, 9)] }, { at: 6, keys: [key(ORDER, 2), key(TRACE, 9)] }]).owner(key(TRACE, 9)),
    ).toBe(key(TRACE, 9));
    expect(
      strands([...born, { at: 5, keys: [key(ORDER, 3), key(TRACE, 9)] }, { at: 6, keys: [key(ORDER, 2), key(TRACE, 9)] }]).owner(key(TRACE, 9)),
    ).toBe(key(ORDER, 3));
  });

  const naming = fc
    .record({
      at: fc.integer({ min: 0, max: 40 }),
      keys: fc.uniqueArray(
        fc.tuple(fc.constantFrom(ORDER, CALL, TRACE, MESSAGE, SESSION, PHONE), fc.integer({ min: 0, max: 3 })).map(([kind, n]) => key(kind, n)),
        { minLength: 1, maxLength: 4 },
      ),
    })
    .map(({ at, keys }) => ({
      at: at * 1_000_000,
      keys: [...keys].sort((a, b) => Number(KINDS.get(Math.floor(a / 100))!.shared) - Number(KINDS.get(Math.floor(b / 100))!.shared)),
    }))
    .filter(({ keys }) => !KINDS.get(Math.floor(keys[0]! / 100))!.shared);

  test('the strands are the same in whatever order the records come', () => {
    fc.assert(
      fc.property(fc.array(naming, { maxLength: 25 }), fc.integer(), (records, seed) => {
        const shuffled = records
          .map((record, index) => ({ record, place: Math.sin(seed + index * 97) }))
          .sort((a, b) => a.place - b.place)
          .map((one) => one.record);
        const one = strands(records);
        const other = strands(shuffled);
        expect(other.relations).toEqual(one.relations);
        for (const { keys, at } of records) for (const k of keys) expect(other.owner(k, at)).toBe(one.owner(k, at));
      }),
      { numRuns: 300 },
    );
  });

  test('a shared identifier never ties, and two orders never share a strand', () => {
    fc.assert(
      fc.property(fc.array(naming, { maxLength: 25 }), (records) => {
        const { owner } = strands(records);
        for (let n = 0; n < 4; n++) expect(owner(key(PHONE, n))).toBeNull();
        const orders = [0, 1, 2, 3].map((n) => owner(key(ORDER, n))).filter((k) => k !== null);
        expect(new Set(orders).size).toBe(orders.length);
      }),
      { numRuns: 300 },
    );
  });
});

describe('the chain of evidence', () => {
  test('leads from the founding identifier by the earliest records', () => {
    expect(
      chains(
        1,
        [1, 2, 3, 9],
        [
          { a: 1, b: 2, first: 10, record: 'r10' },
          { a: 2, b: 3, first: 20, record: 'r20' },
          { a: 1, b: 3, first: 30, record: 'r30' },
        ],
      ),
    ).toEqual([
      { key: 1, from: null, record: null },
      { key: 2, from: 1, record: 'r10' },
      { key: 3, from: 1, record: 'r30' },
      { key: 9, from: null, record: null },
    ]);
  });
});

describe('the home of a record', () => {
  const kind = (name: string, role: IdentifierKind['role'], leaseMs: number | null = null): IdentifierKind => ({
    name,
    label: name,
    role,
    patterns: [],
    fields: [name],
    normal: KEEP,
    scope: 'global',
    leaseMs,
  });
  const kinds = [kind('call', 'business'), kind('order', 'business'), kind('trace', 'link'), kind('session', 'link', 1000), kind('phone', 'shared')];
  const mention = (index: number) => ({ kind: index, scope: '', value: String(index), key: index });
  test('is the kind that this source names most, business before links, lasting before leased, shared never', () => {
    const chooser = new HomeChooser(kinds);
    expect(chooser.choose([mention(4)])).toBe(-1);
    expect(chooser.choose([mention(0)])).toBe(0);
    expect(chooser.choose([mention(1), mention(0)])).toBe(1);
    expect(chooser.choose([mention(3), mention(2)])).toBe(1);
    expect(new HomeChooser(kinds, chooser.state()).choose([mention(1), mention(0)])).toBe(1);
  });

  test('a kind that never stands alone in a source is quoted there, however often it is named', () => {
    const chooser = new HomeChooser(kinds);
    for (let i = 0; i < 3; i++) chooser.choose([mention(1), mention(0)]);
    chooser.choose([mention(0)]);
    for (let i = 0; i < 3; i++) chooser.choose([mention(1), mention(1), mention(1), mention(0)]);
    expect(chooser.choose([mention(1), mention(0), mention(2)])).toBe(1);
  });

  test('where several kinds act, the one lasting link tells whose a record is', () => {
    const chooser = new HomeChooser(kinds);
    for (const index of [1, 1, 1, 0]) chooser.choose([mention(index)]);
    expect(chooser.choose([mention(1), mention(0), mention(2)])).toBe(2);
    expect(new HomeChooser(kinds, chooser.state()).choose([mention(1), mention(0), mention(2)])).toBe(2);
    expect(chooser.choose([mention(1), mention(0), mention(2), { ...mention(2), key: 9 }])).toBe(0);
    expect(chooser.choose([mention(1), mention(0), mention(3)])).toBe(0);
    expect(chooser.choose([mention(1), mention(2)])).toBe(0);
  });
});
