import { afterEach, expect, test } from '@jest/globals';
import { createPinia, setActivePinia } from 'pinia';
import { effectScope, nextTick, ref, shallowRef, type EffectScope } from 'vue';
import { answers, settled } from '../api/testing/answers.ts';
import type { Asked } from './use-find.ts';
import { useGroups } from './use-groups.ts';

setActivePinia(createPinia());
const ASKED: Asked = { q: 'lock', order: 'latest', quiet: 'hide' };
let scope: EffectScope;
afterEach(() => scope?.stop());
const USUAL = { groups: [], strands: [], total: 0, without: 0, hidden: {}, next: null, searched: 1 };
const group = (value: string, count: number, at: string): object => ({ value, count, firstAt: at, lastAt: at, record: `${at}-1` });

test('the counts of parts add up, the first time goes back, the latest record stays', async () => {
  const calls = answers(
    USUAL,
    { groups: [group('a', 2, '09'), group('b', 1, '08')], total: 4, without: 1, next: '5-0', searched: 0.5 },
    { groups: [group('a', 3, '05')], strands: [], total: 3, next: null },
  );
  scope = effectScope();
  const found = scope.run(() => useGroups(shallowRef<Asked | null>(ASKED), ref('component')))!;
  await settled();
  expect(found.groups.value).toEqual([
    { value: 'a', count: 5, firstAt: '05', lastAt: '09', record: '09-1', strand: null },
    { value: 'b', count: 1, firstAt: '08', lastAt: '08', record: '08-1', strand: null },
  ]);
  expect([found.total.value, found.without.value, found.searched.value, found.searching.value, found.cut.value]).toEqual([7, 1, 1, false, false]);
  expect(calls.map((url) => [url.searchParams.get('by'), url.searchParams.get('after'), url.searchParams.has('order')])).toEqual([['component', null, false], ['component', '5-0', false]]); // prettier-ignore
});

test('another field begins anew; more groups than are kept are said', async () => {
  answers(USUAL, { groups: [group('a', 2, '09')] }, { groups: Array.from({ length: 20_001 }, (_, i) => group(`v${i}`, 1, '01')) });
  const by = ref('component');
  scope = effectScope();
  const found = scope.run(() => useGroups(shallowRef<Asked | null>(ASKED), by))!;
  await settled();
  by.value = 'shop';
  await nextTick();
  await settled();
  expect([found.groups.value.length, found.cut.value]).toEqual([20_000, true]);
});

test('what goes wrong is told', async () => {
  answers(USUAL, { status: 400, title: 'The search is not understood', detail: 'equality is written =' });
  scope = effectScope();
  const found = scope.run(() => useGroups(shallowRef<Asked | null>(ASKED), ref('level')))!;
  await settled();
  expect([found.problem.value?.detail, found.searching.value]).toEqual(['equality is written =', false]);
});
