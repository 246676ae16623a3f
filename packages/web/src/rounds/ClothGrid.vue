<script setup lang="ts">
import type { Change, Rounds, RoundsCell } from '@fadenweg/api';
import { useElementSize } from '@vueuse/core';
import { useVirtualizer } from '@tanstack/vue-virtual';
import { computed, nextTick, ref, useTemplateRef, watch } from 'vue';
import OutcomeGlyph from '../glyphs/OutcomeGlyph.vue';
import { clock, day, sameDay } from '../time/format.ts';
import { cellText, cellWords, mostlyAmiss, slotWord, stitches } from './cells.ts';
import ColumnName from './ColumnName.vue';
import type { ClothCell, ClothColumn } from './groups.ts';

/** A column for each flow, time running down, a cell a slot. What departs is marked; all else stays quiet. */
const props = defineProps<{
  rounds: Rounds;
  columns: readonly ClothColumn[];
  /** Index of the slot that is pinned. */ pinned: number | null;
  changes: readonly Change[];
}>();
const emit = defineEmits<{ open: [leads: string, slot: number]; pin: [slot: number]; column: [leads: string]; fold: [group: string] }>();
const LEAST = 92;
const TIMES = 76;
const box = useTemplateRef<HTMLElement>('box');
const { width } = useElementSize(box);
const flows = computed(() => props.columns);
const grouped = computed(() => flows.value.some((one) => one.group !== ''));
/** Over how many columns the name of a group stands that begins with this one. */
function spans(i: number): number {
  const { group } = flows.value[i]!;
  return group === '' || group === flows.value[i - 1]?.group ? 0 : flows.value.filter((one) => one.group === group).length;
}
const wide = computed(() => Math.max(LEAST, Math.min(190, Math.floor((width.value - TIMES - 12) / Math.max(1, flows.value.length)))));
/** Where each column stands. */
const places = useVirtualizer(
  computed(() => ({ count: flows.value.length, horizontal: true, getScrollElement: () => box.value, estimateSize: () => wide.value, overscan: 4, paddingStart: TIMES })), // prettier-ignore
);
watch(wide, () => places.value.measure());
const slots = computed(() =>
  props.rounds.seen.map((seen, i) => {
    const [at, end] = [props.rounds.bounds[i]!, props.rounds.bounds[i + 1]!];
    return { seen, at, changes: props.changes.filter((one) => one.at >= at && one.at < end) };
  }),
);
const changed = (changes: readonly Change[]): string =>
  `${changes.length === 1 ? 'a change' : `${changes.length} changes`}: ${changes.map((one) => `${clock(one.at, 0)} ${one.words}`).join('; ')}`;
const word = computed(() => slotWord(props.rounds.slotMs));
const long = computed(() => props.rounds.slotMs >= 86_400_000);
function label(i: number): string {
  const { at } = slots.value[i]!;
  if (long.value) return day(at).slice(5);
  const time = clock(at, 0).slice(0, 5);
  return i > 0 && !sameDay(at, slots.value[i - 1]!.at) ? day(at).slice(5) : time;
}
const wordsOf = (cell: ClothCell, seen: boolean): string => cell.told ?? cellWords(cell, seen);
const tone = (cell: RoundsCell): string => {
  if (!cell.departs) return '';
  const outcome = mostlyAmiss(cell);
  if (outcome === 'failed') return 'madder';
  if (outcome === 'slow') return 'weld';
  if (outcome === 'stalled') return 'heather';
  return outcome === null ? 'indigo' : 'walnut';
};
const part = ({ all, amiss, late, departs }: RoundsCell): number =>
  departs?.kind === 'late' ? late / Math.max(1, all) : departs?.kind === 'not-done' ? amiss / Math.max(1, all) : 1;

