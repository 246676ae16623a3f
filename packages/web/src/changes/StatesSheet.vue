<script setup lang="ts">
import type { KnownState, Page } from '@fadenweg/api';
import { computed } from 'vue';
import { api } from '../api/client.ts';
import { useRequest } from '../api/use-request.ts';
import ProblemNote from '../frame/ProblemNote.vue';
import { dayAndClock } from '../time/format.ts';

/** What was last known at an instant of everything that records report: versions, settings, what runs. */
const props = defineProps<{ at: string; environment: string }>();
const { answer, problem, loading, again } = useRequest<Page<KnownState>>([() => props.at, () => props.environment], (signal) =>
  api.get('/changes/states', { query: { at: props.at, environment: props.environment } }, signal),
);
const components = computed(() => {
  const found = new Map<string, KnownState[]>();
  for (const state of answer.value?.items ?? []) {
    const place = state.host === '' ? state.component : `${state.component} on ${state.host}`;
    found.set(place, [...(found.get(place) ?? []), state]);
  }
  return [...found];
});
</script>
<template>
  <div>
    <p class="soft">As last known at {{ dayAndClock(at) }}</p>
    <ProblemNote v-if="problem" :problem="problem" @again="again" />
    <p v-else-if="loading && !answer" class="soft" role="status">Loading…</p>
    <p v-else-if="components.length === 0">Until then no record told of a version, a setting, a start or a stop.</p>
    <section v-for="[place, states] in components" :key="place">
      <h2>{{ place }}</h2>
      <dl>
        <template v-for="state in states" :key="state.subject">
          <dt>{{ state.subject }}</dt>
          <dd>
            <RouterLink :to="{ name: 'record', params: { id: state.record } }" class="mono">{{ state.value }}</RouterLink>
            <span class="soft"> since {{ dayAndClock(state.since) }}</span>
          </dd>
        </template>
      </dl>
    </section>
  </div>
</template>
<style scoped>
section {
  margin-top: 12px;
}
dl {
  display: grid;
  grid-template-columns: minmax(80px, auto) 1fr;
  gap: 2px 12px;
  margin: 2px 0;
}
dt {
  color: var(--soft-ink);
  overflow-wrap: anywhere;
}
dd {
  margin: 0;
  overflow-wrap: anywhere;
}
</style>
