import type { FoundPage, LogRecord, Problem } from '@fadenweg/api';
import { onScopeDispose, ref, shallowRef, watch, type Ref } from 'vue';
import { api, ApiError, query } from '../api/client.ts';

export interface Asked {
  q: string;
  from?: string;
  to?: string;
  environment?: string;
  order: 'oldest' | 'latest';
}
const PAGE = 200;

/** Records that a search finds: the next are fetched as the end comes into sight; a call that found too few goes on by itself until it is stopped. */
export function useFind(asked: Ref<Asked | null>) {
  const items = shallowRef<LogRecord[]>([]);
  const problem = ref<Problem | null>(null);
  const searching = ref(false);
  const searched = ref(0);
  const ended = ref(false);
  let next: string | null = null;
  let running: AbortController | null = null;

  async function go(begin: boolean): Promise<void> {
    if (!asked.value || (!begin && (searching.value || ended.value))) return;
    running?.abort();
    const mine = new AbortController();
    running = mine;
    if (begin) {
      next = null;
      ended.value = false;
      searched.value = 0;
    }
    searching.value = true;
    const wanted = (begin ? 0 : items.value.length) + PAGE;
    let fresh = begin;
    try {
      do {
        const page: FoundPage = await api.get<FoundPage>(`/records${query({ ...asked.value, after: next, limit: PAGE })}`, mine.signal);
        if (mine.signal.aborted) return;
        items.value = fresh ? page.items : [...items.value, ...page.items];
        fresh = false;
        next = page.next;
        searched.value = page.searched;
        problem.value = null;
        ended.value = next === null;
      } while (!ended.value && items.value.length < wanted);
    } catch (error) {
      if (mine.signal.aborted) return;
      if (fresh) items.value = [];
      problem.value =
        error instanceof ApiError ? error.problem : { type: '', title: 'The search broke off', status: 0, detail: (error as Error).message };
    } finally {
      if (running === mine) searching.value = false;
    }
  }
  function stop(): void {
    running?.abort();
    running = null;
    searching.value = false;
  }
  watch(
    asked,
    (now, before) => {
      if (JSON.stringify(now) !== JSON.stringify(before)) void go(true);
    },
    { immediate: true },
  );
  onScopeDispose(stop);
  return { items, problem, searching, searched, ended, more: () => go(false), again: () => go(true), stop };
}
