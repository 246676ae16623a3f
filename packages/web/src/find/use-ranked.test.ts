import { afterEach, expect, test } from '@jest/globals';
import { createPinia, setActivePinia } from 'pinia';
import { effectScope, shallowRef, type EffectScope } from 'vue';
import { answers, settled } from '../api/testing/answers.ts';
import type { Asked } from './use-find.ts';
import { MOST_RANKED, useRanked, type RankedBy } from './use-ranked.ts';

setActivePinia(createPinia());
const ASKED: Asked = { q: 'lock', order: 'oldest', quiet: 'hide' };
let scope: EffectScope;
afterEach(() => scope?.stop());
const items = (...ranks: number[]): object[] => ranks.map((rank) => ({ rank, record: { id: `${rank}-1` } }));
const begin = (by: RankedBy | null) => {
  const asked = shallowRef<Asked | null>(ASKED);
  const ranked = shallowRef(by);
  scope = effectScope();
  return { ...scope.run(() => useRanked(asked, ranked))!, by: ranked };
};
const USUAL = { items: [], total: 0, hidden: 0, next: null, searched: 1 };

test('parts are merged into one order, and the next part is asked for nothing that comes behind what is kept', async () => {
  const many = Array.from({ length: MOST_RANKED }, (_, i) => 1000 + i);
  const calls = answers(USUAL, { items: items(...many), total: 700, next: '7-0', searched: 0.5 }, { items: items(5000, 1200.5), total: 50 });
  const ranked = begin({ field: 'took', direction: 'down' });
  await settled();
  const ids = ranked.store.some(MOST_RANKED).map((one) => one.id);
  expect(ids.slice(0, 3)).toEqual(['5000-1', '1499-1', '1498-1']);
  expect(ids).toContain('1200.5-1');
  expect([ids.length, ranked.total.value, ranked.ended.value]).toEqual([MOST_RANKED, 750, true]);
  expect(calls.map((url) => [url.searchParams.get('beyond'), url.searchParams.get('after'), url.searchParams.has('order')])).toEqual([[null, null, false], ['1000', '7-0', false]]); // prettier-ignore
});

test('nothing is asked without a column; another direction begins anew; a refusal is told', async () => {
  const calls = answers(USUAL, { items: items(3, 2), total: 2 }, { items: items(2, 3), total: 2 }, { status: 400, title: 'No' });
  const ranked = begin(null);
  await settled();
  expect(calls).toEqual([]);
  ranked.by.value = { field: 'took', direction: 'down' };
  await settled();
  expect(ranked.store.some(9).map((one) => one.id)).toEqual(['3-1', '2-1']);
  ranked.by.value = { field: 'took', direction: 'up' };
  await settled();
  expect(ranked.store.some(9).map((one) => one.id)).toEqual(['2-1', '3-1']);
  await ranked.again();
  expect(ranked.problem.value?.title).toBe('No');
});
