import type { GroupsPart, Problem, StrandSummary } from '@fadenweg/api';
import { onScopeDispose, ref, shallowRef, watch, type Ref } from 'vue';
import { api } from '../api/client.ts';
import { problemOf } from '../api/problem-of.ts';
import type { Asked } from './use-find.ts';

export interface Group {
  value: string;
  count: number;
  firstAt: string;
  lastAt: string;
  /** Id of the latest record. */
  record: string;
  strand: StrandSummary | null;
}
/** Groups drawn at most; the counts go on. */
const MOST = 20_000;

/** What a search finds, grouped by a field or by strand; the counts grow while the server goes through the window. */
export function useGroups(asked: Ref<Asked | null>, by: Ref<string>) {
  const groups = shallowRef<Group[]>([]);
  const total = ref(0);
  const without = ref(0);
  const searched = ref(0);
  const searching = ref(false);
  const problem = ref<Problem | null>(null);
  /** There are more groups than are kept. */
  const cut = ref(false);
  let running: AbortController | null = null;

  async function go(): Promise<void> {
    running?.abort();
    if (!asked.value || by.value === '') return;
    const mine = new AbortController();
    running = mine;
    const { order: _order, ...question } = asked.value;
    const known = new Map<string, Group>();
    total.value = 0;
    without.value = 0;
    searched.value = 0;
    searching.value = true;
    groups.value = [];
    cut.value = false;
    try {
      for (let after: string | null = ''; after !== null;) {
        const part: GroupsPart = await api.get('/records/groups', { query: { ...question, by: by.value, after } }, mine.signal);
        if (mine.signal.aborted) return;
        const strands = new Map(part.strands.map((one) => [one.id, one]));
        for (const one of part.groups) {
          const own = known.get(one.value);
          if (own) {
            own.count += one.count;
            own.firstAt = one.firstAt;
          } else if (known.size >= MOST) cut.value = true;
          else known.set(one.value, { ...one, strand: strands.get(one.value) ?? null });
        }
        total.value += part.total;
        without.value += part.without;
        searched.value = part.searched;
        groups.value = [...known.values()];
        problem.value = null;
        after = part.next;
      }
    } catch (error) {
      if (mine.signal.aborted) return;
      problem.value = problemOf(error, 'The search broke off');
    } finally {
      if (running === mine) searching.value = false;
    }
  }
  function stop(): void {
    running?.abort();
    searching.value = false;
  }
  watch([asked, by], (now, before) => JSON.stringify(now) !== JSON.stringify(before) && void go(), { immediate: true });
  onScopeDispose(stop);
  return { groups, cut, total, without, searched, searching, problem, again: go, stop };
}
