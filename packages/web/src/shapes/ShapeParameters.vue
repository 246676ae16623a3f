<script setup lang="ts">
import type { ShapeDetail, ShapeParameter } from '@fadenweg/api';
import { ref, watch } from 'vue';
import { useRoute } from 'vue-router';
import { api } from '../api/client.ts';
import { useAttempt } from '../api/use-attempt.ts';
import { count } from '../time/format.ts';
import { spreadWords, valueSearch } from './shape-words.ts';

/** What stands at each ‹› of a shape, and under which name it is a field. */
const props = defineProps<{ shape: ShapeDetail }>();
const emit = defineEmits<{ named: [] }>();
const route = useRoute();
const { attempt, refused, busy } = useAttempt();
const names = ref<string[]>([]);
watch(
  () => props.shape,
  ({ parameters }) => {
    names.value = parameters.map((one) => one.name);
  },
  { immediate: true },
);
async function name({ place }: ShapeParameter): Promise<void> {
  const { component, text } = props.shape;
  if (await attempt(() => api.put('/shapes/parameters', { body: { component, text, place, name: names.value[place]!.trim() } }))) emit('named');
}
const find = (q: string) => ({ name: 'find', query: { e: route.query.e, w: route.query.w, q, quiet: 'show' } });
</script>
<template>
  <section>
    <h3>
      What varies in it <span class="soft">in its latest {{ count(shape.looked) }} records</span>
    </h3>
    <ol>
      <li v-for="one in shape.parameters" :key="one.place">
        <form class="row" @submit.prevent="name(one)">
          <span class="soft">‹{{ one.place + 1 }}› {{ one.kind }}, {{ count(one.distinct) }} different</span>
          <label
            ><span class="visually-hidden">Name of parameter {{ one.place + 1 }}</span>
            <input v-model="names[one.place]" class="input" maxlength="60" :placeholder="`a name, such as ${one.proposed}`" spellcheck="false"
          /></label>
          <v-btn type="submit" variant="outlined" size="small" :disabled="busy || (names[one.place] ?? '').trim() === one.name">{{
            one.name !== '' && (names[one.place] ?? '').trim() === '' ? 'No name' : 'Name it'
          }}</v-btn>
        </form>
        <p v-if="one.numbers" class="number-line">{{ spreadWords(one.numbers) }}</p>
        <p class="values mono">
          <template v-for="(value, i) in one.values.slice(0, one.numbers ? 4 : 8)" :key="value.value"
            ><template v-if="i > 0">, </template
            ><RouterLink v-if="one.name" :to="find(valueSearch(one.name, value.value))">{{ value.value.slice(0, 60) }}</RouterLink
            ><template v-else>{{ value.value.slice(0, 60) }}</template
            ><span v-if="one.distinct < shape.looked" class="soft">&nbsp;{{ count(value.count) }}</span></template
          ><span v-if="one.distinct > (one.numbers ? 4 : 8)" class="soft"> …</span>
        </p>
        <p v-if="one.name" class="acts">
          <RouterLink :to="find(`where ${one.name} is not null`)">records by {{ one.name }}</RouterLink>
        </p>
      </li>
    </ol>
    <p v-if="refused" role="alert">{{ refused }}</p>
  </section>
</template>
<style scoped>
h3 {
  font-size: 14px;
  line-height: 20px;
  margin: 10px 0 2px;
}
h3 .soft {
  font-weight: 400;
}
ol {
  list-style: none;
  margin: 0;
  padding: 0;
}
li {
  padding: 4px 0;
  border-bottom: 1px solid var(--seam);
}
.row {
  display: grid;
  grid-template-columns: minmax(0, 1fr) 150px auto;
  align-items: center;
  gap: 8px;
}
.input {
  width: 100%;
  box-sizing: border-box;
}
p {
  margin: 2px 0;
}
.values {
  overflow-wrap: anywhere;
}
</style>
