<script setup lang="ts">
import type { Change, Coverage } from '@fadenweg/api';
import { useElementSize } from '@vueuse/core';
import { scaleTime } from 'd3-scale';
import { computed, ref, useTemplateRef } from 'vue';
import RailMarks from '../changes/RailMarks.vue';
import { count, dayAndClock, clock } from '../time/format.ts';
import { tickLabels } from '../time/tick-labels.ts';
import type { Tally } from './use-tally.ts';

/** Time running down, with what is found as bars to the right: plain, warnings, errors. Dragging sets the window, wheel and keys move it. */
const props = defineProps<{
  tally: Tally;
  coverage: Coverage | null;
  /** Between which moments the visible lines lie, in milliseconds. */
  sight?: [number, number] | null;
  /** Marked where they happened. */
  changes?: readonly Change[];
}>();
const emit = defineEmits<{ window: [from: number, to: number] }>();
const box = useTemplateRef<HTMLElement>('box');
const { height } = useElementSize(box);
const WIDTH = 112;
const LEFT = 40;
const PAD = 8;
const inner = computed(() => Math.max(100, height.value - 2 * PAD));
const end = computed(() => props.tally.from + props.tally.slotMs * props.tally.slots.length);
const scale = computed(() =>
  scaleTime()
    .domain([props.tally.from, end.value])
    .range([PAD, PAD + inner.value]),
);
const most = computed(() => Math.max(1, ...props.tally.slots.map((slot) => Object.values(slot).reduce((sum, one) => sum + one, 0))));
const bars = computed(() =>
  props.tally.slots.map((slot, i) => {
    const bad = (slot.error ?? 0) + (slot.fatal ?? 0);
    const warned = slot.warning ?? 0;
    const all = Object.values(slot).reduce((sum, one) => sum + one, 0);
    // a root keeps single errors to be seen beside thousands of lines
    const room = all === 0 ? 0 : Math.max(2, Math.sqrt(all / most.value) * (WIDTH - LEFT - 12));
    const badWidth = bad === 0 ? 0 : Math.max(2, (room * bad) / all);
    const warnWidth = warned === 0 ? 0 : Math.max(2, (room * warned) / all);
    const from = props.tally.from + i * props.tally.slotMs;
    return {
      y: scale.value(from),
      height: Math.max(1, inner.value / props.tally.slots.length - 0.6),
      plain: Math.max(0, room - badWidth - warnWidth),
      warned: warnWidth,
      bad: badWidth,
      words:
        all === 0
          ? ''
          : `${dayAndClock(new Date(from).toISOString())}: ${count(all)} records${bad ? `, ${count(bad)} errors` : ''}${warned ? `, ${count(warned)} warnings` : ''}`,
    };
  }),
);
const ticks = computed(() => {
  const times = scale.value.ticks(Math.max(3, Math.floor(inner.value / 60)));
  const labels = tickLabels(times);
  return times.map((time, i) => ({ y: scale.value(time), text: labels[i]! }));
});
/** How many sources speak, from all of them (1) to none. */
const silent = computed(() => {
  const items = props.coverage?.items.filter((item) => item.stretches.length > 0) ?? [];
  return props.tally.slots.map((_, i) => {
    const from = props.tally.from + i * props.tally.slotMs;
    return items.length === 0
      ? 0
      : items.filter((item) => item.stretches.some(([a, b]) => a < from + props.tally.slotMs && b > from)).length / items.length;
  });
});
const dragged = ref<[number, number] | null>(null);
function place(event: PointerEvent): number {
  const bounds = box.value!.getBoundingClientRect();
  return Math.min(end.value, Math.max(props.tally.from, scale.value.invert(event.clientY - bounds.top).getTime()));
}
function press(event: PointerEvent): void {
  const begin = place(event);
  (event.currentTarget as Element).setPointerCapture(event.pointerId);
  dragged.value = [begin, begin];
}
function move(event: PointerEvent): void {
  if (dragged.value) dragged.value = [dragged.value[0], place(event)];
}
function release(): void {
  const range = dragged.value;
  dragged.value = null;
  if (!range) return;
  const [from, to] = range[0] < range[1] ? range : [range[1], range[0]];
  if (to - from >= Math.max(1000, props.tally.slotMs / 2)) emit('window', Math.floor(from), Math.ceil(to));
}
/** As exact as a step of the hand. */
const edgeTime = (at: number): string => clock(new Date(at).toISOString(), end.value - props.tally.from < 600_000 ? 3 : 0);
function shift(share: number): void {
  const by = (end.value - props.tally.from) * share;
  emit('window', Math.floor(props.tally.from + by), Math.ceil(end.value + by));
}
/** Around the middle of the window, or of the lines in sight. */
function zoom(factor: number): void {
  const middle = props.sight ? (props.sight[0] + props.sight[1]) / 2 : (props.tally.from + end.value) / 2;
  const half = Math.max(500, ((end.value - props.tally.from) * factor) / 2);
  emit('window', Math.floor(middle - half), Math.ceil(middle + half));
}
const wheel = (event: WheelEvent): void =>
  event.shiftKey ? zoom(event.deltaY + event.deltaX > 0 ? 1.6 : 0.6) : shift(Math.sign(event.deltaY) * 0.2);
