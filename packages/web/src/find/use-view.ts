import type { ColumnSetBody } from '@fadenweg/api';
import { parseSearch } from '@fadenweg/core/search';
import { computed } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import { useSummary } from '../stores/summary.ts';
import { useScope } from '../time/scope.ts';
import { useWindow } from '../time/window.ts';
import { columnsOf, columnsText, USUAL_COLUMNS, type Column } from './columns.ts';
import type { Asked } from './use-find.ts';
import type { RankedBy } from './use-ranked.ts';

export type Density = 'close' | 'usual' | 'wide';
/** Height of a line by density, in pixels. */
export const LINE: Record<Density, number> = { close: 18, usual: 21, wide: 27 };
const numbers = (text: string): number[] => text.split(',').map(Number).filter((one) => Number.isInteger(one) && one > 0); // prettier-ignore

/** The old question where the new one says the same, so that nothing is asked again. */
const same = (old: Asked | null | undefined, now: Asked | null): Asked | null =>
  JSON.stringify(old ?? null) === JSON.stringify(now) ? (old ?? null) : now;

/** All that the address says about Find: what is searched, and how it is shown. Every change goes through the address. */
export function useView() {
  const route = useRoute();
  const router = useRouter();
  const summary = useSummary();
  const frame = useWindow();
  const scope = useScope();
  const text = (name: string): string => (typeof route.query[name] === 'string' ? (route.query[name] as string) : '');
  const change = (more: Record<string, string | undefined>): void => void router.push({ query: { ...route.query, ...more } });
  const adjust = (more: Record<string, string | undefined>): void => void router.replace({ query: { ...route.query, ...more } });

  const q = computed(() => text('q'));
  const parsed = computed(() => parseSearch(q.value));
  const order = computed<'oldest' | 'latest'>(() => (text('order') === 'oldest' ? 'oldest' : 'latest'));
  /** The column that the list is sorted by, null where it stands in order of time. */
  const rank = computed<RankedBy | null>(() => {
    const hit = /^(.+)\.(up|down)$/.exec(text('rank'));
    return hit ? { field: hit[1]!, direction: hit[2] as RankedBy['direction'] } : null;
  });
  /** From the most to the least, then the other way round, then by time again. */
  function turnRank(field: string): void {
    const now = rank.value?.field === field ? rank.value.direction : null;
    change({ rank: now === null ? `${field}.down` : now === 'down' ? `${field}.up` : undefined, record: undefined });
  }
  const only = computed(() => numbers(text('src')));
  const off = computed(() => numbers(text('off')));
  const asked = computed<Asked | null>((old) =>
    same(
      old,
      frame.ready.value && !summary.empty && parsed.value.search
        ? {
            q: q.value,
            ...frame.bounds.value,
            environment: scope.chosen.value.join(','),
            sources: only.value.length > 0 ? only.value.join(',') : undefined,
            withoutSources: only.value.length === 0 && off.value.length > 0 ? off.value.join(',') : undefined,
            quiet: text('quiet') === 'show' ? 'show' : 'hide',
            order: order.value,
          }
        : null,
    ),
  );
  /** With bounds, also where all time is looked at. */
  const bounded = computed<Asked | null>((old) => {
    const now = asked.value;
    const { from, to } = scope.span.value;
    return same(old, now && { ...now, order: 'latest', from: now.from ?? from ?? undefined, to: now.to ?? to ?? undefined });
  });

  const flags = computed(() => new Set(text('view').split('.').filter(Boolean)));
  function flag(name: string, on: boolean, without: readonly string[] = []): void {
    const next = new Set([...flags.value].filter((one) => one !== name && !without.includes(one)));
    if (on) next.add(name);
    adjust({ view: next.size > 0 ? [...next].sort().join('.') : undefined });
  }
  /** All that a saved set of columns restores, in one step. */
  function takeSet(set: ColumnSetBody): void {
    const next = [...flags.value].filter((one) => !['close', 'wide', 'wrap'].includes(one));
    if (set.density !== 'usual') next.push(set.density);
    if (set.wrap) next.push('wrap');
    const words = columnsText(set.columns);
    change({
      cols: words === columnsText(USUAL_COLUMNS) ? undefined : words,
      view: next.length > 0 ? next.sort().join('.') : undefined,
      rank: set.rank ?? undefined,
    });
  }
  const density = computed<Density>(() => (flags.value.has('close') ? 'close' : flags.value.has('wide') ? 'wide' : 'usual'));
  const columns = computed(() => columnsOf(text('cols')));
  function setColumns(next: readonly Column[]): void {
    const words = columnsText(next);
    adjust({ cols: words === columnsText(USUAL_COLUMNS) ? undefined : words });
  }
  const marks = computed(() => text('mark').split('\n').filter(Boolean));

  return {
    text,
    change,
    adjust,
    q,
    parsed,
    order,
    rank,
    turnRank,
    asked,
    bounded,
    only,
    off,
    frame,
    flags,
    flag,
    density,
    setDensity: (next: Density) => flag(next, next !== 'usual', ['close', 'wide']),
    wrap: computed(() => flags.value.has('wrap')),
    since: computed(() => flags.value.has('since')),
    full: computed(() => flags.value.has('full')),
    /** The record that times are counted from, '' for none. */
    reference: computed(() => text('ref')),
    columns,
    setColumns,
    takeSet,
    marks,
    setMarks: (next: readonly string[]) => adjust({ mark: next.length > 0 ? next.join('\n') : undefined }),
    /** Records, or what they are grouped by: strand, shape, any field. */
    show: computed(() => text('show')),
    setSources: (next: { only?: readonly number[]; off?: readonly number[] }) =>
      change({ src: next.only?.length ? next.only.join(',') : undefined, off: next.off?.length ? next.off.join(',') : undefined }),
    search: (next: string) => change({ q: next === '' ? undefined : next, record: undefined }),
  };
}
export type View = ReturnType<typeof useView>;
