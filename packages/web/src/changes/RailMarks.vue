<script setup lang="ts">
import type { Change } from '@fadenweg/api';
import { computed } from 'vue';
import { useRoute } from 'vue-router';
import { clock } from '../time/format.ts';

/** Changes as marks along a time axis that runs down: a slack loop of thread where something was changed. Each leads to what it is. */
const props = defineProps<{ changes: readonly Change[]; /** Where an instant stands, in pixels. */ place: (at: number) => number; height: number }>();
const route = useRoute();
/** Marks closer than that are one. */
const CLOSE = 25;
const marks = computed(() => {
  const found: { y: number; changes: Change[] }[] = [];
  for (const change of props.changes) {
    const y = props.place(Date.parse(change.at));
    if (y < 0 || y > props.height) continue;
    const last = found.at(-1);
    if (last && y - last.y < CLOSE) last.changes.push(change);
    else found.push({ y, changes: [change] });
  }
  return found;
});
const words = (changes: readonly Change[]): string => changes.map((one) => `${clock(one.at, 0)} ${one.words}`).join('\n');
const to = (change: Change) => ({ name: 'changes', query: { w: route.query.w, e: route.query.e, change: change.id } });
</script>
<template>
  <nav class="marks" aria-label="Changes on the time axis">
    <RouterLink
      v-for="mark in marks"
      :key="mark.changes[0]!.id"
      class="mark"
      :to="to(mark.changes[0]!)"
      :style="{ top: `${mark.y - 12}px` }"
      :title="words(mark.changes)"
      :aria-label="`Changes: ${words(mark.changes)}`"
    >
      <svg width="16" height="16" viewBox="0 0 16 16" aria-hidden="true">
        <path d="M0 8h5c6 0 6 -5.5 2.5 -5.5S4 8 10 8h6" fill="none" stroke="currentColor" stroke-width="1.6" />
      </svg>
    </RouterLink>
  </nav>
</template>
<style scoped>
.marks {
  position: absolute;
  inset: 0 0 0 auto;
  width: 24px;
  pointer-events: none;
}
.mark {
  position: absolute;
  right: 0;
  width: 24px;
  height: 24px;
  padding: 4px 1px 4px 7px;
  box-sizing: border-box;
  color: var(--walnut);
  pointer-events: auto;
}
.mark:hover,
.mark:focus-visible {
  color: var(--indigo);
}
</style>
