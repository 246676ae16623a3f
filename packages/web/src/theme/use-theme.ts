import { useLocalStorage, usePreferredDark } from '@vueuse/core';
import { computed, watchEffect } from 'vue';
import { useTheme as useVuetifyTheme } from 'vuetify';
import { DARK, LIGHT, properties } from './tokens.ts';

/** The person's theme: as the system has it, until they choose. */
export function useLook() {
  const chosen = useLocalStorage<'light' | 'dark' | 'system'>('fadenweg.theme', 'system');
  const systemDark = usePreferredDark();
  const dark = computed(() => (chosen.value === 'system' ? systemDark.value : chosen.value === 'dark'));
  const vuetify = useVuetifyTheme();
  watchEffect(() => {
    vuetify.change(dark.value ? 'indigo' : 'linen');
    document.documentElement.setAttribute('style', `${properties(dark.value ? DARK : LIGHT)};color-scheme:${dark.value ? 'dark' : 'light'}`);
    document.documentElement.dataset.theme = dark.value ? 'dark' : 'light';
  });
  return {
    dark,
    toggle: () => {
      chosen.value = dark.value ? 'light' : 'dark';
    },
  };
}
