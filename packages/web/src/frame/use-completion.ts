import { completed, completionAt, OPERATORS, OWN_FIELDS, printValue, type CompletionPlace } from '@fadenweg/core/search';
import { WEIGHTS } from '@fadenweg/core/weights';
import { LEVELS } from '@fadenweg/core/units';
import { ref, shallowRef, watch, type Ref } from 'vue';
import { api } from '../api/client.ts';

export interface Choice {
  text: string;
  /** How often, where that is known. */
  count: number | null;
}
const MOST = 12;
/** After the last key, in milliseconds. */
const PAUSE = 120;

/** What can stand at the caret of a half-typed search: words of the language, fields and values of the data in the given scope. */
export function useCompletion(text: Ref<string>, caret: Ref<number | null>, scope: () => Record<string, string | undefined>) {
  const choices = shallowRef<Choice[]>([]);
  const place = shallowRef<CompletionPlace | null>(null);
  const at = ref(-1);
  let timer = 0;
  let running: AbortController | null = null;
  let fields: { of: string; names: Promise<string[]> } | null = null;

  function names(): Promise<string[]> {
    const of = JSON.stringify(scope());
    if (fields?.of !== of) {
      const found = api.get('/records/fields', { query: scope() }).then((page) => page.items);
      found.catch(() => (fields = null));
      fields = { of, names: found };
    }
    return fields.names;
  }
  async function valuesOf(field: string, signal: AbortSignal): Promise<Choice[]> {
    if (field === 'weight') return WEIGHTS.map((weight) => ({ text: weight, count: null }));
    if (field === 'level') return LEVELS.slice(1).map((level) => ({ text: level, count: null }));
    if (field === 'time' || field === 'message') return [];
    const page = await api.get('/records/values', { query: { ...scope(), fields: field, limit: 200 } }, signal);
    return (page.items[0]?.values ?? []).map(({ value, count }) => ({ text: printValue(value), count }));
  }
  const plain = (words: readonly string[]): Choice[] => words.map((word) => ({ text: word, count: null }));

  /** What was offered last, and for which place of a search. */
  let offered: { of: string; all: Choice[] } = { of: '', all: [] };
  const here = (): CompletionPlace | null => (caret.value === null ? null : completionAt(text.value, caret.value));

  /** Of what is offered, what fits the letters that are typed already: those that begin so first. */
  function narrow(found: CompletionPlace): void {
    const typed = found.typed.toLowerCase();
    const bare = (one: Choice): string => one.text.replace(/^'/, '').toLowerCase();
    const begins = offered.all.filter((one) => bare(one).startsWith(typed) && bare(one) !== typed);
    const holds = typed === '' ? [] : offered.all.filter((one) => bare(one).includes(typed, 1) && !begins.includes(one));
    place.value = found;
    choices.value = [...begins, ...holds].slice(0, MOST);
    at.value = -1;
  }
  async function look(): Promise<void> {
    const mine = new AbortController();
    running = mine;
    const found = here();
    if (!found) return;
    const { expected } = found;
    try {
      const all =
        expected.what === 'joint'
          ? plain(expected.words)
          : expected.what === 'operator'
            ? plain(OPERATORS)
            : expected.what === 'field'
              ? plain(await names().catch(() => [...OWN_FIELDS]))
              : await valuesOf(expected.field, mine.signal);
      if (mine.signal.aborted) return;
      offered = { of: JSON.stringify(expected), all };
      narrow(found);
    } catch {
      if (!mine.signal.aborted) choices.value = []; // without proposals one types on; the search itself tells what is wrong
    }
  }
  watch([text, caret], () => {
    running?.abort();
    window.clearTimeout(timer);
    const found = here();
    // never an offer for what is no longer typed
    if (found && JSON.stringify(found.expected) === offered.of) return narrow(found);
    choices.value = [];
    at.value = -1;
    timer = window.setTimeout(() => void look(), PAUSE);
  });
  /** The text with a choice taken, and where the caret goes. */
  function take(index: number): { text: string; caret: number } | null {
    const choice = choices.value[index];
    return choice && place.value ? completed(text.value, place.value, choice.text) : null;
  }
  function close(): void {
    running?.abort();
    window.clearTimeout(timer);
    offered = { of: '', all: [] };
    choices.value = [];
    at.value = -1;
  }
  return { choices, at, take, close };
}
