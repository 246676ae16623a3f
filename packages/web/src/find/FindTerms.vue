<script setup lang="ts">
import { piecesOf, printSearch, withoutPiece, type Piece } from '@fadenweg/core/search';
import { computed } from 'vue';
import { hrefOf } from '../api/calls.ts';
import TakeMenu from '../share/TakeMenu.vue';
import { count } from '../time/format.ts';
import SavedMenu from './SavedMenu.vue';
import type { View } from './use-view.ts';
import ViewMenu from './ViewMenu.vue';

/** The terms of the search as pieces that can be taken away, what is found, and how it is shown. */
const props = defineProps<{
  view: View;
  found: number | null;
  /** Share that is counted, 0 to 1. */
  counted: number;
  hidden: number;
  searching: boolean;
  searched: number;
  fields: readonly string[];
  hasReference: boolean;
}>();
const emit = defineEmits<{ stop: []; link: []; full: [] }>();
const helping = defineModel<boolean>('helping', { required: true });
const pieces = computed(() => (props.view.parsed.value.search ? piecesOf(props.view.parsed.value.search) : []));
const remove = (piece: Piece): void => props.view.search(printSearch(withoutPiece(props.view.parsed.value.search!, piece)));
const grouped = computed(() => props.view.show.value);
const choices = computed(() => [...new Set(['component', 'host', 'level', 'weight', 'outcome', 'flow', ...props.fields, grouped.value])].filter((one) => !['', 'strand', 'shape'].includes(one))); // prettier-ignore
const sources = computed(() => props.view.only.value.length || props.view.off.value.length);
/** All that is found, however much, in the order of the list. */
const formats = computed(() => {
  const href = (format: string): string => hrefOf('/records/export', { query: { ...props.view.asked.value, format } });
  return [
    { name: 'CSV', about: 'for a spreadsheet', file: 'records.csv', href: href('csv') },
    { name: 'JSON lines', about: 'with all fields', file: 'records.jsonl', href: href('jsonl') },
    { name: 'OTLP', about: 'as logs, which name the traces of their strands', file: 'records.otlp.jsonl', href: href('otlp') },
  ];
});
</script>
<template>
  <div class="terms" role="group" aria-label="Terms of the search">
    <span v-if="pieces.length === 0 && !sources && !view.parsed.value.problem" class="soft">All records of the window.</span>
    <button
      v-for="piece in pieces"
      :key="piece.type + piece.index"
      type="button"
      class="piece mono"
      :title="`Take “${piece.text}” away`"
      @click="remove(piece)"
    >
      {{ piece.text }} <span aria-hidden="true">×</span>
    </button>
    <button v-if="sources" type="button" class="piece" title="Read all sources again" @click="view.setSources({})">
      {{ view.only.value.length ? `only ${view.only.value.length}` : `without ${view.off.value.length}` }} {{ sources === 1 ? 'source' : 'sources' }}
      <span aria-hidden="true">×</span>
    </button>
    <button
      v-if="pieces.length + (sources ? 1 : 0) > 1"
      type="button"
      class="link"
      @click="view.change({ q: undefined, src: undefined, off: undefined, record: undefined })"
    >
      clear all
    </button>
    <span class="room"></span>
    <span class="said" role="status"
      ><b v-if="found !== null">{{ count(found) }}</b
      ><span v-if="found !== null && counted < 1" class="soft"> so far, {{ Math.round(counted * 100) }} %</span
      ><template v-if="searching && searched < 1"
        ><span class="soft"> searching {{ Math.round(searched * 100) }} %</span>
        <button type="button" class="link" @click="emit('stop')">stop</button></template
      ></span
    >
    <span v-if="hidden > 0 || view.text('quiet') === 'show'" class="said soft">
      <template v-if="view.text('quiet') === 'show'">quiet ones shown · </template><template v-else>{{ count(hidden) }} hidden · </template
      ><button type="button" class="link" @click="view.change({ quiet: view.text('quiet') === 'show' ? undefined : 'show' })">
        {{ view.text('quiet') === 'show' ? 'hide' : 'show' }}
      </button>
    </span>
    <label class="show"
      >as
      <select
        :value="grouped"
        aria-label="Show the result as"
        @change="(event) => view.change({ show: (event.target as HTMLSelectElement).value || undefined })"
      >
        <option value="">records</option>
        <option value="strand">strands</option>
        <option value="shape">shapes</option>
        <option v-for="one in choices" :key="one" :value="one">by {{ one }}</option>
      </select></label
    >
    <button
      v-if="grouped === '' && view.rank.value"
      type="button"
      class="link"
      title="Put in order of time again"
      @click="view.change({ rank: undefined })"
    >
      by {{ view.rank.value.field }}, {{ view.rank.value.direction === 'down' ? 'most' : 'least' }} first <span aria-hidden="true">×</span>
    </button>
    <span v-else-if="grouped === ''" class="order" role="group" aria-label="Order">
      <button type="button" :aria-pressed="view.order.value === 'latest'" @click="view.change({ order: undefined })">latest</button> ·
      <button type="button" :aria-pressed="view.order.value === 'oldest'" @click="view.change({ order: 'oldest' })">oldest</button>
    </span>
    <SavedMenu />
    <ViewMenu :view="view" :fields="fields" :has-reference="hasReference" />
    <TakeMenu v-if="grouped === '' && view.asked.value" what="these records" :formats="formats" />
    <button type="button" class="link" title="Copy a link to exactly this view (c)" @click="emit('link')">link</button>
    <button type="button" class="link" :aria-pressed="view.full.value" title="All of the screen for the lines (v)" @click="emit('full')">
      {{ view.full.value ? 'smaller' : 'full' }}
    </button>
    <button type="button" class="link" :aria-expanded="helping" @click="helping = !helping">help</button>
  </div>
</template>
<style scoped>
.terms {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 4px 10px;
  min-height: 26px;
  padding: 4px 16px;
  border-bottom: 1px solid var(--seam);
}
.piece {
  background: var(--paper);
  border: 1px solid var(--strong-seam);
  border-radius: 3px;
  padding: 1px 8px;
  color: var(--ink);
  cursor: pointer;
  max-width: 420px;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.piece:not(.mono) {
  font: inherit;
}
.piece:hover span {
  color: var(--madder);
}
.room {
  flex: 1;
}
.said {
  white-space: nowrap;
  font-variant-numeric: tabular-nums;
}
select {
  font: inherit;
  color: var(--ink);
  background: var(--linen);
  border: 1px solid var(--strong-seam);
  border-radius: 3px;
  padding: 0 2px;
  max-width: 130px;
}
.show {
  white-space: nowrap;
}
</style>
