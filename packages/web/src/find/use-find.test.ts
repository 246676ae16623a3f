import { afterEach, describe, expect, test } from '@jest/globals';
import { createPinia, setActivePinia } from 'pinia';
import { effectScope, nextTick, shallowRef, type EffectScope, type ShallowRef } from 'vue';
import { answers, settled } from '../api/testing/answers.ts';
import { useFind, type Asked } from './use-find.ts';
import { useTally } from './use-tally.ts';

setActivePinia(createPinia());
const ASKED: Asked = { q: 'lock', order: 'latest', quiet: 'hide', from: '2026-11-24T08:00:00.000Z', to: '2026-11-24T10:00:00.000Z' };
let calls: URL[] = [];
let scope: EffectScope;

const USUAL = { items: [], hidden: [], hiddenAfter: 0, searched: 1, slots: [], total: 0, next: null };
const answer = (...list: object[]): void => {
  calls = answers(USUAL, ...list);
};
const items = (from: number, count: number): object[] => Array.from({ length: count }, (_, i) => ({ id: `${from + i}-1` }));
const ids = (find: ReturnType<typeof useFind>): string[] => find.store.some(1000).map((one) => one.id);
const run = <T>(asked: ShallowRef<Asked | null>, use: (asked: ShallowRef<Asked | null>) => T): T => {
  scope = effectScope();
  return scope.run(() => use(asked))!;
};
afterEach(() => scope?.stop());

describe('what a search finds', () => {
  test('a call that found too few goes on by itself; at the end it stops', async () => {
    answer(
      { items: items(0, 3), next: '5-0', searched: 0.4 },
      { items: [], next: '2-0', searched: 0.8 },
      { items: items(3, 2), next: null, searched: 1 },
    );
    const find = run(shallowRef<Asked | null>(ASKED), useFind);
    await settled();
    expect(ids(find)).toEqual(['0-1', '1-1', '2-1', '3-1', '4-1']);
    expect([find.ended.value, find.searching.value, find.searched.value]).toEqual([true, false, 1]);
    expect(calls.map((url) => url.searchParams.get('after'))).toEqual([null, '5-0', '2-0']);
    await find.more();
    expect(calls).toHaveLength(3);
  });

  test('a page is enough until the end comes into sight', async () => {
    answer({ items: items(0, 200), next: '9-9', searched: 0.2 }, { items: items(200, 200), next: '8-8', searched: 0.3 });
    const find = run(shallowRef<Asked | null>(ASKED), useFind);
    await settled();
    expect([find.store.length, calls.length]).toEqual([200, 1]);
    await find.more();
    expect([find.store.length, calls[1]!.searchParams.get('after')]).toEqual([400, '9-9']);
  });

  test('a new question begins anew, and an older answer never comes behind it', async () => {
    answer({ items: items(0, 1), next: null, searched: 1 }, { items: items(7, 1), next: null, searched: 1 });
    const asked = shallowRef<Asked | null>(ASKED);
    const find = run(asked, useFind);
    asked.value = { ...ASKED, q: 'other' };
    await nextTick();
    await settled();
    expect(calls.at(-1)!.searchParams.get('q')).toBe('other');
    expect(ids(find)).toEqual(['7-1']);
    expect(find.ended.value).toBe(true);
  });

  test('a mistake is shown, and nothing old stands below it', async () => {
    answer({ status: 400, title: 'The search is not understood', detail: 'equality is written =' });
    const find = run(shallowRef<Asked | null>(ASKED), useFind);
    await settled();
    expect(find.problem.value?.detail).toBe('equality is written =');
    expect([ids(find), find.searching.value]).toEqual([[], false]);
  });
});

describe('what quiet rules hide', () => {
  test('is shown at its place by asking for it from the record before on', async () => {
    answer({ items: items(0, 2), hidden: [0, 3], next: null }, { items: items(50, 2), next: '51-1' }, { items: [...items(52, 1)], next: '52-1' });
    const find = run(shallowRef<Asked | null>(ASKED), useFind);
    await settled();
    expect(find.store.at(1)).toEqual({ type: 'hidden', count: 3, after: '0-1' });
    await find.show(1);
    expect(ids(find)).toEqual(['0-1', '50-1', '51-1', '52-1', '1-1']);
    expect(find.store.at(1)).toMatchObject({ type: 'record', quiet: true });
    expect(calls.slice(1).map((url) => [url.searchParams.get('quiet'), url.searchParams.get('after'), url.searchParams.get('limit')])).toEqual([
      ['show', '0-1', '3'],
      ['show', '51-1', '1'],
    ]);
  });
  test('a page that was let go is asked for again where it lies', async () => {
    const list = Array.from({ length: 60 }, (_, i) => ({ items: items(i * 200, 200), next: `${i * 200 + 199}-1`, searched: 0.1 }));
    answer(...list);
    const find = run(shallowRef<Asked | null>(ASKED), useFind);
    await settled();
    for (let i = 0; i < 40; i++) {
      await find.more();
      await settled();
    }
    await find.look(8000, 8020);
    expect(find.store.at(10)).toEqual({ type: 'away' });
    answer({ items: items(0, 120), next: '119-1' }, { items: items(120, 80), next: '199-1' });
    await find.look(5, 30);
    expect(find.store.at(10)).toMatchObject({ record: { id: '10-1' } });
    expect(calls.map((url) => [url.searchParams.get('after'), url.searchParams.get('limit')])).toEqual([[null, '200'], ['119-1', '80']]); // prettier-ignore
  });
});

describe('the tally of a search', () => {
  test('parts add up, slot by slot and level by level', async () => {
    answer(
      { total: 3, hidden: { debug: 1 }, slots: [{ slot: 119, counts: { error: 1, info: 2 } }], next: '5-0', searched: 0.5 },
      { total: 2, hidden: { debug: 2, beats: 4 }, slots: [{ slot: 119, counts: { error: 1 } }, { slot: 0, counts: { info: 1 } }], next: null, searched: 1 }, // prettier-ignore
    );
    const { tally, searched } = run(shallowRef<Asked | null>(ASKED), useTally);
    await settled();
    expect(searched.value).toBe(1);
    expect(tally.value).toMatchObject({ total: 5, hidden: { debug: 3, beats: 4 }, slotMs: 60_000, from: Date.parse(ASKED.from!) });
    expect(tally.value!.slots[119]).toEqual({ error: 2, info: 2 });
    expect(tally.value!.slots[0]).toEqual({ info: 1 });
    expect(tally.value!.slots).toHaveLength(120);
  });

  test('where everything is looked at, the sums by minute are there at once', async () => {
    const slots = [{ from: ASKED.from, counts: { info: 7 } }, { from: ASKED.to, counts: { error: 1 } }]; // prettier-ignore
    answer({ from: ASKED.from, to: ASKED.to, slotMs: 3_600_000, slots });
    const { tally, searched } = run(shallowRef<Asked | null>({ ...ASKED, q: '', quiet: 'show' }), useTally);
    await settled();
    expect([calls.length, calls[0]!.pathname, searched.value]).toEqual([1, '/api/records/timeline', 1]);
    expect(tally.value).toMatchObject({ total: 8, slotMs: 3_600_000, slots: [{ info: 7 }, { error: 1 }] });
  });
  test('without bounds there is none', async () => {
    answer();
    const { tally } = run(shallowRef<Asked | null>({ q: '', order: 'latest', quiet: 'hide' }), useTally);
    await settled();
    expect([tally.value, calls.length]).toEqual([null, 0]);
  });
});
