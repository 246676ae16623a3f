import { useLocalStorage } from '@vueuse/core';
import { watch } from 'vue';
import { useRoute, useRouter } from 'vue-router';

/** Lists whose columns are chosen. */
export type Listed = 'columns' | 'strand-columns';

/** The columns of a list that this person chose, as an address holds them; '' for the usual ones. */
export const useChosenColumns = (what: Listed) => useLocalStorage(`fadenweg.${what}`, '');

/** An address of a list that says no columns is given those that the person chose, so that it shows the same to whom it is sent. */
export function useOwnColumns(what: Listed, view: string): void {
  const chosen = useChosenColumns(what);
  const route = useRoute();
  const router = useRouter();
  watch(
    () => [route.name, route.query.cols] as const,
    ([name, cols]) => {
      if (name === view && cols === undefined && chosen.value !== '') void router.replace({ query: { ...route.query, cols: chosen.value } });
    },
    { immediate: true },
  );
}
