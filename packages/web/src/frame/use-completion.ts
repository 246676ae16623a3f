import type { FieldValues, Page } from '@fadenweg/api';
import { completed, completionAt, LEVELS, OPERATORS, OWN_FIELDS, printValue, type CompletionPlace } from '@fadenweg/core';
import { ref, shallowRef, watch, type Ref } from 'vue';
import { api, query } from '../api/client.ts';

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
      const found = api.get<Page<string>>(`/records/fields${query(scope())}`).then((page) => page.items);
      found.catch(() => (fields = null));
      fields = { of, names: found };
    }
    return fields.names;
  }
  async function valuesOf(field: string, signal: AbortSignal): Promise<Choice[]> {
    if (field === 'level') return LEVELS.slice(1).map((level) => ({ text: level, count: null }));
    if (field === 'time' || field === 'message') return [];
    const page = await api.get<Page<FieldValues>>(`/records/values${query({ ...scope(), fields: field, limit: 200 })}`, signal);
    return (page.items[0]?.values ?? []).map(({ value, count }) => ({ text: printValue(value), count }));
  }
  const plain = (words: readonly string[]): Choice[] => words.map((word) => ({ text: word, count: null }));

  async function look(): Promise<void> {
    running?.abort();
    const mine = new AbortController();
    running = mine;
    const found = caret.value === null ? null : completionAt(text.value, caret.value);
    try {
      const all =
        found === null
          ? []
          : found.expected.what === 'joint'
            ? plain(found.expected.words)
            : found.expected.what === 'operator'
              ? plain(OPERATORS)
              : found.expected.what === 'field'
                ? plain(await names().catch(() => [...OWN_FIELDS]))
                : await valuesOf(found.expected.field, mine.signal);
      if (mine.signal.aborted) return;
      const typed = found?.typed.toLowerCase() ?? '';
      const bare = (one: Choice): string => one.text.replace(/^'/, '').toLowerCase();
      const begins = all.filter((one) => bare(one).startsWith(typed) && bare(one) !== typed);
      const holds = typed === '' ? [] : all.filter((one) => bare(one).includes(typed, 1) && !begins.includes(one));
      place.value = found;
      choices.value = [...begins, ...holds].slice(0, MOST);
      at.value = -1;
    } catch {
      if (!mine.signal.aborted) choices.value = []; // without proposals one types on; the search itself tells what is wrong
    }
  }
  watch([text, caret], () => {
    window.clearTimeout(timer);
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
    choices.value = [];
    at.value = -1;
  }
  return { choices, at, take, close };
}
