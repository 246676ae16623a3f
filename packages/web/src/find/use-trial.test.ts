import { afterEach, describe, expect, test } from '@jest/globals';
import type { LogRecord } from '@fadenweg/api';
import { parseSearch } from '@fadenweg/core/search';
import { createPinia, setActivePinia } from 'pinia';
import { effectScope, ref, type EffectScope } from 'vue';
import { answers, settled } from '../api/testing/answers.ts';
import type { Asked } from './use-find.ts';
import { likeRecord, nameFor, useTrial } from './use-trial.ts';

setActivePinia(createPinia());
let scope: EffectScope;
afterEach(() => scope?.stop());
const ASKED = { q: 'lock', order: 'latest', environment: 'production', from: 'a', to: 'b' } as unknown as Asked;
function trial(text: string, ...list: object[]) {
  const calls = answers({}, ...list);
  const draft = ref(text);
  scope = effectScope();
  return { calls, draft, used: scope.run(() => useTrial(draft, ref(ASKED)))! };
}
const part = (total: number, next: string | null = null): object => ({ total, next, searched: next === null ? 1 : 0.5, slots: [], hidden: {} });

describe('a search that is tried', () => {
  test('is counted among what is asked for, part after part, quiet or not', async () => {
    const { calls, used } = trial('where level = debug', part(3, 'x'), part(4), part(90));
    await used.attempt();
    expect(used.tried.value).toEqual({ hits: 7, total: 90, searched: 1 });
    expect(calls.map((call) => [call.searchParams.get('after') ?? '', call.searchParams.get('quiet')])).toEqual([['', 'show'], ['x', 'show'], ['', 'show']]); // prettier-ignore
    expect(parseSearch(calls[0]!.searchParams.get('q')!).search).toMatchObject({ words: [{ text: 'lock' }], condition: { type: 'compare' } });
    expect(calls[2]!.searchParams.get('q')).toBe('lock');
  });
  test('is forgotten when it is changed; nothing is asked for an empty one', async () => {
    const { calls, draft, used } = trial('where level = debug', part(3), part(9));
    await used.attempt();
    draft.value = '';
    await settled();
    expect(used.tried.value).toBeNull();
    await used.attempt();
    expect([calls.length, used.tried.value, used.failed.value]).toEqual([2, null, '']);
  });
});

test('a record proposes what looks like it, from where it comes: by its path, else by its shape', () => {
  const record = { component: 'edge', shape: "it's ‹›", attributes: {} } as unknown as LogRecord;
  const fields = (one: LogRecord): unknown => parseSearch(likeRecord(one)).search!.condition;
  expect(fields(record)).toMatchObject({
    type: 'and',
    parts: [{ field: { name: 'component' } }, { field: { name: 'shape' }, value: { text: "it's ‹›" } }],
  });
  expect(fields({ ...record, attributes: { path: '/health' } })).toMatchObject({
    parts: [{}, { field: { name: 'path' }, value: { text: '/health' } }],
  });
  expect(fields({ ...record, attributes: { path: '/orders/7' } })).toMatchObject({ parts: [{}, { field: { name: 'shape' } }] });
});
test('a name that no other has', () => {
  expect(nameFor('Lock waits!', [])).toBe('lock-waits');
  expect(nameFor('Lock waits', [{ name: 'lock-waits' }, { name: 'lock-waits-2' }])).toBe('lock-waits-3');
  expect(nameFor('‹›', [])).toBe('rule');
});
