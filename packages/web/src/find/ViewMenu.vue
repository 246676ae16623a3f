<script setup lang="ts">
import type { ColumnSetBody } from '@fadenweg/api';
import { computed, ref } from 'vue';
import DropPanel from '../frame/DropPanel.vue';
import ColumnSets from '../kept/ColumnSets.vue';
import { columnsText, USUAL_COLUMNS } from './columns.ts';
import type { Density, View } from './use-view.ts';

/** How the lines are shown: density, wrapping, times, highlighted words, columns and their saved sets. */
const props = defineProps<{ view: View; fields: readonly string[]; hasReference: boolean }>();
const open = ref(false);
const DENSITIES: { name: Density; label: string }[] = [{ name: 'close', label: 'close' }, { name: 'usual', label: 'usual' }, { name: 'wide', label: 'wide' }]; // prettier-ignore
const word = ref('');
function mark(): void {
  const wanted = word.value.trim();
  if (wanted !== '' && !props.view.marks.value.includes(wanted)) props.view.setMarks([...props.view.marks.value, wanted].slice(0, 12));
  word.value = '';
}
const field = ref('');
function add(): void {
  const wanted = field.value.trim();
  const { columns, setColumns } = props.view;
  if (wanted !== '' && !columns.value.some((one) => one.field === wanted)) {
    const place = columns.value.findIndex((one) => one.width === 0);
    const next = [...columns.value];
    next.splice(place < 0 ? next.length : place, 0, { field: wanted, width: 110 });
    setColumns(next);
  }
  field.value = '';
}
const take = (name: string): void => props.view.setColumns(props.view.columns.value.filter((one) => one.field !== name));

/** What is shown now, as a set would keep it. */
const shown = computed<ColumnSetBody>(() => ({
  columns: props.view.columns.value,
  density: props.view.density.value,
  wrap: props.view.wrap.value,
  rank: props.view.rank.value && `${props.view.rank.value.field}.${props.view.rank.value.direction}`,
}));
const USUAL: ColumnSetBody = { columns: [...USUAL_COLUMNS], density: 'usual', wrap: false, rank: null };
const words = ({ columns, density, wrap, rank }: ColumnSetBody): string => JSON.stringify([columnsText(columns), density, wrap, rank]);
</script>
<template>
  <DropPanel v-model="open" label="How the lines are shown">
    <template #button><span class="link">view</span></template>
    <div class="panel">
      <fieldset>
        <legend>Lines</legend>
        <label v-for="one in DENSITIES" :key="one.name"
          ><input type="radio" name="density" :checked="view.density.value === one.name" @change="view.setDensity(one.name)" /> {{ one.label }}</label
        >
        <label class="apart"
          ><input type="checkbox" :checked="view.wrap.value" @change="view.flag('wrap', !view.wrap.value)" /> whole messages, wrapped</label
        >
      </fieldset>
      <fieldset>
        <legend>Times</legend>
        <label
          ><input
            type="radio"
            name="times"
            :checked="!view.since.value && !view.reference.value"
            @change="view.adjust({ ref: undefined, view: [...view.flags.value].filter((one) => one !== 'since').join('.') || undefined })"
          />
          of the day</label
        >
        <label
          ><input type="radio" name="times" :checked="view.since.value && !view.reference.value" @change="view.flag('since', true)" /> since the line
          before</label
        >
        <label
          ><input type="radio" name="times" :checked="!!view.reference.value" :disabled="!hasReference" /> since a marked line <kbd>m</kbd></label
        >
      </fieldset>
      <fieldset>
        <legend>Highlighted words</legend>
        <form @submit.prevent="mark">
          <input v-model="word" class="input" maxlength="100" aria-label="Word to highlight" placeholder="word or value" />
          <button type="submit" class="link">add</button>
        </form>
        <p v-for="(one, i) in view.marks.value" :key="one" class="mono one">
          <mark :class="`m${i % 4}`">{{ one }}</mark>
          <button
            type="button"
            class="link"
            :aria-label="`No longer highlight ${one}`"
            @click="view.setMarks(view.marks.value.filter((other) => other !== one))"
          >
            ×
          </button>
        </p>
      </fieldset>
      <fieldset>
        <legend>Columns and sets of them</legend>
        <p class="cols">
          <span v-for="one in view.columns.value" :key="one.field" class="col mono"
            >{{ one.field }}
            <button
              type="button"
              class="link"
              :aria-label="`Take the column ${one.field} away`"
              :disabled="view.columns.value.length === 1"
              @click="take(one.field)"
            >
              ×
            </button></span
          >
        </p>
        <form @submit.prevent="add">
          <input v-model="field" class="input" maxlength="100" aria-label="Field for a new column" placeholder="any field" list="view-fields" />
          <datalist id="view-fields"><option v-for="one in fields" :key="one" :value="one" /></datalist>
          <button type="submit" class="link">add column</button>
        </form>
        <ColumnSets
          v-if="open"
          what="columns"
          :usual="USUAL"
          :shown="shown"
          :words="words"
          saves="Columns, widths, density, wrapping and what the list is sorted by"
          @take="view.takeSet"
        />
      </fieldset>
    </div>
  </DropPanel>
</template>
<style scoped>
.panel {
  display: grid;
  grid-template-columns: 210px 280px;
  gap: 4px 24px;
  max-height: min(70vh, 560px);
  overflow: auto;
}
fieldset {
  border: 0;
  margin: 0;
  padding: 0 0 10px;
  min-width: 0;
}
fieldset:nth-child(3) {
  grid-column: 1;
}
fieldset:nth-child(4) {
  grid-column: 2;
  grid-row: 1 / span 3;
}
legend {
  font-weight: 700;
  padding: 0 0 2px;
}
label {
  display: flex;
  gap: 6px;
  align-items: center;
  line-height: 24px;
  min-height: 24px;
}
button.link {
  min-height: 24px;
  min-width: 24px;
}
.apart {
  margin-top: 4px;
}
form {
  display: flex;
  gap: 8px;
  align-items: center;
  margin: 4px 0;
}
form .input {
  flex: 1;
}
.one {
  margin: 0;
}
.cols {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 10px;
  margin: 0;
}
mark {
  color: inherit;
  background: none;
}
.m0 {
  background: var(--indigo-wash);
  box-shadow: inset 0 -2px var(--indigo);
}
.m1 {
  outline: 1px solid var(--woad);
}
.m2 {
  text-decoration: underline wavy var(--heather);
}
.m3 {
  border-bottom: 2px dotted var(--walnut);
}
</style>
