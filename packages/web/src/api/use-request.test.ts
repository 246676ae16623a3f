import { beforeEach, describe, expect, test } from '@jest/globals';
import { createPinia, setActivePinia } from 'pinia';
import { effectScope, nextTick, ref } from 'vue';
import { addressOf } from './calls.ts';
import { ApiError } from './client.ts';
import { useRequest } from './use-request.ts';

beforeEach(() => {
  setActivePinia(createPinia());
});
const settled = async (): Promise<void> => {
  for (let i = 0; i < 5; i++) await nextTick();
};

describe('a question to the server', () => {
  test('an older answer never overtakes a newer one', async () => {
    const wanted = ref('first');
    const waiting = new Map<string, (answer: string) => void>();
    const scope = effectScope();
    const asked = scope.run(() => useRequest(wanted, () => new Promise<string>((resolve) => waiting.set(wanted.value, resolve))))!;
    expect(asked.loading.value).toBe(true);
    wanted.value = 'second';
    await settled();
    waiting.get('second')!('the second');
    await settled();
    waiting.get('first')!('the first');
    await settled();
    expect([asked.answer.value, asked.loading.value]).toEqual(['the second', false]);
    scope.stop();
  });

  test('a problem is kept until an answer comes', async () => {
    let broken = true;
    const scope = effectScope();
    const asked = scope.run(() =>
      useRequest([], async () => {
        if (broken) throw new ApiError({ type: '', title: 'No', status: 503, detail: 'away' });
        return 'there';
      }),
    )!;
    await settled();
    expect([asked.problem.value?.title, asked.answer.value]).toEqual(['No', null]);
    broken = false;
    await asked.again();
    expect([asked.problem.value, asked.answer.value]).toEqual([null, 'there']);
    scope.stop();
  });

  test('nothing is heard after the view has gone', async () => {
    const scope = effectScope();
    let answer: (text: string) => void = () => {};
    let aborted = false;
    const asked = scope.run(() =>
      useRequest([], (signal) => {
        signal.addEventListener('abort', () => (aborted = true));
        return new Promise<string>((resolve) => (answer = resolve));
      }),
    )!;
    scope.stop();
    answer('too late');
    await settled();
    expect([aborted, asked.answer.value]).toEqual([true, null]);
  });
});

test.each([
  [{ a: 1, b: 'x y' }, '?a=1&b=x+y'],
  [{ a: undefined, b: null, c: '' }, ''],
  [{ text: 'LX-1&x=2' }, '?text=LX-1%26x%3D2'],
])('the query of %j', (values, text) => expect(addressOf('/x', { query: values })).toBe(`/api/x${text}`));
