<script setup lang="ts">
import type { Problem, StrandSummary } from '@fadenweg/api';
import OutcomeGlyph from '../glyphs/OutcomeGlyph.vue';
import { OUTCOME_WORDS } from '../glyphs/outcomes.ts';
import { ms } from '../strands/duration-text.ts';
import { dayAndClock } from '../time/format.ts';

/** An identifier that led to several strands: which one is meant? */
defineProps<{ problem: Problem; choices: readonly StrandSummary[] }>();
</script>
<template>
  <section class="choices" aria-labelledby="choices">
    <h1 id="choices">{{ problem.title }}</h1>
    <p>{{ problem.detail }} {{ problem.action }}</p>
    <table class="plain-table">
      <thead>
        <tr>
          <th>Begin</th>
          <th>Strand</th>
          <th>Flow</th>
          <th>Outcome</th>
          <th class="number">Duration</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="one in choices" :key="one.id">
          <td class="mono">{{ dayAndClock(one.startedAt, 3) }}</td>
          <td>
            <RouterLink :to="{ name: 'strand', params: { id: one.id } }" class="mono">{{ one.name }}</RouterLink>
          </td>
          <td>{{ one.flowLabel }}</td>
          <td><OutcomeGlyph :outcome="one.outcome" :size="16" silent /> {{ OUTCOME_WORDS[one.outcome] }}</td>
          <td class="number">{{ ms(one.durationMs) }}</td>
        </tr>
      </tbody>
    </table>
  </section>
</template>
<style scoped>
.choices {
  padding: 16px 20px;
  overflow: auto;
}
.choices p {
  margin: 4px 0 12px;
}
</style>
