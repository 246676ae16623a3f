import type { Problem, Strand, StrandLine } from '@fadenweg/api';
import { onScopeDispose, ref, shallowRef, watch, type Ref } from 'vue';
import { useRouter } from 'vue-router';
import { api } from '../api/client.ts';
import { problemOf } from '../api/problem-of.ts';

const PAGE = 1000;

/** A strand and its records; the records come in pages, and those that are there can be read. */
export function useStrand(id: Ref<string>) {
  const router = useRouter();
  const strand = shallowRef<Strand | null>(null);
  const lines = shallowRef<StrandLine[]>([]);
  const problem = ref<Problem | null>(null);
  const loading = ref(false);
  const whole = ref(false);
  let current: AbortController | null = null;

  async function load(): Promise<void> {
    current?.abort();
    const { signal } = (current = new AbortController());
    loading.value = true;
    whole.value = false;
    problem.value = null;
    try {
      const params = { id: id.value };
      const [answer, first] = await Promise.all([
        api.get('/strands/{id}', { params }, signal),
        api.get('/strands/{id}/records', { params, query: { limit: PAGE } }, signal),
      ]);
      if (answer.id !== id.value) await router.replace({ name: 'strand', params: { id: answer.id }, query: router.currentRoute.value.query });
      strand.value = answer;
      lines.value = first.items;
      for (let next = first.next; next !== null && lines.value.length < (answer.cut?.followed ?? answer.records);) {
        const page = await api.get('/strands/{id}/records', { params, query: { limit: PAGE, after: next } }, signal);
        lines.value = [...lines.value, ...page.items];
        next = page.next;
      }
      whole.value = true;
    } catch (error) {
      if (signal.aborted) return;
      strand.value = null;
      problem.value = problemOf(error, 'The strand could not be loaded');
    } finally {
      if (current?.signal === signal) loading.value = false;
    }
  }
  watch(id, () => void load(), { immediate: true });
  onScopeDispose(() => current?.abort());
  return { strand, lines, problem, loading, whole, again: load };
}
