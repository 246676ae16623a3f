<script setup lang="ts">
import { computed } from 'vue';
/** The duration against the usual: a bar on a logarithmic scale with a tick for the usual. */
const props = defineProps<{ durationMs: number; usualMs: number | null }>();
const WIDTH = 56;
const place = (value: number, usual: number): number =>
  Math.max(1, Math.min(WIDTH - 1, WIDTH / 2 + (Math.log2(Math.max(value, 0.001) / usual) * WIDTH) / 10));
const bar = computed(() => (props.usualMs ? place(props.durationMs, props.usualMs) : 0));
const slow = computed(() => props.usualMs !== null && props.durationMs > props.usualMs * 3);
</script>
<template>
  <svg v-if="usualMs" :width="WIDTH" height="12" aria-hidden="true" class="mark">
    <rect x="0" y="4" :width="bar" height="5" :fill="slow ? 'var(--weld)' : 'var(--undyed)'" />
    <line :x1="WIDTH / 2" :x2="WIDTH / 2" y1="1" y2="12" stroke="var(--ink)" stroke-width="1.5" />
  </svg>
</template>
<style scoped>
.mark {
  vertical-align: -1px;
  margin-left: 8px;
}
</style>
