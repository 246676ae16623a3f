<script setup lang="ts">
import Sortable from 'sortablejs';
import { computed, onBeforeUnmount, onMounted, useTemplateRef } from 'vue';
import { gridOf, moved, titlesOf } from './columns.ts';
import type { View } from './use-view.ts';

/** The names of the columns: dragged to another place, made wider at their edge, or both by the arrow keys with Shift and Alt. */
const props = defineProps<{ view: View; tagged: boolean }>();
const titles = computed(() => titlesOf(props.view.columns.value.map((column) => column.field)));
const sortable = (field: string): boolean => field !== 'message';
const arrow = (field: string): string => (props.view.rank.value?.field !== field ? '' : props.view.rank.value.direction === 'down' ? '↓' : '↑');
function sort(field: string): void {
  if (sortable(field)) props.view.turnRank(field);
}
const head = useTemplateRef<HTMLElement>('head');
let mover: Sortable | null = null;
onMounted(() => {
  mover = Sortable.create(head.value!, {
    draggable: '.column',
    filter: '.edge',
    preventOnFilter: false,
    animation: 120,
    onEnd({ oldDraggableIndex, newDraggableIndex, item, from, oldIndex }) {
      if (oldDraggableIndex === undefined || newDraggableIndex === undefined || oldDraggableIndex === newDraggableIndex) return;
      // the page draws the order anew by itself
      item.remove();
      from.insertBefore(item, from.children[oldIndex!] ?? null);
      props.view.setColumns(moved(props.view.columns.value, oldDraggableIndex, newDraggableIndex));
    },
  });
});
onBeforeUnmount(() => mover?.destroy());

function widen(index: number, width: number): void {
  props.view.setColumns(props.view.columns.value.map((one, i) => (i === index ? { ...one, width: Math.max(24, width) } : one)));
}
function drag(index: number, event: PointerEvent): void {
  const cell = (event.currentTarget as HTMLElement).parentElement!;
  const before = cell.getBoundingClientRect().width;
  const from = event.clientX;
  let width = before;
  const move = (now: PointerEvent): void => {
    width = before + now.clientX - from;
    cell.style.outline = '1px dashed var(--indigo)';
    cell.style.width = `${Math.max(24, width)}px`;
  };
  const end = (): void => {
    window.removeEventListener('pointermove', move);
    cell.style.outline = '';
    cell.style.width = '';
    if (width !== before) widen(index, width);
  };
  window.addEventListener('pointermove', move);
  window.addEventListener('pointerup', end, { once: true });
}
function key(index: number, event: KeyboardEvent): void {
  const by = event.key === 'ArrowRight' ? 1 : event.key === 'ArrowLeft' ? -1 : 0;
  const { columns, setColumns } = props.view;
  if (by === 0) return;
  event.preventDefault();
  if (event.shiftKey) widen(index, (columns.value[index]!.width || 300) + 10 * by);
  else if (index + by >= 0 && index + by < columns.value.length) {
    setColumns(moved(columns.value, index, index + by));
    const cells = head.value!.querySelectorAll<HTMLElement>('.column button');
    cells[index + by]?.focus();
  }
}
</script>
<template>
  <div ref="head" class="head" :style="{ gridTemplateColumns: `152px ${tagged ? '26px ' : ''}${gridOf(view.columns.value)}` }">
    <button
      type="button"
      class="time"
      :title="view.rank.value ? 'Put in order of time again' : view.order.value === 'oldest' ? 'Latest first' : 'Oldest first'"
      @click="view.rank.value ? view.change({ rank: undefined }) : view.change({ order: view.order.value === 'oldest' ? undefined : 'oldest' })"
    >
      time {{ view.rank.value ? '' : view.order.value === 'oldest' ? '↑' : '↓' }}</button
    ><span v-if="tagged"><span class="visually-hidden">source</span></span>
    <span v-for="(column, i) in view.columns.value" :key="column.field" class="column">
      <button
        type="button"
        :title="`${column.field}: ${sortable(column.field) ? 'click to sort, ' : ''}drag to move; arrow keys move, with Shift they change the width`"
        :aria-label="`Column ${column.field}${arrow(column.field) && `, sorted from the ${arrow(column.field) === '↓' ? 'most' : 'least'}`}`"
        @click="sort(column.field)"
        @keydown="(event) => key(i, event)"
      >
        {{ column.field === 'level' && column.width < 40 ? '' : titles.get(column.field) }} {{ arrow(column.field) }}
      </button>
      <span class="edge" aria-hidden="true" @pointerdown.prevent.stop="(event) => drag(i, event)"></span>
    </span>
  </div>
</template>
<style scoped>
.head {
  display: grid;
  flex: none;
  height: 24px;
  padding: 0 23px 0 6px;
  border-bottom: 1px solid var(--seam);
  font-size: 11.5px;
  line-height: 24px;
  color: var(--soft-ink);
}
.head .time {
  text-align: right;
  padding-right: 12px;
  cursor: pointer;
}
.column {
  position: relative;
  min-width: 0;
  overflow: hidden;
}
button {
  width: 100%;
  height: 24px;
  text-align: left;
  background: none;
  border: 0;
  padding: 0;
  font: inherit;
  color: inherit;
  cursor: grab;
  overflow: hidden;
  text-overflow: ellipsis;
}
button:hover {
  color: var(--indigo);
}
.edge {
  position: absolute;
  right: 2px;
  top: 0;
  bottom: 0;
  width: 7px;
  cursor: col-resize;
  border-right: 1px solid var(--seam);
}
.edge:hover {
  border-color: var(--indigo);
}
</style>
