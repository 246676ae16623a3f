<script setup lang="ts">
import type { TouchingRun } from '@fadenweg/api';
import OutcomeGlyph from '../glyphs/OutcomeGlyph.vue';
import { runWords } from './data-words.ts';

/** Runs that touched something, each a way to its strand. */
defineProps<{ runs: TouchingRun[] }>();
</script>
<template>
  <ul class="runs">
    <li v-for="run in runs" :key="`${run.strand} ${run.at}`" :class="{ bad: run.failed }">
      <OutcomeGlyph :outcome="run.outcome" :size="14" />
      <RouterLink :to="{ name: 'strand', params: { id: run.strand } }" class="mono">{{ run.name }}</RouterLink>
      <span class="soft"> {{ run.flowLabel }} · {{ runWords(run) }}</span>
    </li>
  </ul>
</template>
<style scoped>
.runs {
  list-style: none;
  margin: 2px 0 8px;
  padding: 0;
}
li {
  padding: 1px 0;
  overflow-wrap: anywhere;
}
.bad {
  color: var(--madder);
}
</style>
