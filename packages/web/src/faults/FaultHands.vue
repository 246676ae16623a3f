<script setup lang="ts">
import type { Fault, FaultDetail, FaultParting } from '@fadenweg/api';
import { faultTitle } from '@fadenweg/core/faults';
import { computed, ref, watch } from 'vue';
import { api } from '../api/client.ts';
import { useAttempt } from '../api/use-attempt.ts';
import { count } from '../time/format.ts';
import { handWords } from './fault-words.ts';

/** What people put together with a fault and part of it, tried before it is done, taken back after it. */
const props = defineProps<{ fault: FaultDetail; others: readonly Fault[] }>();
const emit = defineEmits<{ done: []; open: [id: number] }>();
const { attempt, refused, busy } = useAttempt();
const other = ref('');
const words = ref('');
const tried = ref<FaultParting | null>(null);
watch(
  () => props.fault.id,
  () => {
    other.value = words.value = '';
  },
);
watch(words, () => {
  tried.value = null;
});
const choices = computed(() => props.others.filter((one) => one.id !== props.fault.id));
const parts = computed(() => tried.value !== null && tried.value.records > 0 && tried.value.records < tried.value.of);
async function act(work: () => Promise<unknown>): Promise<void> {
  if (!(await attempt(work))) return;
  other.value = words.value = '';
  emit('done');
}
const together = (): Promise<void> =>
  act(() => api.post('/faults/{id}/together', { params: { id: props.fault.id }, body: { other: Number(other.value) } }));
const part = (): Promise<void> => act(() => api.post('/faults/{id}/parts', { params: { id: props.fault.id }, body: { words: words.value } }));
const takeBack = (): Promise<void> => act(() => api.delete('/faults/{id}/hand', { params: { id: props.fault.id } }));
async function tryWords(): Promise<void> {
  const asked = words.value;
  await attempt(async () => {
    const answer = await api.get('/faults/{id}/parts', { params: { id: props.fault.id }, query: { words: asked } });
    if (asked === words.value) tried.value = answer;
  });
}
</script>
<template>
  <section>
    <h3>Put together and parted by hand</h3>
    <ul v-if="fault.together.length + fault.parts.length > 0">
      <li v-for="one in fault.together" :key="one.id">
        with it <b>{{ one.title }}</b> <span class="soft">{{ one.component }}</span>
      </li>
      <li v-for="one in fault.parts" :key="one.id">
        parted from it: <button type="button" class="link" @click="emit('open', one.id)">what holds “{{ one.words }}”</button>
      </li>
    </ul>
    <form class="row" @submit.prevent="together">
      <label class="wide"
        >Another that is the same
        <select v-model="other" class="input" required>
          <option value="">choose one of the list</option>
          <option v-for="one in choices" :key="one.id" :value="String(one.id)">{{ faultTitle(one).slice(0, 80) }} · {{ one.component }}</option>
        </select></label
      >
      <v-btn type="submit" variant="outlined" size="small" :disabled="busy || other === ''">Put together</v-btn>
    </form>
    <form class="row" @submit.prevent="tryWords">
      <label class="wide"
        >What holds these words is another fault<input v-model="words" class="input mono" minlength="2" maxlength="200" required spellcheck="false"
      /></label>
      <v-btn type="submit" variant="outlined" size="small" :disabled="busy || words.length < 2">Try it</v-btn>
      <v-btn variant="outlined" size="small" :disabled="busy || !parts" @click="part">Part it</v-btn>
    </form>
    <p v-if="tried" role="status">
      {{ count(tried.records) }} of its {{ count(tried.of) }} records hold them{{ parts ? '.' : ': they part nothing.' }}
      <span v-if="parts" class="soft">Its strands are judged again; it holds for what comes later too.</span>
    </p>
    <p v-if="refused" role="alert">{{ refused }}</p>
    <ol v-if="fault.byHand.length > 0" class="history">
      <li v-for="(one, i) in fault.byHand" :key="i">
        {{ handWords(one) }} <button v-if="i === 0" type="button" class="link" :disabled="busy" @click="takeBack">take back</button>
      </li>
    </ol>
  </section>
</template>
<style scoped>
h3 {
  font-size: 14px;
  line-height: 20px;
  margin: 10px 0 2px;
}
ul,
ol {
  list-style: none;
  margin: 0;
  padding: 0;
}
li {
  overflow-wrap: anywhere;
}
.row {
  display: flex;
  flex-wrap: wrap;
  align-items: end;
  gap: 4px 10px;
  padding: 4px 0;
}
.wide {
  flex: 1 1 200px;
  min-width: 0;
}
.input {
  display: block;
  width: 100%;
  box-sizing: border-box;
}
p {
  margin: 2px 0 6px;
}
</style>
