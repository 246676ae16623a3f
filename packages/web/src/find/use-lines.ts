import { computed } from 'vue';
import { useFind } from './use-find.ts';
import { useRanked } from './use-ranked.ts';
import type { View } from './use-view.ts';

/** The lines of the list, in order of time or sorted by a column; `lines` tells of whichever stands. */
export function useLines(view: View) {
  const here = computed(() => (view.show.value === '' ? view.asked.value : null));
  const byTime = useFind(computed(() => (view.rank.value ? null : here.value)));
  const ranked = useRanked(here, view.rank);
  const now = computed(() => (view.rank.value ? ranked : byTime));
  const lines = {
    version: computed(() => now.value.version.value),
    stale: computed(() => now.value.stale.value),
    problem: computed(() => now.value.problem.value),
    searching: computed(() => now.value.searching.value),
    searched: computed(() => now.value.searched.value),
    ended: computed(() => now.value.ended.value),
    again: () => now.value.again(),
  };
  const store = computed(() => now.value.store);
  const stopAll = (): void => {
    byTime.stop();
    ranked.stop();
  };
  return { byTime, ranked, lines, store, stopAll };
}
