import { afterEach, beforeEach, expect, jest, test } from '@jest/globals';
import { createPinia, setActivePinia } from 'pinia';
import { effectScope, nextTick, ref, type EffectScope } from 'vue';
import { useCompletion } from './use-completion.ts';

setActivePinia(createPinia());
let scope: EffectScope;
const calls: URL[] = [];
beforeEach(() => {
  jest.useFakeTimers();
  calls.length = 0;
  globalThis.fetch = jest.fn(async (input: unknown) => {
    const url = new URL(String(input), 'http://page.example');
    calls.push(url);
    const answer = url.pathname.endsWith('/fields')
      ? { items: ['component', 'level', 'order.number', 'shop'] }
      : { items: [{ values: [{ value: 'blank-store', count: 9 }, { value: 'it is', count: 2 }] }] }; // prettier-ignore
    return { status: 200, ok: true, text: async () => JSON.stringify(answer) } as Response;
  }) as typeof fetch;
});
afterEach(() => {
  scope.stop();
  jest.useRealTimers();
});
async function typed(text: ReturnType<typeof ref<string>>, caret: ReturnType<typeof ref<number | null>>, next: string): Promise<void> {
  text.value = next;
  caret.value = next.length;
  await nextTick();
  jest.advanceTimersByTime(200);
  for (let i = 0; i < 40; i++) await Promise.resolve();
}
function begin() {
  const text = ref('');
  const caret = ref<number | null>(null);
  scope = effectScope();
  const completion = scope.run(() => useCompletion(text, caret, () => ({ from: '1' })))!;
  return { text, caret, completion, words: () => completion.choices.value.map((one) => one.text) };
}

test('fields, operators, values and joints, as the search grows', async () => {
  const { text, caret, completion, words } = begin();
  await typed(text, caret, 'lock ');
  expect(words()).toEqual(['where']);
  await typed(text, caret, 'lock where ');
  expect(words()).toEqual(['component', 'level', 'order.number', 'shop']);
  await typed(text, caret, 'lock where num');
  expect(words()).toEqual(['order.number']);
  await typed(text, caret, 'lock where component ');
  expect(words().slice(0, 3)).toEqual(['=', '<>', '<']);
  await typed(text, caret, 'lock where component = ');
  expect(completion.choices.value).toEqual([{ text: 'blank-store', count: 9 }, { text: "'it is'", count: 2 }]); // prettier-ignore
  expect(completion.take(1)).toEqual({ text: "lock where component = 'it is' ", caret: 31 });
  await typed(text, caret, 'lock where level = warn');
  expect(words()).toEqual(['warning']);
  await typed(text, caret, 'lock where level = warning ');
  expect(words()).toEqual(['and', 'or']);
});

test('what is offered is narrowed at once, and fields are asked for once', async () => {
  const { text, caret, words } = begin();
  await typed(text, caret, 'where ');
  text.value = 'where l';
  caret.value = 7;
  await nextTick();
  expect(words()).toEqual(['level']);
  text.value = 'where level ';
  caret.value = 12;
  await nextTick();
  expect(words()).toEqual([]);
  await typed(text, caret, 'where level = error or ');
  expect(calls.filter((url) => url.pathname.endsWith('/fields'))).toHaveLength(1);
});

test('among free words, and without a caret, nothing is offered', async () => {
  const { text, caret, completion, words } = begin();
  await typed(text, caret, 'loc');
  expect(words()).toEqual([]);
  expect(completion.take(0)).toBeNull();
  await typed(text, caret, 'where ');
  completion.close();
  expect(words()).toEqual([]);
});
