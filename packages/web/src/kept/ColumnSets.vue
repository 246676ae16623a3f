<script setup lang="ts" generic="Body extends { columns: readonly Column[] }">
import type { SavedColumns, SavedStrandColumns } from '@fadenweg/api';
import { computed, ref } from 'vue';
import { api } from '../api/client.ts';
import { useAttempt } from '../api/use-attempt.ts';
import { useRequest } from '../api/use-request.ts';
import { columnsText, type Column } from '../find/columns.ts';
import { useChosenColumns, type Listed } from './own-columns.ts';

/** Column sets of a list: by what people are there for, one's own and those that others share. What is taken stays this person's choice. */
const props = defineProps<{ what: Listed; usual: Body; shown: Body; words: (body: Body) => string; saves: string }>();
const emit = defineEmits<{ take: [body: Body] }>();
type Set = { id: number; name: string; shared: boolean; supplied: boolean; body: Body };
const { answer, again } = useRequest([() => props.what], (signal) => api.get('/saved', { query: { what: props.what } }, signal));
const sets = computed(() => (answer.value?.items ?? []).filter((one) => one.what === props.what) as unknown as Set[]);
const current = computed(() => props.words(props.shown));
const name = ref('');
const shared = ref(false);
const forgotten = ref<Set | null>(null);
const { attempt, refused } = useAttempt();
/** Does it, and shows what there is then. */
const change = (act: () => Promise<unknown>): Promise<boolean> => attempt(() => act().then(again));
const chosen = useChosenColumns(props.what);
const otherWhat: Listed = props.what === 'columns' ? 'strand-columns' : 'columns';
const other = useChosenColumns(otherWhat);

function usually(): void {
  chosen.value = '';
  emit('take', props.usual);
}
/** Takes a set; one that comes with the application is for a task, and is taken in the other list too. */
function take(set: Set): void {
  chosen.value = columnsText(set.body.columns);
  emit('take', set.body);
  if (!set.supplied) return;
  void attempt(async () => {
    const { items } = await api.get('/saved', { query: { what: otherWhat } });
    const same = items.find((one): one is SavedColumns | SavedStrandColumns => one.what === otherWhat && one.supplied && one.name === set.name);
    if (same) other.value = columnsText(same.body.columns);
  });
}
async function keep(): Promise<void> {
  const wanted = name.value.trim();
  const known = sets.value.find((one) => !one.supplied && one.name === wanted);
  const body = { what: props.what, name: wanted, shared: shared.value, body: props.shown };
  if (await change(() => (known ? api.put('/saved/{id}', { params: { id: known.id }, body }) : api.post('/saved', { body })))) {
    name.value = '';
    chosen.value = columnsText(props.shown.columns);
  }
}
async function forget(set: Set): Promise<void> {
  if (await change(() => api.delete('/saved/{id}', { params: { id: set.id } }))) forgotten.value = set;
}
async function undo(): Promise<void> {
  const set = forgotten.value;
  if (set && (await change(() => api.post('/saved', { body: { what: props.what, name: set.name, shared: set.shared, body: set.body } }))))
    forgotten.value = null;
}
</script>
<template>
  <div>
    <ul>
      <li>
        <button type="button" class="link" :aria-pressed="current === words(usual)" @click="usually">Usual</button>
      </li>
      <li v-for="set in sets" :key="set.id">
        <button type="button" class="link" :aria-pressed="current === words(set.body)" @click="take(set)">{{ set.name }}</button>
        <span v-if="set.shared && !set.supplied" class="soft"> shared</span>
        <button v-if="!set.supplied" type="button" class="link soft" :aria-label="`Forget the column set ${set.name}`" @click="forget(set)">×</button>
      </li>
    </ul>
    <p v-if="forgotten" role="status">“{{ forgotten.name }}” is gone. <button type="button" class="link" @click="undo">undo</button></p>
    <form @submit.prevent="keep">
      <input v-model="name" class="input" maxlength="80" required aria-label="Name for this column set" placeholder="name for this set" />
      <label><input v-model="shared" type="checkbox" /> shared</label>
      <button type="submit" class="link" :title="saves">save</button>
    </form>
    <p v-if="refused" class="bad" role="alert">{{ refused }}</p>
  </div>
</template>
<style scoped>
ul {
  list-style: none;
  display: flex;
  flex-wrap: wrap;
  gap: 2px 12px;
  margin: 4px 0;
  padding: 0;
}
button.link {
  min-height: 24px;
  min-width: 24px;
}
[aria-pressed='true'] {
  font-weight: 700;
  text-decoration: underline;
  text-underline-offset: 3px;
}
form {
  display: flex;
  gap: 8px;
  align-items: center;
  margin: 4px 0;
}
label {
  display: flex;
  gap: 6px;
  align-items: center;
}
.input {
  flex: 1;
  min-width: 0;
}
p {
  margin: 2px 0;
}
</style>
