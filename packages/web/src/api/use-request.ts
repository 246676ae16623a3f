import type { Problem } from '@fadenweg/api';
import { onScopeDispose, ref, shallowRef, watch, type Ref, type WatchSource } from 'vue';
import { problemOf } from './problem-of.ts';

/** The state of one question to the server that is asked anew whenever what it depends on changes; an older answer never overtakes a newer. */
export function useRequest<T>(depends: WatchSource | WatchSource[], ask: (signal: AbortSignal) => Promise<T>) {
  const answer = shallowRef<T | null>(null) as Ref<T | null>;
  const problem = ref<Problem | null>(null);
  const loading = ref(false);
  let current: AbortController | null = null;
  async function again(): Promise<void> {
    current?.abort();
    const mine = new AbortController();
    current = mine;
    loading.value = true;
    try {
      const got = await ask(mine.signal);
      if (mine.signal.aborted) return;
      answer.value = got;
      problem.value = null;
    } catch (error) {
      if (mine.signal.aborted) return;
      problem.value = problemOf(error);
    } finally {
      if (current === mine) loading.value = false;
    }
  }
  watch(depends, () => void again(), { immediate: true });
  onScopeDispose(() => current?.abort());
  return { answer, problem, loading, again };
}
