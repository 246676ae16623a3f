<script setup lang="ts">
import type { Change } from '@fadenweg/api';
import { ref } from 'vue';
import { api } from '../api/client.ts';
import { useAttempt } from '../api/use-attempt.ts';
import ProblemNote from '../frame/ProblemNote.vue';
import { dayAndClock } from '../time/format.ts';

/** Registers what no record tells of: a delivery by hand, work at a partner's. */
const props = defineProps<{ components: readonly string[]; environment: string; /** Proposed, ISO 8601. */ at: string }>();
const emit = defineEmits<{ registered: [change: Change] }>();
const what = ref('');
const component = ref('');
const at = ref(dayAndClock(props.at));
const { attempt, problem, busy } = useAttempt();
async function save(): Promise<void> {
  const time = new Date(at.value.trim().replace(' ', 'T'));
  if (Number.isNaN(time.getTime())) {
    problem.value = { type: '', title: 'The time is not understood', status: 0, detail: `“${at.value}” is no date with a time.`, action: 'Write it as 2026-11-24 12:20:00.' }; // prettier-ignore
    return;
  }
  await attempt(async () => {
    const body = { what: what.value, component: component.value.trim(), environment: props.environment, at: time.toISOString() };
    const change = await api.post('/changes', { body });
    what.value = '';
    emit('registered', change);
  });
}
</script>
<template>
  <form class="form" @submit.prevent="save">
    <p class="soft">For what no record tells of. A build may do the same: <code class="mono">bin/fadenweg change "…" --component C</code></p>
    <label>What changed<input v-model="what" required maxlength="300" class="input" /></label>
    <label
      >Component, if it is one
      <input v-model="component" maxlength="100" class="input" list="change-components" />
      <datalist id="change-components"><option v-for="name in components" :key="name" :value="name"></option></datalist
    ></label>
    <label>When<input v-model="at" required maxlength="30" class="input mono" /></label>
    <ProblemNote v-if="problem" :problem="problem" @again="save" />
    <p><v-btn type="submit" color="primary" :disabled="busy || what.trim() === ''">Register the change</v-btn></p>
  </form>
</template>
<style scoped>
.form {
  display: flex;
  flex-direction: column;
  gap: 10px;
}
label {
  display: flex;
  flex-direction: column;
  gap: 3px;
}
</style>