/** Where the keyboard stands. */
const at = ref({ slot: 0, flow: 0 });
watch(flows, () => (at.value = { slot: Math.min(at.value.slot, slots.value.length - 1), flow: Math.min(at.value.flow, flows.value.length - 1) }));
function move(slot: number, flow: number): void {
  at.value = {
    slot: Math.max(0, Math.min(slots.value.length - 1, at.value.slot + slot)),
    flow: Math.max(0, Math.min(flows.value.length - 1, at.value.flow + flow)),
  };
  places.value.scrollToIndex(at.value.flow);
  void nextTick(() => box.value?.querySelector<HTMLElement>(`[data-cell="${at.value.slot}-${at.value.flow}"]`)?.focus());
}
/** What is pinned stays in sight, above what is said of it. */
watch(
  () => props.pinned,
  (slot) => slot !== null && void nextTick(() => box.value?.querySelector(`[aria-rowindex="${slot + 2}"]`)?.scrollIntoView({ block: 'center' })),
  { immediate: true, flush: 'post' },
);
const MOVES: Record<string, [number, number]> = { ArrowDown: [1, 0], ArrowUp: [-1, 0], ArrowRight: [0, 1], ArrowLeft: [0, -1] };
function key(event: KeyboardEvent): void {
  const by = MOVES[event.key];
  if (by) {
    event.preventDefault();
    move(...by);
  } else if (event.key === 'o' || event.key === 'Enter') {
    event.preventDefault();
    emit('open', flows.value[at.value.flow]!.leads, at.value.slot);
  } else if (event.key === 'p') {
    event.preventDefault();
    emit('pin', at.value.slot);
  }
}
defineExpose({ focus: () => move(0, 0) });
</script>
<template>
  <div
    ref="box"
    class="box"
    role="grid"
    :aria-rowcount="slots.length + 1"
    :aria-colcount="flows.length + 1"
    aria-label="Flows by time"
    @keydown="key"
  >
    <div class="inner" :style="{ width: `${Math.max(places.getTotalSize(), 1)}px` }" role="presentation">
      <div class="head" :class="{ grouped }" role="row" aria-rowindex="1">
        <span role="columnheader" class="corner" aria-colindex="1"><span class="visually-hidden">Time</span></span>
        <span
          v-for="column in places.getVirtualItems()"
          :key="column.key as number"
          role="columnheader"
          class="name"
          :aria-colindex="column.index + 2"
          :style="{ left: `${column.start}px`, width: `${column.size}px` }"
        >
          <ColumnName
            :column="flows[column.index]!"
            :spans="spans(column.index)"
            :slot-word="word"
            @open="emit('column', flows[column.index]!.leads)"
            @fold="emit('fold', flows[column.index]!.group)"
          />
        </span>
      </div>
      <div v-for="(slot, i) in slots" :key="slot.at" class="row" :class="{ pinned: pinned === i }" role="row" :aria-rowindex="i + 2">
        <span role="rowheader" class="time" aria-colindex="1"
          ><RouterLink
            v-if="slot.changes.length > 0"
            :to="{ name: 'changes', query: { e: $route.query.e, w: $route.query.w, change: slot.changes[0]!.id, tab: 'since' } }"
            class="changed"
            :title="changed(slot.changes)"
            :aria-label="changed(slot.changes)"
            ><svg width="14" height="14" viewBox="0 0 24 24" aria-hidden="true">
              <path
                d="M3 13h6c7 0 7-7 3-7s-4 7 3 7h6"
                fill="none"
                stroke="currentColor"
                stroke-width="2.6"
                stroke-linecap="round"
              /></svg></RouterLink
          ><button type="button" :aria-pressed="pinned === i" :title="'The state then'" @click="emit('pin', i)">{{ label(i) }}</button></span
        >
        <template v-for="column in places.getVirtualItems()" :key="column.key as number">
          <span
            role="gridcell"
            class="cell"
            :class="[{ unseen: !slot.seen, marked: flows[column.index]!.cells[i]!.departs }, tone(flows[column.index]!.cells[i]!)]"
            :style="{ left: `${column.start}px`, width: `${column.size - 4}px` }"
            :aria-colindex="column.index + 2"
            :tabindex="at.slot === i && at.flow === column.index ? 0 : -1"
            :data-cell="`${i}-${column.index}`"
            :aria-label="`${cellText(flows[column.index]!.cells[i]!, slot.seen)}; ${flows[column.index]!.label}, ${label(i)}: ${wordsOf(flows[column.index]!.cells[i]!, slot.seen)}`"
            :title="wordsOf(flows[column.index]!.cells[i]!, slot.seen)"
            @click="
              at = { slot: i, flow: column.index };
              emit('open', flows[column.index]!.leads, i);
            "
          >
            <OutcomeGlyph
              v-if="mostlyAmiss(flows[column.index]!.cells[i]!)"
              :outcome="mostlyAmiss(flows[column.index]!.cells[i]!)!"
              :size="16"
              silent
              class="glyph"
            />
            <span class="text" :class="{ soft: flows[column.index]!.cells[i]!.all === 0 }">{{
              cellText(flows[column.index]!.cells[i]!, slot.seen)
            }}</span>
            <svg v-if="flows[column.index]!.cells[i]!.all > 0" class="stitch" width="100%" height="3" aria-hidden="true">
              <line
                x1="0"
                y1="1.5"
                :x2="`${flows[column.index]!.cells[i]!.departs ? Math.max(8, 100 * part(flows[column.index]!.cells[i]!)) : 100}%`"
                y2="1.5"
                :stroke-dasharray="flows[column.index]!.cells[i]!.departs ? undefined : stitches(flows[column.index]!.cells[i]!)"
              />
            </svg>
          </span>
        </template>
      </div>
    </div>
  </div>
