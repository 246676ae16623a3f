<script setup lang="ts">
import type { SourceInfo } from '@fadenweg/api';
import { computed, ref } from 'vue';
import { count } from '../time/format.ts';
import type { View } from './use-view.ts';

/** Which sources are read as one: on, off, or one alone; each with the letter and shade that its lines bear. */
const props = defineProps<{ view: View; sources: SourceInfo[]; tags: ReadonlyMap<number, { letter: string; shade: number; path: string }> }>();
const wanted = ref('');
const MOST = 200;
const listed = computed(() =>
  props.sources.filter((one) => `${one.component} ${one.path}`.toLowerCase().includes(wanted.value.trim().toLowerCase())),
);
const isOn = (id: number): boolean => (props.view.only.value.length > 0 ? props.view.only.value.includes(id) : !props.view.off.value.includes(id));
const alone = (id: number): boolean => props.view.only.value.length === 1 && props.view.only.value[0] === id;
function turn(id: number): void {
  const { only, off, setSources } = props.view;
  if (only.value.length > 0) {
    const next = only.value.includes(id) ? only.value.filter((one) => one !== id) : [...only.value, id];
    setSources(next.length === 0 || next.length === props.sources.length ? {} : { only: next });
  } else setSources({ off: off.value.includes(id) ? off.value.filter((one) => one !== id) : [...off.value, id] });
}
const solo = (id: number): void => props.view.setSources(alone(id) ? {} : { only: [id] });
const some = computed(() => props.view.only.value.length + props.view.off.value.length > 0);
</script>
<template>
  <div>
    <p class="soft first">
      What is on is read as one list, in order of time.
      <button v-if="some" type="button" class="link" @click="view.setSources({})">all on</button>
    </p>
    <label v-if="sources.length > 12" class="filter"
      >Find <input v-model="wanted" class="input" maxlength="100" placeholder="component or path"
    /></label>
    <ul>
      <li v-for="one in listed.slice(0, MOST)" :key="one.id" :class="{ off: !isOn(one.id) }">
        <label>
          <input type="checkbox" :checked="isOn(one.id)" @change="turn(one.id)" />
          <b class="letter mono" :class="`shade${tags.get(one.id)?.shade ?? 0}`">{{ tags.get(one.id)?.letter ?? '' }}</b>
          <span class="name"
            ><span class="component">{{ one.component }}</span> <span class="mono soft path" :title="one.path">{{ one.path }}</span></span
          >
        </label>
        <span class="number soft">{{ count(one.records) }}</span>
        <button type="button" class="link" :aria-pressed="alone(one.id)" @click="solo(one.id)">{{ alone(one.id) ? 'all' : 'alone' }}</button>
      </li>
    </ul>
    <p v-if="listed.length > MOST" class="soft">The first {{ MOST }} of {{ count(listed.length) }}: type a part of the name above.</p>
    <p v-else-if="listed.length === 0" class="soft">No source is called so.</p>
  </div>
</template>
<style scoped>
.first {
  margin: 0 0 8px;
}
.filter {
  display: flex;
  gap: 8px;
  align-items: center;
  margin-bottom: 8px;
}
.filter .input {
  flex: 1;
}
ul {
  list-style: none;
  margin: 0;
  padding: 0;
}
li {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto 44px;
  gap: 10px;
  align-items: center;
  min-height: 26px;
}
li label {
  display: flex;
  gap: 8px;
  align-items: center;
  min-width: 0;
  cursor: pointer;
}
.name {
  min-width: 0;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.component {
  color: var(--indigo);
}
.off .name {
  text-decoration: line-through;
  text-decoration-color: var(--undyed);
}
.path {
  font-size: 11.5px;
}
.letter {
  width: 24px;
  text-align: center;
}
.shade1 {
  background: color-mix(in srgb, var(--woad) 16%, transparent);
}
.shade2 {
  background: color-mix(in srgb, var(--heather) 17%, transparent);
}
.shade3 {
  background: color-mix(in srgb, var(--weld) 17%, transparent);
}
.shade4 {
  background: color-mix(in srgb, var(--walnut) 18%, transparent);
}
.shade5 {
  background: color-mix(in srgb, var(--indigo) 14%, transparent);
}
</style>
