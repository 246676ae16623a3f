<script setup lang="ts">
import { computed } from 'vue';
import { api } from '../api/client.ts';
import { useRequest } from '../api/use-request.ts';
import { useSummary } from '../stores/summary.ts';
import { useScope } from '../time/scope.ts';
import { useWindow } from '../time/window.ts';

/** How much of the window the sources speak in: a thread that thins where some are silent and breaks where all are. */
const WIDTH = 150;
const SLOTS = 75;
const store = useSummary();
const scope = useScope();
const view = useWindow();
const { answer } = useRequest([() => JSON.stringify(view.bounds.value), () => store.summary?.records], (signal) =>
  api.get('/coverage', { query: view.bounds.value }, signal),
);
const slots = computed(() => {
  const coverage = answer.value;
  if (!coverage?.from || !coverage.to) return [];
  const begin = Date.parse(coverage.from);
  const step = (Date.parse(coverage.to) - begin) / SLOTS;
  const own = coverage.items.filter((item) => scope.chosen.value.includes(item.environment) && item.stretches.length > 0);
  return Array.from({ length: SLOTS }, (_, i) => {
    const from = begin + i * step;
    const speaking = own.filter((item) => item.stretches.some(([a, b]) => a < from + step && b > from)).length;
    return own.length === 0 ? 0 : speaking / own.length;
  });
});
const words = computed(() => {
  if (slots.value.length === 0) return '';
  const mean = slots.value.reduce((sum, one) => sum + one, 0) / slots.value.length;
  return `Coverage of the window: the sources speak in ${Math.round(mean * 100)} % of it`;
});
</script>
<template>
  <RouterLink v-if="slots.length" :to="{ path: '/sources', query: { tab: 'coverage' } }" class="strip" :aria-label="words" :title="words">
    <svg :width="WIDTH" height="12" aria-hidden="true">
      <line x1="0" :x2="WIDTH" y1="6" y2="6" class="warp" />
      <rect
        v-for="(share, i) in slots"
        :key="i"
        class="thread"
        :x="(i * WIDTH) / SLOTS"
        :y="6 - share * 5"
        :width="WIDTH / SLOTS + 0.3"
        :height="share * 10"
      />
    </svg>
  </RouterLink>
</template>
<style scoped>
.strip {
  line-height: 0;
}
.warp {
  stroke: var(--undyed);
}
.thread {
  fill: var(--woad);
}
</style>
