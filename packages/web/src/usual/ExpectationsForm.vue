<script setup lang="ts">
import type { DeclaredSchedule, Flow, FlowDeclaration } from '@fadenweg/api';
import { ref, watch } from 'vue';
import { api } from '../api/client.ts';
import { useAttempt } from '../api/use-attempt.ts';
import { useRequest } from '../api/use-request.ts';
import ProblemNote from '../frame/ProblemNote.vue';
import { useSummary } from '../stores/summary.ts';
import { durationField, typedDuration } from './duration-field.ts';
import ScheduleField from './ScheduleField.vue';

/** What is declared of a flow: its name, how long it may take, what has to follow, what numbers it states. It counts before what is learned. */
const props = defineProps<{ name: string }>();
const emit = defineEmits<{ saved: [] }>();
const store = useSummary();
const flows = useRequest([() => props.name], (signal) => api.get('/flows', {}, signal));
const label = ref('');
const patience = ref('');
const longest = ref('');
const path = ref('');
const must = ref<{ component: string; words: string; within: string }[]>([]);
const expects = ref<{ words: string; min: string; max: string }[]>([]);
const schedule = ref<DeclaredSchedule | null>(null);
const notYet = ref('');
const { attempt, problem } = useAttempt();
const said = ref('');
let declared: Flow | undefined;
watch(flows.answer, (answer) => {
  declared = answer?.items.find((one) => one.name === props.name);
  if (!declared) return;
  label.value = declared.label;
  patience.value = durationField(declared.patienceMs);
  longest.value = durationField(declared.longestMs);
  schedule.value = declared.schedule ?? null;
  path.value = (declared.path ?? []).join(', ');
  must.value = (declared.must ?? []).map((one) => ({ component: one.component ?? '', words: one.words, within: durationField(one.withinMs) }));
  expects.value = declared.expects.map((one) => ({ words: one.words, min: String(one.min), max: one.max === null ? '' : String(one.max) }));
});
const wrong = (detail: string): void => void (problem.value = { type: '', title: 'It is not understood', status: 0, detail });
/** What was typed as a declaration; null where something is not understood, which is told. */
function read(): FlowDeclaration | null {
  const [patienceMs, longestMs] = [typedDuration(patience.value), typedDuration(longest.value)];
  if (!declared || patienceMs === undefined)
    return (wrong('After what silence it counts as stalled is a length of time, as 10 min, or nothing.'), null);
  if (longestMs === undefined) return (wrong('How long it may take is a length of time, as 30 s, or nothing.'), null);
  const steps = must.value.map((one) => ({ component: one.component.trim() || null, words: one.words.trim(), withinMs: typedDuration(one.within) }));
  const late = steps.find((one) => one.withinMs === undefined);
  if (late) return (wrong(`Within what time “${late.words}” has to come is a length of time, as 5 s, or nothing.`), null);
  const numbers = expects.value.map((one) => ({
    field: one.words.trim(),
    words: one.words.trim(),
    min: Number(one.min || 0),
    max: one.max.trim() === '' ? null : Number(one.max),
  }));
  const odd = numbers.find((one) => Number.isNaN(one.min) || Number.isNaN(one.max));
  if (odd) return (wrong(`The bounds of “${odd.words}” are numbers.`), null);
  if (notYet.value !== '') return (wrong(notYet.value), null);
  const { name, kind, prefix } = declared;
  return {
    name,
    kind,
    prefix,
    label: label.value.trim(),
    patienceMs,
    longestMs,
    path: path.value.split(',').map((one) => one.trim()).filter(Boolean), // prettier-ignore
    must: steps as FlowDeclaration['must'],
    expects: numbers,
    schedule: schedule.value,
  };
}
async function save(): Promise<void> {
  said.value = '';
  const body = read();
  if (!body) return;
  if (!(await attempt(() => api.put('/flows/{name}', { params: { name: props.name }, body })))) return;
  said.value = 'Saved. Where it changes what is amiss, the strands of this flow are judged again in the background.';
  emit('saved');
}
</script>
<template>
  <ProblemNote v-if="flows.problem.value" :problem="flows.problem.value" @again="flows.again" />
  <form v-else-if="flows.answer.value" class="expectations" @submit.prevent="save">
    <p class="soft">What is declared counts before what is learned.</p>
    <label>Name<input v-model="label" class="input" required maxlength="60" /></label>
    <label>It may take at most<input v-model="longest" class="input" maxlength="20" placeholder="as learned" /></label>
    <label>Silence counts as stalled after<input v-model="patience" class="input" maxlength="20" placeholder="as learned" /></label>
    <ScheduleField v-model="schedule" @problem="notYet = $event" />
    <label>It passes through these components alone<input v-model="path" class="input" maxlength="2000" placeholder="any" /></label>
    <fieldset>
      <legend>Steps that have to follow</legend>
      <div v-for="(one, i) in must" :key="i" class="row">
        <input
          v-model="one.component"
          class="input"
          list="expected-components"
          maxlength="60"
          placeholder="component"
          :aria-label="`Component of step ${i + 1}`"
        />
        <input
          v-model="one.words"
          class="input"
          required
          minlength="3"
          maxlength="200"
          placeholder="its words"
          :aria-label="`Words of step ${i + 1}`"
        />
        <input v-model="one.within" class="input" maxlength="20" placeholder="within" :aria-label="`Time of step ${i + 1}`" />
        <button type="button" class="link" :aria-label="`Leave step ${i + 1} out`" @click="must.splice(i, 1)">leave out</button>
      </div>
      <button type="button" class="link" @click="must.push({ component: '', words: '', within: '' })">add a step</button>
    </fieldset>
    <datalist id="expected-components">
      <option v-for="component of store.summary?.components ?? []" :key="component" :value="component"></option>
    </datalist>
    <fieldset>
      <legend>Numbers that it states</legend>
      <div v-for="(one, i) in expects" :key="i" class="row">
        <input v-model="one.words" class="input" required maxlength="60" placeholder="words beside it" :aria-label="`Words beside number ${i + 1}`" />
        <input v-model="one.min" class="input" maxlength="15" placeholder="at least" inputmode="numeric" :aria-label="`Least of number ${i + 1}`" />
        <input v-model="one.max" class="input" maxlength="15" placeholder="at most" inputmode="numeric" :aria-label="`Most of number ${i + 1}`" />
        <button type="button" class="link" :aria-label="`Leave number ${i + 1} out`" @click="expects.splice(i, 1)">leave out</button>
      </div>
      <button type="button" class="link" @click="expects.push({ words: '', min: '', max: '' })">add a number</button>
    </fieldset>
    <ProblemNote v-if="problem" :problem="problem" @again="save" />
    <p v-if="said" role="status">{{ said }}</p>
    <p><v-btn type="submit" color="primary">Save</v-btn></p>
  </form>
  <p v-else class="soft" role="status">Loading…</p>
</template>
<style scoped src="./expected-parts.css"></style>
<style scoped>
.expectations,
label {
  display: flex;
  flex-direction: column;
  gap: 3px;
}
.expectations {
  gap: 10px;
}
.row {
  grid-template-columns: 1fr 1fr 70px auto;
}
</style>
