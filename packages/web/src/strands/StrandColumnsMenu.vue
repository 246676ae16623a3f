<script setup lang="ts">
import { computed, ref } from 'vue';
import DropPanel from '../frame/DropPanel.vue';
import ColumnSets from '../kept/ColumnSets.vue';
import { STRAND_FIELDS, strandColumnWords, USUAL_STRAND_COLUMNS, type StrandColumn } from './strand-columns.ts';

/** Which columns the list of strands has: each on or off and moved by hand, or a set by what one is there for. */
const props = defineProps<{ columns: readonly StrandColumn[] }>();
const emit = defineEmits<{ change: [columns: readonly { field: string; width: number }[]] }>();
const open = ref(false);
const shown = computed(() => ({ columns: props.columns.map(({ field, width }) => ({ field, width })) }));
const rest = computed(() => STRAND_FIELDS.filter((one) => !props.columns.some((other) => other.field === one.field)));
function move(place: number, by: number): void {
  const next = [...props.columns];
  const [one] = next.splice(place, 1);
  next.splice(place + by, 0, one!);
  emit('change', next);
}
</script>
<template>
  <DropPanel v-model="open" label="Columns of the list">
    <template #button><span class="link">columns</span></template>
    <div class="panel">
      <fieldset>
        <legend>Column sets</legend>
        <ColumnSets
          v-if="open"
          what="strand-columns"
          :usual="USUAL_STRAND_COLUMNS"
          :shown="shown"
          :words="strandColumnWords"
          saves="Which columns, in which order"
          @take="(set) => emit('change', set.columns)"
        />
      </fieldset>
      <fieldset>
        <legend>Columns</legend>
        <ol>
          <li v-for="(one, i) in columns" :key="one.field">
            <span>{{ one.title }}</span>
            <button type="button" class="link" :disabled="i === 0" :aria-label="`${one.title} further to the left`" @click="move(i, -1)">←</button>
            <button
              type="button"
              class="link"
              :disabled="i === columns.length - 1"
              :aria-label="`${one.title} further to the right`"
              @click="move(i, 1)"
            >
              →
            </button>
            <button
              type="button"
              class="link"
              :disabled="columns.length === 1"
              :aria-label="`Take the column ${one.title} away`"
              @click="
                emit(
                  'change',
                  columns.filter((other) => other !== one),
                )
              "
            >
              ×
            </button>
          </li>
        </ol>
        <p class="add">
          <button v-for="one in rest" :key="one.field" type="button" class="link" @click="emit('change', [...columns, one])">
            + {{ one.title }}
          </button>
        </p>
      </fieldset>
    </div>
  </DropPanel>
</template>
<style scoped>
.panel {
  width: 300px;
  max-height: min(70vh, 560px);
  overflow: auto;
}
fieldset {
  border: 0;
  margin: 0;
  padding: 0 0 8px;
  min-width: 0;
}
legend {
  font-weight: 700;
  padding: 0 0 2px;
}
ol {
  list-style: none;
  margin: 0;
  padding: 0;
}
li {
  display: flex;
  align-items: center;
  gap: 4px;
}
li span {
  flex: 1;
}
button.link {
  min-height: 24px;
  min-width: 24px;
}
.add {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 12px;
  margin: 4px 0 0;
}
</style>
