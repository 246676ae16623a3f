import type { Departures, Rounds } from '@fadenweg/api';
import { computed } from 'vue';
import { api, query } from '../api/client.ts';
import { useRequest } from '../api/use-request.ts';
import { useSummary } from '../stores/summary.ts';
import { ZONE } from '../time/format.ts';
import { useScope } from '../time/scope.ts';
import { useWindow } from '../time/window.ts';

/** The cloth and what departs, of the window and the environments that are looked at; asked anew when something was judged anew. */
export function useRounds() {
  const view = useWindow();
  const scope = useScope();
  const store = useSummary();
  const asked = computed(() => {
    const { from, to } = view.bounds.value;
    const { span } = scope;
    // all time is from the first record to the last
    const [begin, end] = [from ?? span.value.from, to ?? (span.value.to === null ? null : new Date(Date.parse(span.value.to) + 1).toISOString())];
    if (!view.ready.value || !begin || !end || scope.chosen.value.length === 0) return null;
    return { from: begin, to: end, environment: scope.chosen.value.join(','), zone: ZONE };
  });
  const key = computed(() => (asked.value ? `${JSON.stringify(asked.value)} ${store.summary?.strands} ${store.summary?.weaving}` : ''));
  const cloth = useRequest(key, async (signal) => (asked.value ? api.get<Rounds>(`/rounds${query(asked.value)}`, signal) : null));
  const list = useRequest(key, async (signal) => (asked.value ? api.get<Departures>(`/rounds/departures${query(asked.value)}`, signal) : null));
  return { asked, cloth, list };
}
