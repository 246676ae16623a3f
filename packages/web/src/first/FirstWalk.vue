<script setup lang="ts">
import { useLocalStorage } from '@vueuse/core';
import { computed, watch } from 'vue';
import { useRoute } from 'vue-router';
import { useCommands } from '../keys/commands.ts';
import { useSummary } from '../stores/summary.ts';
import { FIRST_WALK } from './walk.ts';

/** The demo’s first walk: offered once, a strip above the page that goes along; left for good by a click, begun anew by a command. */
const store = useSummary();
const route = useRoute();
/** 0: offered; from 1 on the step that one is at; -1: left. */
const at = useLocalStorage('fadenweg.walk', 0);
const shown = computed(() => store.summary?.demo === true && at.value >= 0);
const step = computed(() => FIRST_WALK[at.value - 1]);
const next = computed(() => FIRST_WALK[at.value]);
// whoever goes on by themselves is not held back
watch(
  () => route.fullPath,
  () => {
    if (at.value > 0 && next.value?.reached(route)) at.value++;
  },
);
useCommands('The first walk', [{ name: 'begin the first walk through the demo', keys: [], can: () => store.summary?.demo === true, run: () => void (at.value = 0) }]); // prettier-ignore
</script>
<template>
  <section v-if="shown" class="walk" aria-label="A first walk through the demo">
    <template v-if="!step">
      <p><strong>New here?</strong> A walk of {{ FIRST_WALK.length }} steps through the demo: from what is unusual to why one order failed.</p>
      <RouterLink class="go" :to="FIRST_WALK[0]!.to" @click="at = 1">Begin the walk</RouterLink>
    </template>
    <template v-else>
      <p>
        <span class="soft">{{ at }} of {{ FIRST_WALK.length }}</span> <strong>{{ step.title }}</strong> {{ step.text }}
      </p>
      <RouterLink v-if="at > 1" class="back" :to="FIRST_WALK[at - 2]!.to" @click="at -= 1">back</RouterLink>
      <RouterLink v-if="next" class="go" :to="next.to" @click="at += 1">Next: {{ next.title }}</RouterLink>
    </template>
    <button type="button" class="link" @click="at = -1">{{ next ? 'leave it' : 'done' }}</button>
  </section>
</template>
<style scoped>
.walk {
  display: flex;
  align-items: center;
  gap: 16px;
  padding: 6px 16px;
  background: var(--indigo-wash);
  border-bottom: 1px solid var(--seam);
}
p {
  min-width: 0;
  margin: 0;
  max-width: 110ch;
}
.go {
  white-space: nowrap;
  font-weight: 600;
}
button.link,
.back {
  min-height: 24px;
  white-space: nowrap;
}
@media (width < 1100px) {
  .walk {
    flex-wrap: wrap;
    gap: 4px 16px;
  }
  p {
    flex-basis: 100%;
  }
}
</style>
