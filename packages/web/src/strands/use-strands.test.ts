import { afterEach, describe, expect, test } from '@jest/globals';
import { createPinia, setActivePinia } from 'pinia';
import { effectScope, nextTick, shallowRef, type EffectScope } from 'vue';
import { answers, settled } from '../api/testing/answers.ts';
import { useStrands, type StrandsQuery } from './use-strands.ts';

setActivePinia(createPinia());
let scope: EffectScope;
afterEach(() => scope?.stop());
const ASKED: StrandsQuery = { environment: 'production', outcome: 'failed', sort: 'latest' };
const items = (...ids: string[]): object[] => ids.map((id) => ({ id }));
function strands(...list: object[]) {
  const calls = answers({ items: [], next: null }, ...list);
  const asked = shallowRef<StrandsQuery | null>(ASKED);
  scope = effectScope();
  const used = scope.run(() => useStrands(asked))!;
  return { calls, asked, used, ids: () => used.items.value.map((one) => one.id) };
}

describe('the list of strands', () => {
  test('is asked for page by page, its counts once, over all flows and outcomes', async () => {
    const { calls, used, ids } = strands(
      { items: items('a', 'b'), next: '2' },
      { items: [{ flow: null, outcome: 'failed', count: 7 }] },
      { items: items('c') },
    );
    await settled();
    expect([ids(), used.hasMore(), used.first.value, used.loading.value]).toEqual([['a', 'b'], true, false, false]);
    expect(calls[1]!.pathname).toBe('/api/strands/counts');
    expect(calls[1]!.searchParams.get('outcome')).toBeNull();
    expect(used.counts.value).toEqual([{ flow: null, outcome: 'failed', count: 7 }]);
    await used.more();
    expect([ids(), used.hasMore(), calls[2]!.searchParams.get('after')]).toEqual([['a', 'b', 'c'], false, '2']);
    await used.more();
    expect(calls).toHaveLength(3);
  });

  test('begins anew with another question; what comes late of the old one is not shown', async () => {
    const { asked, ids, calls } = strands({ items: items('old') }, { items: items('new') });
    asked.value = { ...ASKED, outcome: 'slow' };
    await nextTick();
    await settled();
    expect(ids()).toEqual(['new']);
    expect(calls.filter(({ pathname }) => pathname === '/api/strands').map((url) => url.searchParams.get('outcome'))).toEqual(['failed', 'slow']);
  });

  test('that is refused tells why, and keeps what it showed', async () => {
    const { used, ids } = strands({ items: items('a'), next: '2' }, {}, { status: 400, title: 'Not so', detail: 'no such flow' });
    await settled();
    await used.more();
    expect([ids(), used.problem.value?.detail]).toEqual([['a'], 'no such flow']);
    await used.again();
    expect(used.problem.value).toBeNull();
  });
});
