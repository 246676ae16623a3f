import { computed } from 'vue';
import { api } from '../api/client.ts';
import { useRequest } from '../api/use-request.ts';
import { useSummary } from '../stores/summary.ts';
import { useAsked } from '../time/asked.ts';

/** The cloth and what departs, of the window and the environments that are looked at; asked anew when something was judged anew. */
export function useRounds() {
  const store = useSummary();
  const asked = useAsked();
  const key = computed(() => (asked.value ? `${JSON.stringify(asked.value)} ${store.summary?.strands} ${store.summary?.weaving}` : ''));
  const cloth = useRequest(key, async (signal) => (asked.value ? api.get('/rounds', { query: asked.value }, signal) : null));
  const list = useRequest(key, async (signal) => (asked.value ? api.get('/rounds/departures', { query: asked.value }, signal) : null));
  return { asked, cloth, list };
}
