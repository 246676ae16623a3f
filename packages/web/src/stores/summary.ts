import type { Flow, Summary } from '@fadenweg/api';
import { defineStore } from 'pinia';
import { computed, ref } from 'vue';
import { api } from '../api/client.ts';

const CALM = 5000;
const BUSY = 800;

/** What is loaded and what is going on; asked for again and again, faster while something runs. */
export const useSummary = defineStore('summary', () => {
  const summary = ref<Summary | null>(null);
  const flows = ref<Flow[]>([]);
  let timer: ReturnType<typeof setTimeout> | undefined;
  let records = -1;
  async function refresh(): Promise<void> {
    clearTimeout(timer);
    try {
      const now = await api.get('/summary');
      if (now.records !== records || flows.value.length === 0) flows.value = (await api.get('/flows')).items;
      records = now.records;
      summary.value = now;
    } catch {
      // the connection store shows it in the foot line; asked again below
    }
    timer = setTimeout(() => void refresh(), summary.value?.imports.length || summary.value?.weaving ? BUSY : CALM);
  }
  const empty = computed(() => summary.value !== null && summary.value.sources === 0);
  /** Records are there, and none of them names a transaction by an identifier that is declared. */
  const unnamed = computed(() => {
    const now = summary.value;
    return now !== null && now.records > 0 && now.strands === 0 && now.imports.length === 0 && !now.weaving;
  });
  return { summary, flows, refresh, empty, unnamed };
});
