import { afterEach, describe, expect, jest, test } from '@jest/globals';
import { createPinia, setActivePinia } from 'pinia';
import { effectScope, nextTick, shallowRef, type EffectScope, type ShallowRef } from 'vue';
import { useFind, type Asked } from './use-find.ts';
import { useTally } from './use-tally.ts';

setActivePinia(createPinia());
const ASKED: Asked = { q: 'lock', order: 'latest', from: '2026-11-24T08:00:00.000Z', to: '2026-11-24T10:00:00.000Z' };
const calls: URL[] = [];
let scope: EffectScope;

/** Answers each call with the next of these, in order. */
function answers(...list: object[]): void {
  calls.length = 0;
  globalThis.fetch = jest.fn(async (input: unknown, init?: RequestInit) => {
    calls.push(new URL(String(input), 'http://page.example'));
    await Promise.resolve();
    if (init?.signal?.aborted) throw new DOMException('aborted', 'AbortError');
    const answer = list.shift() ?? { items: [], next: null, searched: 1, slots: [], total: 0 };
    return { status: 'status' in answer ? 400 : 200, ok: !('status' in answer), text: async () => JSON.stringify(answer) } as Response;
  }) as typeof fetch;
}
async function settled(): Promise<void> {
  for (let i = 0; i < 60; i++) await Promise.resolve();
  await nextTick();
}
const items = (from: number, count: number): object[] => Array.from({ length: count }, (_, i) => ({ id: `${from + i}-1` }));
const run = <T>(asked: ShallowRef<Asked | null>, use: (asked: ShallowRef<Asked | null>) => T): T => {
  scope = effectScope();
  return scope.run(() => use(asked))!;
};
afterEach(() => scope?.stop());

describe('what a search finds', () => {
  test('a call that found too few goes on by itself; at the end it stops', async () => {
    answers(
      { items: items(0, 3), next: '5-0', searched: 0.4 },
      { items: [], next: '2-0', searched: 0.8 },
      { items: items(3, 2), next: null, searched: 1 },
    );
    const find = run(shallowRef<Asked | null>(ASKED), useFind);
    await settled();
    expect(find.items.value.map((one) => one.id)).toEqual(['0-1', '1-1', '2-1', '3-1', '4-1']);
    expect([find.ended.value, find.searching.value, find.searched.value]).toEqual([true, false, 1]);
    expect(calls.map((url) => url.searchParams.get('after'))).toEqual([null, '5-0', '2-0']);
    await find.more();
    expect(calls).toHaveLength(3);
  });

  test('a page is enough until the end comes into sight', async () => {
    answers({ items: items(0, 200), next: '9-9', searched: 0.2 }, { items: items(200, 200), next: '8-8', searched: 0.3 });
    const find = run(shallowRef<Asked | null>(ASKED), useFind);
    await settled();
    expect([find.items.value.length, calls.length]).toEqual([200, 1]);
    await find.more();
    expect([find.items.value.length, calls[1]!.searchParams.get('after')]).toEqual([400, '9-9']);
  });

  test('a new question begins anew, and an older answer never comes behind it', async () => {
    answers({ items: items(0, 1), next: null, searched: 1 }, { items: items(7, 1), next: null, searched: 1 });
    const asked = shallowRef<Asked | null>(ASKED);
    const find = run(asked, useFind);
    asked.value = { ...ASKED, q: 'other' };
    await nextTick();
    await settled();
    expect(calls.at(-1)!.searchParams.get('q')).toBe('other');
    expect(find.items.value).toHaveLength(1);
    expect(find.ended.value).toBe(true);
  });

  test('a mistake is shown, and nothing old stands below it', async () => {
    answers({ status: 400, title: 'The search is not understood', detail: 'equality is written =' });
    const find = run(shallowRef<Asked | null>(ASKED), useFind);
    await settled();
    expect(find.problem.value?.detail).toBe('equality is written =');
    expect([find.items.value, find.searching.value]).toEqual([[], false]);
  });
});

describe('the tally of a search', () => {
  test('parts add up, slot by slot and level by level', async () => {
    answers(
      { total: 3, slots: [{ slot: 119, counts: { error: 1, info: 2 } }], next: '5-0', searched: 0.5 },
      { total: 2, slots: [{ slot: 119, counts: { error: 1 } }, { slot: 0, counts: { info: 1 } }], next: null, searched: 1 }, // prettier-ignore
    );
    const { tally, searched } = run(shallowRef<Asked | null>(ASKED), useTally);
    await settled();
    expect(searched.value).toBe(1);
    expect(tally.value).toMatchObject({ total: 5, slotMs: 60_000, from: Date.parse(ASKED.from!) });
    expect(tally.value!.slots[119]).toEqual({ error: 2, info: 2 });
    expect(tally.value!.slots[0]).toEqual({ info: 1 });
    expect(tally.value!.slots).toHaveLength(120);
  });

  test('without bounds there is none', async () => {
    answers();
    const { tally } = run(shallowRef<Asked | null>({ q: '', order: 'latest' }), useTally);
    await settled();
    expect([tally.value, calls.length]).toEqual([null, 0]);
  });
});
