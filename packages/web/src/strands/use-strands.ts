import type { FlowCount, Problem, StrandSummary } from '@fadenweg/api';
import { ref, shallowRef, watch, type Ref } from 'vue';
import { api } from '../api/client.ts';
import { problemOf } from '../api/problem-of.ts';

export interface StrandsQuery {
  environment?: string;
  flow?: string;
  outcome?: string;
  component?: string;
  host?: string;
  failedIn?: string;
  finding?: string;
  fault?: string;
  mentions?: string;
  /** `true`: those alone that began in the window. */
  began?: string;
  minMs?: string;
  /** It weighs so much at least. */
  weight?: string;
  /** Those of faults that are mended or tolerated stand out of sight. */
  quiet?: string;
  identifier?: string;
  from?: string;
  to?: string;
  sort: string;
}
const PAGE = 200;

/** The list behind the strands view: pages are fetched as the end comes into sight; a changed question starts anew. */
export function useStrands(asked: Ref<StrandsQuery | null>) {
  const items = shallowRef<StrandSummary[]>([]);
  const counts = shallowRef<FlowCount[]>([]);
  /** How many stand out of sight. */
  const quiet = ref(0);
  const problem = ref<Problem | null>(null);
  const loading = ref(false);
  const first = ref(true);
  let next: string | null = null;
  let round = 0;

  async function load(begin: boolean): Promise<void> {
    if (!asked.value || (!begin && (next === null || loading.value))) return;
    const mine = begin ? ++round : round;
    loading.value = true;
    try {
      const { sort, ...filter } = asked.value;
      const page = await api.get('/strands', { query: { ...filter, sort, after: begin ? null : next, limit: PAGE } });
      if (mine !== round) return;
      items.value = begin ? page.items : [...items.value, ...page.items];
      next = page.next;
      problem.value = null;
      first.value = false;
      if (begin) {
        const { flow: _flow, outcome: _outcome, ...scope } = filter;
        const answer = await api.get('/strands/counts', { query: scope });
        if (mine === round) [counts.value, quiet.value] = [answer.items, answer.quiet];
      }
    } catch (error) {
      if (mine === round) problem.value = problemOf(error, 'The list could not be loaded');
    } finally {
      if (mine === round) loading.value = false;
    }
  }
  watch(
    asked,
    (now, before) => {
      if (JSON.stringify(now) !== JSON.stringify(before)) void load(true);
    },
    { immediate: true },
  );
  return { items, counts, quiet, problem, loading, first, more: () => load(false), again: () => load(true), hasMore: () => next !== null };
}