</template>
<style scoped>
.box {
  flex: 1;
  overflow: auto;
  min-height: 0;
  padding: 0 0 8px;
}
.inner {
  position: relative;
  min-width: 100%;
}
.head {
  position: sticky;
  top: 0;
  z-index: 3;
  height: 60px;
  background: var(--linen);
  border-bottom: 1px solid var(--seam);
}
.head.grouped {
  height: 80px;
}
.corner {
  position: sticky;
  left: 0;
  display: block;
  width: 76px;
}
.name {
  position: absolute;
  bottom: 2px;
  text-align: right;
  padding-right: 14px;
  box-sizing: border-box;
  line-height: 18px;
}
.row {
  position: relative;
  height: 26px;
}
.row.pinned {
  box-shadow: 0 2px 0 var(--indigo);
}
.time {
  position: sticky;
  left: 0;
  z-index: 2;
  display: block;
  width: 76px;
  height: 26px;
  background: var(--linen);
  text-align: right;
}
.time button {
  background: none;
  border: 0;
  padding: 0 10px 0 4px;
  font: inherit;
  font-size: 12.5px;
  line-height: 26px;
  color: var(--soft-ink);
  font-variant-numeric: tabular-nums;
  cursor: pointer;
  white-space: nowrap;
}
.changed {
  position: absolute;
  left: 0;
  top: 1px;
  width: 24px;
  height: 24px;
  display: grid;
  place-items: center;
  color: var(--walnut);
}
.time button[aria-pressed='true'] {
  background: var(--indigo);
  color: var(--paper);
  border-radius: 3px;
}
.cell {
  position: absolute;
  top: 1px;
  height: 24px;
  box-sizing: border-box;
  padding: 0 8px 0 4px;
  display: flex;
  align-items: center;
  justify-content: flex-end;
  font-variant-numeric: tabular-nums;
  cursor: pointer;
  color: var(--ink);
  --tone: var(--undyed);
}
.cell:hover {
  background: var(--paper);
}
.cell .glyph {
  margin-right: auto;
}
.text {
  white-space: nowrap;
}
.marked .text {
  letter-spacing: -0.01em;
}
.stitch {
  position: absolute;
  left: 0;
  bottom: 0;
  stroke: var(--tone);
  stroke-width: 1;
  opacity: 0.55;
}
.marked {
  font-weight: 700;
  background: color-mix(in srgb, var(--tone) 15%, var(--paper));
  color: var(--tone);
}
.marked .stitch {
  stroke-width: 3;
  opacity: 1;
}
.madder {
  --tone: var(--madder);
}
.weld {
  --tone: var(--weld);
}
.heather {
  --tone: var(--heather);
}
.walnut {
  --tone: var(--walnut);
}
.indigo {
  --tone: var(--indigo);
}
.unseen {
  background: repeating-linear-gradient(135deg, transparent 0 5px, var(--seam) 5px 6px);
}
</style>
