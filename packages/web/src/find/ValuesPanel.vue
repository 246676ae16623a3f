<script setup lang="ts">
import type { FieldValues, Page } from '@fadenweg/api';
import { printValue } from '@fadenweg/core';
import { computed, ref, toRef } from 'vue';
import { api, query } from '../api/client.ts';
import { useRequest } from '../api/use-request.ts';
import ProblemNote from '../frame/ProblemNote.vue';
import { count } from '../time/format.ts';
import type { Asked } from './use-find.ts';

/** The values of fields in what is found, the most frequent first; a click narrows to one, or leaves it out. */
const props = defineProps<{ asked: Asked; fields: string[] }>();
const emit = defineEmits<{ value: [field: string, value: string, out: boolean] }>();
const own = ref('');
const added = ref<string[]>([]);
const shown = computed(() => [...new Set([...added.value, ...props.fields])]);
const { answer, problem, loading, again } = useRequest([toRef(props, 'asked'), () => shown.value.join('\n')], (signal) => {
  const { q, from, to, environment } = props.asked;
  return api.get<Page<FieldValues>>(`/records/values${query({ q, from, to, environment, fields: shown.value.join(','), limit: 8 })}`, signal);
});
const groups = computed(() => (answer.value?.items ?? []).filter((one) => one.values.length > 0));
const sampled = computed(() => (groups.value[0] && !groups.value[0].complete ? groups.value[0].records : 0));
function add(): void {
  const name = own.value.trim();
  if (name !== '') added.value = [name, ...added.value.filter((one) => one !== name)];
  own.value = '';
}
const share = (group: FieldValues, number: number): number => (group.records === 0 ? 0 : number / group.records);
</script>
<template>
  <div class="values">
    <form @submit.prevent="add">
      <label>Values of <input v-model="own" class="input" maxlength="100" placeholder="any field" list="field-names" /></label>
      <datalist id="field-names"><option v-for="name in fields" :key="name" :value="name" /></datalist>
    </form>
    <ProblemNote v-if="problem" :problem="problem" @again="again" />
    <p v-else-if="loading && !answer" class="soft" role="status">Counting…</p>
    <p v-else-if="sampled" class="soft">In the latest {{ count(sampled) }} records that are found.</p>
    <section v-for="group in groups" :key="group.field">
      <h2>
        {{ group.field }} <span class="soft">{{ count(group.distinct) }} {{ group.distinct === 1 ? 'value' : 'values' }}</span>
      </h2>
      <ul>
        <li v-for="one in group.values" :key="one.value">
          <span class="bar" :style="{ width: `${Math.max(1, share(group, one.count) * 100)}%` }" aria-hidden="true"></span>
          <button
            type="button"
            class="name mono"
            :title="`Only ${group.field} = ${printValue(one.value)}`"
            @click="emit('value', group.field, one.value, false)"
          >
            {{ one.value }}
          </button>
          <span class="number">{{ count(one.count) }}</span>
          <span class="number share">{{ Math.round(share(group, one.count) * 100) }} %</span>
          <button
            type="button"
            class="link out"
            :aria-label="`Leave out ${group.field} ${one.value}`"
            title="Leave out"
            @click="emit('value', group.field, one.value, true)"
          >
            leave out
          </button>
        </li>
      </ul>
    </section>
  </div>
</template>
<style scoped>
section {
  margin-top: 14px;
}
h2 {
  display: flex;
  justify-content: space-between;
}
h2 span {
  font-weight: 400;
}
ul {
  list-style: none;
  margin: 4px 0 0;
  padding: 0;
}
li {
  position: relative;
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto 44px 62px;
  gap: 8px;
  align-items: center;
  height: 24px;
}
.bar {
  position: absolute;
  left: 0;
  top: 1px;
  bottom: 1px;
  background: var(--indigo-wash);
  z-index: 0;
}
.name {
  position: relative;
  text-align: left;
  background: none;
  border: 0;
  padding: 0 4px;
  color: var(--ink);
  cursor: pointer;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
  height: 24px;
}
.name:hover {
  text-decoration: underline;
}
.number,
.out {
  position: relative;
}
.share {
  color: var(--soft-ink);
}
.out {
  height: 24px;
  font-size: 12px;
  color: var(--soft-ink);
}
p {
  margin: 2px 0 0;
}
label {
  display: flex;
  gap: 8px;
  align-items: center;
}
.input {
  flex: 1;
}
</style>
