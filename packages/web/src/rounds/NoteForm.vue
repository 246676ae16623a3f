<script setup lang="ts">
import type { Departure, NotedBody } from '@fadenweg/api';
import { ref } from 'vue';
import { api } from '../api/client.ts';
import { useAttempt } from '../api/use-attempt.ts';
import ProblemNote from '../frame/ProblemNote.vue';

/** That somebody has it in hand, or that it is tolerated, until when and because of what. */
const props = defineProps<{ departure: Departure }>();
const emit = defineEmits<{ done: [] }>();
const state = ref<'in-hand' | 'tolerated'>(props.departure.noted?.state ?? 'in-hand');
const note = ref(props.departure.noted?.note ?? '');
const until = ref(props.departure.noted?.until?.slice(0, 10) ?? '');
const { attempt, problem, busy } = useAttempt();
async function save(as: NotedBody['state']): Promise<void> {
  const { key, count, of, expected } = props.departure;
  await attempt(async () => {
    const body: NotedBody = { key, state: as, count, of, expected };
    await api.put('/rounds/departures/noted', { body: as === null ? body : { ...body, note: note.value, until: until.value === '' ? null : new Date(`${until.value}T23:59:59`).toISOString() } }); // prettier-ignore
    emit('done');
  });
}
</script>
<template>
  <form class="form" @submit.prevent="save(state)">
    <div class="row" role="radiogroup" aria-label="What is said of it">
      <label><input v-model="state" type="radio" value="in-hand" /> in hand</label>
      <label><input v-model="state" type="radio" value="tolerated" /> tolerated</label>
    </div>
    <label>{{ state === 'in-hand' ? 'By whom, and what is done' : 'Because' }}<input v-model="note" maxlength="1000" class="input" /></label>
    <label v-if="state === 'tolerated'">Until the end of<input v-model="until" type="date" class="input" /></label>
    <p class="soft">It comes back by itself when it becomes twice as frequent.</p>
    <ProblemNote v-if="problem" :problem="problem" @again="save(state)" />
    <div class="row">
      <v-btn type="submit" size="small" color="primary" :disabled="busy">Note it</v-btn>
      <v-btn v-if="departure.noted" size="small" variant="outlined" :disabled="busy" @click="save(null)">Take it back</v-btn>
    </div>
  </form>
</template>
<style scoped>
.form {
  display: flex;
  flex-direction: column;
  gap: 6px;
  margin-top: 6px;
}
.row {
  display: flex;
  gap: 14px;
}
label {
  display: block;
}
.input {
  display: block;
  width: 100%;
  box-sizing: border-box;
}
p {
  margin: 0;
}
</style>
