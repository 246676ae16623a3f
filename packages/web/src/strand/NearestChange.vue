<script setup lang="ts">
import type { NearestChange } from '@fadenweg/api';
import { computed } from 'vue';
import { count, dayAndClock } from '../time/format.ts';

/** The change before a finding that may be its reason, with the counts on which that rests. */
const props = defineProps<{ change: NearestChange }>();
const factor = computed(() => {
  const { likelier } = props.change;
  return likelier === null
    ? ''
    : likelier >= 100
      ? 'more than 100 times'
      : likelier >= 10
        ? `${Math.round(likelier)} times`
        : `${likelier.toFixed(1)} times`;
});
const of = ({ alike, all }: { alike: number; all: number }): string => `${alike === 0 ? 'none' : count(alike)} of ${count(all)}`;
</script>
<template>
  <p class="change">
    {{ !change.sure ? 'A change shortly before' : change.before.alike === 0 ? 'Began with a change' : 'More often since a change' }}:
    <RouterLink :to="{ name: 'changes', query: { w: 'all', change: change.id } }">{{ change.words }}</RouterLink>
    <span class="soft"> at {{ dayAndClock(change.at) }}.</span><br />
    <span class="soft"
      >Like this: {{ of(change.before) }} before, {{ of(change.since) }} since<template v-if="change.sure">; {{ factor }} as likely</template
      ><template v-else>, which chance may explain</template>.</span
    >
  </p>
</template>
<style scoped>
.change {
  border-left: 3px solid var(--walnut);
  padding-left: 8px;
  margin: 6px 0;
  overflow-wrap: anywhere;
}
</style>
