import type { FoundPage, LogRecord, Problem } from '@fadenweg/api';
import { onScopeDispose, ref, watch, type Ref } from 'vue';
import { api } from '../api/client.ts';
import { problemOf } from '../api/problem-of.ts';
import { PageStore } from './page-store.ts';

/** What is searched for, in the words of the API. */
export interface Asked {
  q: string;
  from?: string;
  to?: string;
  environment?: string;
  sources?: string;
  withoutSources?: string;
  quiet: 'hide' | 'show';
  order: 'oldest' | 'latest';
}
/** One of a window with both ends, as sums by time need it. */
export type BoundedAsked = Asked & { from: string; to: string };
const PAGE = 200;
/** Lines kept in memory on both sides of those that are looked at. */
const MARGIN = 4000;
/** Most hidden records that are shown at one place at once. */
export const MOST_SHOWN = 500;

/**
 * Records that a search finds: the next are fetched as the end comes into sight; a call that found too few goes on by itself until it is stopped.
 * `version` changes with every change of `store`, which is no reactive thing itself.
 */
export function useFind(asked: Ref<Asked | null>) {
  const store = new PageStore();
  const version = ref(0);
  const problem = ref<Problem | null>(null);
  const searching = ref(false);
  const searched = ref(0);
  const ended = ref(false);
  /** The lines are still those of the question before. */
  const stale = ref(false);
  let next: string | null = null;
  let running: AbortController | null = null;
  let restoring = false;

  async function go(begin: boolean): Promise<void> {
    if (!asked.value || (!begin && (searching.value || ended.value))) return;
    running?.abort();
    const mine = new AbortController();
    running = mine;
    if (begin) {
      next = null;
      ended.value = false;
      searched.value = 0;
      stale.value = true;
    }
    searching.value = true;
    const wanted = (begin ? 0 : store.length) + PAGE;
    let fresh = begin;
    try {
      do {
        const after: string | null = next;
        const page: FoundPage = await api.get('/records', { query: { ...asked.value, after, limit: PAGE } }, mine.signal);
        if (mine.signal.aborted) return;
        if (fresh) store.clear();
        fresh = false;
        stale.value = false;
        next = page.next;
        store.append({ after, ...page }, next === null);
        version.value++;
        searched.value = page.searched;
        problem.value = null;
        ended.value = next === null;
      } while (!ended.value && store.length < wanted);
    } catch (error) {
      if (mine.signal.aborted) return;
      if (fresh) {
        store.clear();
        version.value++;
      }
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

  /** Tells which lines are looked at: pages far away are let go, and those in sight that were are fetched again. */
  async function look(from: number, to: number): Promise<void> {
    store.forget(from, to, MARGIN);
    if (restoring || !asked.value) return;
    restoring = true;
    const before = JSON.stringify(asked.value);
    try {
      for (let gone = store.missing(from, to); gone; gone = store.missing(from, to)) {
        const whole = { after: gone.after, items: [] as LogRecord[], hidden: [] as number[], hiddenAfter: 0 };
        for (let after: string | null = gone.after; whole.items.length < gone.records;) {
          const page: FoundPage = await api.get('/records', { query: { ...asked.value, after, limit: gone.records - whole.items.length } });
          if (JSON.stringify(asked.value) !== before) return;
          page.items.forEach((one, i) => {
            whole.items.push(one);
            whole.hidden.push(page.hidden[i]! + (i === 0 ? whole.hiddenAfter : 0));
          });
          whole.hiddenAfter = page.hiddenAfter + (page.items.length > 0 ? 0 : whole.hiddenAfter);
          after = page.next;
          if (after === null) break;
        }
        store.restore(gone.page, whole);
        version.value++;
      }
    } catch (error) {
      problem.value = problemOf(error, 'The search broke off');
    } finally {
      restoring = false;
    }
  }

  /** Shows what quiet rules hide at a line. */
  async function show(index: number): Promise<void> {
    const line = store.at(index);
    if (!asked.value || line?.type !== 'hidden') return;
    const wanted = Math.min(line.count, MOST_SHOWN);
    const end = store.at(index + 1);
    const shown: LogRecord[] = [];
    try {
      for (let after: string | null = line.after; after !== null && shown.length < wanted;) {
        const page: FoundPage = await api.get('/records', { query: { ...asked.value, quiet: 'show', after, limit: wanted - shown.length } });
        shown.push(...page.items);
        after = page.next;
      }
    } catch (error) {
      problem.value = problemOf(error, 'The search broke off');
      return;
    }
    if (store.at(index) !== line) return;
    const stop = end?.type === 'record' ? shown.findIndex((one) => one.id === end.record.id) : -1;
    const lines = (stop < 0 ? shown : shown.slice(0, stop)).map((record) => ({ type: 'record' as const, record, quiet: true }));
    const left = line.count - lines.length;
    store.replace(index, left > 0 && lines.length > 0 ? [...lines, { type: 'hidden', count: left, after: lines.at(-1)!.record.id }] : lines);
    version.value++;
  }

  watch(
    asked,
    (now, before) => {
      if (JSON.stringify(now) !== JSON.stringify(before)) void go(true);
    },
    { immediate: true },
  );
  onScopeDispose(stop);
  return { store, version, stale, problem, searching, searched, ended, more: () => go(false), again: () => go(true), stop, look, show };
}