function key(event: KeyboardEvent): void {
  const act = { ArrowDown: () => shift(0.2), ArrowUp: () => shift(-0.2), PageDown: () => shift(1), PageUp: () => shift(-1), '+': () => zoom(0.5), '-': () => zoom(2) }[event.key]; // prettier-ignore
  if (!act) return;
  event.preventDefault();
  act();
}
const bracket = computed(() => {
  if (!props.sight) return null;
  const [from, to] = props.sight.map((one) => scale.value(Math.min(end.value, Math.max(props.tally.from, one)))) as [number, number];
  return { y: Math.min(from, height.value - 4), height: Math.max(3, to - from) };
});
</script>
<template>
  <div class="beside">
    <div
      ref="box"
      class="rail"
      role="slider"
      tabindex="0"
      aria-orientation="vertical"
      :aria-valuemin="0"
      :aria-valuemax="100"
      :aria-valuenow="50"
      :aria-valuetext="`${dayAndClock(new Date(tally.from).toISOString())} to ${dayAndClock(new Date(end).toISOString())}: ${count(tally.total)} records`"
      aria-label="Time window: drag to set it, arrow keys move it, plus and minus change its length"
      @pointerdown.prevent="press"
      @pointermove="move"
      @pointerup="release"
      @wheel.prevent="wheel"
      @keydown="key"
    >
      <svg :width="WIDTH" :height="height" aria-hidden="true">
        <text v-for="tick in ticks" :key="tick.y" x="34" :y="tick.y + 4" text-anchor="end" class="tick">{{ tick.text }}</text>
        <rect
          v-for="(share, i) in silent"
          :key="`c${i}`"
          class="thread"
          :x="LEFT"
          :y="bars[i]!.y"
          :width="1 + share * 2"
          :height="bars[i]!.height + 0.7"
          :opacity="share"
        />
        <g v-for="(bar, i) in bars" :key="i">
          <rect class="plain" :x="LEFT + 6" :y="bar.y" :width="bar.plain" :height="bar.height" />
          <rect class="warned" :x="LEFT + 6 + bar.plain" :y="bar.y" :width="bar.warned" :height="bar.height" />
          <rect class="failed" :x="LEFT + 6 + bar.plain + bar.warned" :y="bar.y" :width="bar.bad" :height="bar.height" />
          <rect v-if="bar.words" class="over" :x="LEFT" :y="bar.y" :width="WIDTH - LEFT" :height="bar.height + 0.6">
            <title>{{ bar.words }}</title>
          </rect>
        </g>
        <path v-if="bracket" class="sight" :d="`M${WIDTH - 6} ${bracket.y}h4v${bracket.height}h-4`" />
        <rect
          v-if="dragged"
          class="dragged"
          :x="LEFT - 2"
          :width="WIDTH - LEFT"
          :y="scale(Math.min(...dragged))"
          :height="Math.max(1, scale(Math.max(...dragged)) - scale(Math.min(...dragged)))"
        />
        <template v-if="dragged">
          <text :x="LEFT + 2" :y="Math.max(11, scale(Math.min(...dragged)) - 4)" class="edge-time">{{ edgeTime(Math.min(...dragged)) }}</text>
          <text :x="LEFT + 2" :y="Math.min(height - 3, scale(Math.max(...dragged)) + 13)" class="edge-time">
            {{ edgeTime(Math.max(...dragged)) }}
          </text>
        </template>
      </svg>
    </div>
    <RailMarks v-if="changes?.length" :changes="changes" :place="scale" :height="height" />
  </div>
</template>
<style scoped>
.beside {
  position: relative;
  flex: none;
  display: flex;
}
.rail {
  width: 112px;
  flex: none;
  cursor: crosshair;
  border-right: 1px solid var(--seam);
  touch-action: none;
  user-select: none;
}
svg {
  display: block;
}
.tick {
  font-size: 11px;
  fill: var(--soft-ink);
  font-variant-numeric: tabular-nums;
}
.thread {
  fill: var(--woad);
}
.plain {
  fill: var(--undyed);
}
.warned {
  fill: var(--weld);
}
.failed {
  fill: var(--madder);
}
.over {
  fill: transparent;
}
.sight {
  fill: none;
  stroke: var(--indigo);
  stroke-width: 2;
}
.edge-time {
  font-size: 11.5px;
  font-weight: 700;
  fill: var(--ink);
  stroke: var(--linen);
  stroke-width: 3px;
  paint-order: stroke;
  font-variant-numeric: tabular-nums;
}
.dragged {
  fill: var(--indigo);
  fill-opacity: 0.15;
  stroke: var(--indigo);
}
</style>
