import type { LogRecord, TimelinePart } from '@fadenweg/api';
import { parseSearch, printSearch, type Search } from '@fadenweg/core/search';
import { computed, ref, watch, type Ref } from 'vue';
import { api } from '../api/client.ts';
import { wordsOf } from '../api/problem-of.ts';
import type { Asked } from './use-find.ts';

/** The search that a record proposes: all that look like it, from where it comes. */
export function likeRecord({ attributes: { path }, component, shape }: LogRecord): string {
  const place = { from: 0, to: 0 };
  const equal = (name: string, text: string) => ({ type: 'compare', field: { name, ...place }, op: '=', value: { text, quoted: false, ...place } }) as const; // prettier-ignore
  const same = typeof path === 'string' && !/\d/.test(path) ? equal('path', path) : equal('shape', shape);
  return printSearch({ words: [], condition: { type: 'and', parts: [equal('component', component), same] } });
}

/** A search that is tried before it becomes a rule: of how many records that are asked for it finds how many, counted part after part. */
export function useTrial(draft: Ref<string>, question: Ref<Asked>) {
  const parsed = computed(() => parseSearch(draft.value));
  const tried = ref<{ hits: number; total: number; searched: number } | null>(null);
  const failed = ref('');
  let trying: AbortController | null = null;
  async function attempt(): Promise<void> {
    trying?.abort();
    tried.value = null;
    failed.value = '';
    const { condition, words } = parsed.value.search ?? { condition: null, words: [] };
    if (!condition && words.length === 0) return;
    const { order: _order, from, to, ...now } = question.value;
    if (!from || !to) {
      failed.value = 'It is tried on records of a window: choose one above.';
      return;
    }
    const mine = new AbortController();
    trying = mine;
    const here = parseSearch(now.q).search;
    const both = here ? { words: [...here.words, ...words], condition: joined(here.condition, condition) } : { words, condition };
    const state = { hits: 0, total: 0, searched: 0 };
    const sum = async (q: string, add: (part: TimelinePart) => void): Promise<void> => {
      for (let after: string | null = ''; after !== null;) {
        const part: TimelinePart = await api.get('/records/tally', { query: { ...now, from, to, q, quiet: 'show', slotMs: 86_400_000, after } }, mine.signal); // prettier-ignore
        add(part);
        after = part.next;
        state.searched = part.searched;
        if (!mine.signal.aborted) tried.value = { ...state };
      }
    };
    try {
      await sum(printSearch(both), (part) => (state.hits += part.total));
      await sum(now.q, (part) => (state.total += part.total));
      if (!mine.signal.aborted) tried.value = { ...state, searched: 1 };
    } catch (error) {
      if (!mine.signal.aborted) failed.value = wordsOf(error);
    }
  }
  watch(draft, () => {
    trying?.abort();
    tried.value = null;
  });
  return { parsed, tried, failed, attempt };
}
const joined = (a: Search['condition'], b: Search['condition']): Search['condition'] => (a && b ? { type: 'and', parts: [a, b] } : (a ?? b));

/** A name for what people call so, that none of the others has: letters, digits, hyphens. */
export function nameFor(label: string, taken: readonly { name: string }[]): string {
  const base = label.toLowerCase().replace(/[^a-z0-9]+/g, '-').replace(/^-+|-+$/g, '').slice(0, 34) || 'rule'; // prettier-ignore
  let name = base;
  for (let i = 2; taken.some((one) => one.name === name); i++) name = `${base}-${i}`;
  return name;
}
