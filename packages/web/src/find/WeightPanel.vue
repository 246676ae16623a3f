<script setup lang="ts">
import type { LogRecord, WeightName, WeightRuleInfo } from '@fadenweg/api';
import { WEIGHTS } from '@fadenweg/core/weights';
import { computed, ref, toRef } from 'vue';
import { api } from '../api/client.ts';
import { useAttempt } from '../api/use-attempt.ts';
import { useRequest } from '../api/use-request.ts';
import ProblemNote from '../frame/ProblemNote.vue';
import { count } from '../time/format.ts';
import type { Asked } from './use-find.ts';
import { likeRecord, nameFor, useTrial } from './use-trial.ts';

/** What people say weighs how much: a search and a weight, tried before it is kept. */
const props = defineProps<{ asked: Asked; record: LogRecord | null }>();
const emit = defineEmits<{ changed: []; search: [q: string] }>();
const { answer, problem, again } = useRequest([], (signal) => api.get('/weights', {}, signal));
const rules = computed(() => answer.value?.items ?? []);
const removed = ref<WeightRuleInfo | null>(null);
const draft = ref('');
const label = ref('');
const weight = ref<WeightName>('notable');
const { parsed, tried, failed: untried, attempt: attemptDraft } = useTrial(draft, toRef(props, 'asked'));
const { attempt: change, refused } = useAttempt();
const attempt = (work: () => Promise<unknown>): Promise<boolean> =>
  change(async () => {
    await work();
    await again();
    emit('changed');
  });
const put = ({ name, label: called, q, weight: much }: Omit<WeightRuleInfo, 'changedBy'>): Promise<unknown> =>
  api.put('/weights/{name}', { params: { name }, body: { name, label: called, q, weight: much } });
function propose(): void {
  if (!props.record) return;
  draft.value = likeRecord(props.record);
  label.value = `${props.record.component}: ${props.record.shape}`.slice(0, 80);
}
async function save(): Promise<void> {
  if (await attempt(() => put({ name: nameFor(label.value, rules.value), label: label.value, q: draft.value, weight: weight.value })))
    draft.value = label.value = '';
}
async function remove(rule: WeightRuleInfo): Promise<void> {
  if (await attempt(() => api.delete('/weights/{name}', { params: { name: rule.name } }))) removed.value = rule;
}
async function undo(): Promise<void> {
  const rule = removed.value;
  removed.value = null;
  if (rule) await attempt(() => put(rule));
}
</script>
<template>
  <div>
    <p class="soft first">
      A record weighs by its level and by words of trouble in it, in English and German; “no errors” weighs nothing. What you say here comes before
      that.
    </p>
    <p>
      Show what weighs
      <button v-for="name in WEIGHTS.slice(1)" :key="name" type="button" class="link" @click="emit('search', `where weight >= ${name}`)">
        {{ name }}
      </button>
      or more.
    </p>
    <ProblemNote v-if="problem" :problem="problem" @again="again" />
    <ul>
      <li v-for="rule in rules" :key="rule.name">
        <b>{{ rule.label }}</b> is {{ rule.weight }} <button type="button" class="link" @click="remove(rule)">take away</button>
        <p class="mono q soft">{{ rule.q }}</p>
      </li>
    </ul>
    <p v-if="removed" role="status">“{{ removed.label }}” is taken away. <button type="button" class="link" @click="undo">undo</button></p>
    <h2>A weight of your own</h2>
    <p v-if="record"><v-btn variant="outlined" size="small" @click="propose">What looks like the chosen line</v-btn></p>
    <form @submit.prevent="save">
      <label>Name <input v-model="label" class="input" maxlength="80" required /></label>
      <label>What this finds <textarea v-model="draft" class="input mono" rows="3" maxlength="4000" required spellcheck="false"></textarea></label>
      <label
        >weighs
        <select v-model="weight" class="input">
          <option v-for="name in WEIGHTS" :key="name">{{ name }}</option>
        </select></label
      >
      <p v-if="draft && parsed.problem" class="bad" role="alert">Character {{ parsed.problem.from + 1 }}: {{ parsed.problem.message }}.</p>
      <p v-else-if="tried" role="status">
        finds <b>{{ count(tried.hits) }}</b> of {{ tried.total ? count(tried.total) : '…' }} records of this search
      </p>
      <p v-if="refused || untried" class="bad" role="alert">{{ refused || untried }}</p>
      <p class="buttons">
        <v-btn variant="outlined" size="small" :disabled="draft === '' || !!parsed.problem" @click="attemptDraft">Try it</v-btn>
        <v-btn color="primary" size="small" type="submit" :disabled="!!parsed.problem || !tried || tried.searched < 1">Save</v-btn>
      </p>
    </form>
  </div>
</template>
<style scoped>
.first {
  margin: 0 0 8px;
}
ul {
  list-style: none;
  margin: 0 0 10px;
  padding: 0;
}
li {
  padding: 6px 0;
  border-bottom: 1px solid var(--seam);
}
.link {
  margin-right: 6px;
}
.q {
  overflow-wrap: anywhere;
  margin: 0;
  font-size: 12.5px;
  line-height: 17px;
}
form,
form label {
  display: flex;
  flex-direction: column;
  gap: 4px;
}
.buttons {
  display: flex;
  gap: 10px;
  margin: 4px 0 0;
}
</style>
