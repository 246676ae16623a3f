<script setup lang="ts">
import { computed } from 'vue';
import { count, dayAndClock, sameDay } from './format.ts';

/** How often something was, piece by piece, time running down; pieces in which it was not are left out. */
const props = defineProps<{ pieces: readonly { at: string; count: number; before?: boolean }[]; tone: 'indigo' | 'madder'; label: string }>();
const said = computed(() => props.pieces.filter((one) => one.count > 0));
const most = computed(() => Math.max(1, ...said.value.map((one) => one.count)));
const when = (at: string, i: number): string =>
  i > 0 && sameDay(at, said.value[i - 1]!.at) ? dayAndClock(at).slice(11, 16) : dayAndClock(at).slice(5, 16);
</script>
<template>
  <ol :aria-label="label" :class="tone">
    <li v-for="(one, i) in said" :key="one.at" :class="{ before: one.before }">
      <span class="soft at">{{ when(one.at, i) }}</span>
      <span class="run" :style="{ width: `${(100 * one.count) / most}%` }" aria-hidden="true"></span>
      <span class="number">{{ count(one.count) }}<span v-if="one.before" class="visually-hidden">, before the window</span></span>
    </li>
  </ol>
</template>
<style scoped>
ol {
  list-style: none;
  margin: 0;
  padding: 0;
}
li {
  display: grid;
  grid-template-columns: 90px 1fr 56px;
  align-items: center;
  gap: 8px;
}
.at {
  text-align: right;
  font-variant-numeric: tabular-nums;
}
.run {
  height: 0;
  border-top: 3px dashed var(--indigo);
}
.madder .run {
  border-color: var(--madder);
}
.before .run {
  border-color: var(--strong-seam);
}
</style>
