import type { LogRecord, Problem, RankedPart } from '@fadenweg/api';
import { Foremost } from '@fadenweg/core/search';
import { onScopeDispose, ref, watch, type Ref } from 'vue';
import { api } from '../api/client.ts';
import { problemOf } from '../api/problem-of.ts';
import { PageStore } from './page-store.ts';
import type { Asked } from './use-find.ts';

/** A column that the list is sorted by: `down` from the most to the least. */
export interface RankedBy {
  field: string;
  direction: 'up' | 'down';
}
/** Lines that are kept of a sorted list. */
export const MOST_RANKED = 500;

/** The foremost records by a field; they change while the server goes through the window, and stand when all of it is searched. */
export function useRanked(asked: Ref<Asked | null>, by: Ref<RankedBy | null>) {
  const store = new PageStore();
  const version = ref(0);
  const problem = ref<Problem | null>(null);
  const searching = ref(false);
  const searched = ref(0);
  const ended = ref(false);
  const stale = ref(false);
  /** Records found so far that have the field. */
  const total = ref(0);
  let running: AbortController | null = null;

  function lay(foremost: Foremost<LogRecord>): void {
    const items = foremost.items().map(({ item }) => item);
    store.clear();
    store.append({ after: null, items, hidden: items.map(() => 0), hiddenAfter: 0 }, true);
    stale.value = false;
    version.value++;
  }
  async function go(): Promise<void> {
    running?.abort();
    if (!asked.value || !by.value) return;
    const mine = new AbortController();
    running = mine;
    const { order: _order, ...question } = asked.value;
    const { field, direction } = by.value;
    const foremost = new Foremost<LogRecord>(MOST_RANKED, direction === 'down');
    total.value = 0;
    searched.value = 0;
    ended.value = false;
    searching.value = true;
    stale.value = true;
    try {
      for (let after: string | null = ''; after !== null;) {
        const last: { rank: number | string } | null = foremost.items()[MOST_RANKED - 1] ?? null;
        const beyond = last === null ? undefined : String(last.rank);
        const part: RankedPart = await api.get(
          '/records/ranked',
          { query: { ...question, by: field, direction, beyond, limit: MOST_RANKED, after } },
          mine.signal,
        );
        if (mine.signal.aborted) return;
        for (const { rank, record } of part.items) foremost.add(rank, record);
        total.value += part.total;
        searched.value = part.searched;
        problem.value = null;
        after = part.next;
        if (part.items.length > 0 || stale.value) lay(foremost);
      }
      ended.value = true;
    } catch (error) {
      if (mine.signal.aborted) return;
      problem.value = problemOf(error, 'The search broke off');
    } finally {
      if (running === mine) searching.value = false;
    }
  }
  function stop(): void {
    running?.abort();
    running = null;
    searching.value = false;
  }
  watch([asked, by], (now, before) => JSON.stringify(now) !== JSON.stringify(before) && void go(), { immediate: true });
  onScopeDispose(stop);
  return { store, version, stale, problem, searching, searched, ended, total, again: go, stop };
}
