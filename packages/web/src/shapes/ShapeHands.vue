<script setup lang="ts">
import type { DifferentShape, ShapeDetail } from '@fadenweg/api';
import { computed, ref, watch } from 'vue';
import { api } from '../api/client.ts';
import { useAttempt } from '../api/use-attempt.ts';
import { count } from '../time/format.ts';
import { KINDS, wordPlaces } from './shape-words.ts';

/** What people say of a shape: which of its words are parameters, which shapes stand apart, that it is tolerated. */
const props = defineProps<{ shape: ShapeDetail; different: DifferentShape }>();
const emit = defineEmits<{ said: [] }>();
const { attempt, refused, busy } = useAttempt();
const note = ref('');
const word = ref('');
watch(
  () => [props.shape.component, props.shape.text],
  () => {
    note.value = word.value = '';
  },
);
const places = computed(() => wordPlaces(props.shape.text));
const kind = computed(() => KINDS.find((one) => one.kind === props.different.kind)!.title.toLowerCase());
async function said(put: () => Promise<void>): Promise<void> {
  if (await attempt(put)) emit('said');
}
const hand = (text: string, is: 'one' | 'apart' | null): Promise<void> =>
  said(() => api.put('/shapes/hand', { body: { component: props.shape.component, text, is } }));
const tolerate = (note: string | null): Promise<void> =>
  said(() => api.put('/shapes/said', { body: { component: props.shape.component, text: props.shape.text, kind: props.different.kind, note } }));
</script>
<template>
  <section>
    <h3>What is said of it</h3>
    <template v-if="shape.twins.length > 0">
      <p>
        {{ count(shape.twins.length) }} shapes are one in it.
        <button v-if="!shape.byHand" type="button" class="link" :disabled="busy" @click="hand(shape.text, 'apart')">They stand apart</button>
      </p>
      <ul class="mono">
        <li v-for="one in shape.twins.slice(0, 8)" :key="one.text">
          {{ one.text }} <span class="soft">{{ count(one.count) }}</span>
        </li>
      </ul>
    </template>
    <p v-if="shape.byHand">
      <button type="button" class="link" :disabled="busy" @click="hand(shape.text, null)">Take back that these are one</button>
    </p>
    <form class="row" @submit.prevent="hand(word, 'one')">
      <label
        >This word is a parameter
        <select v-model="word" class="input" required>
          <option value="">choose a word</option>
          <option v-for="one in places" :key="one.text" :value="one.text">{{ one.word }}</option>
        </select></label
      >
      <v-btn type="submit" variant="outlined" size="small" :disabled="busy || word === ''">Say so</v-btn>
    </form>
    <p v-if="word" class="soft mono">{{ word }}</p>
    <p v-if="different.tolerated !== null">
      Tolerated as {{ kind }}: {{ different.tolerated }}
      <button type="button" class="link" :disabled="busy" @click="tolerate(null)">take back</button>
    </p>
    <form v-else class="row" @submit.prevent="tolerate(note)">
      <label>Tolerated as {{ kind }}, because<input v-model="note" class="input" maxlength="2000" required /></label>
      <v-btn type="submit" variant="outlined" size="small" :disabled="busy || note.trim() === ''">Tolerate</v-btn>
    </form>
    <p v-if="refused" role="alert">{{ refused }}</p>
  </section>
</template>
<style scoped>
h3 {
  font-size: 14px;
  line-height: 20px;
  margin: 10px 0 2px;
}
ul {
  list-style: none;
  margin: 0;
  padding: 0;
}
li,
p {
  overflow-wrap: anywhere;
}
p {
  margin: 2px 0 6px;
}
.row {
  display: flex;
  align-items: end;
  gap: 10px;
  padding: 4px 0;
}
.row label {
  flex: 1;
  min-width: 0;
}
.input {
  display: block;
  width: 100%;
  box-sizing: border-box;
}
</style>
