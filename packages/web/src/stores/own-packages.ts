import type { OwnPackage } from '@fadenweg/api';
import { defineStore } from 'pinia';
import { computed, ref } from 'vue';
import { api } from '../api/client.ts';

/** Packages that are declared to be the program's own: read once, for every trace that is shown. */
export const useOwnPackages = defineStore('own-packages', () => {
  const items = ref<OwnPackage[]>([]);
  let asked: Promise<void> | null = null;
  const read = async (): Promise<void> => void (items.value = (await api.get('/own-packages')).items);
  const load = (): Promise<void> =>
    (asked ??= read().catch((error: unknown) => {
      asked = null;
      throw error;
    }));
  const declare = async (prefix: string): Promise<void> => void (items.value = (await api.post('/own-packages', { body: { prefix } })).items);
  const forget = async (prefix: string): Promise<void> => {
    await api.delete('/own-packages', { query: { prefix } });
    items.value = items.value.filter((one) => one.prefix !== prefix);
  };
  return { items, prefixes: computed(() => items.value.map((one) => one.prefix)), load, declare, forget };
});
