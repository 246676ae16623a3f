<script setup lang="ts">
import type { Strand, StrandLine } from '@fadenweg/api';
import { useElementSize, useScroll } from '@vueuse/core';
import { computed, nextTick, ref, useTemplateRef, watch } from 'vue';
import { clock } from '../time/format.ts';
import { fittingScale, HEAD, timeLayout } from './time-layout.ts';

/** The strand in proportion to time: wide lanes, a bar for each step, labelled arrows between them, times along the side. */
const props = defineProps<{ strand: Strand; lines: StrandLine[]; selected: string | null; zoom: number }>();
const emit = defineEmits<{ select: [id: string]; zoom: [factor: number] }>();
const scroller = useTemplateRef<HTMLElement>('scroller');
const { y: top, x: left } = useScroll(scroller);
const { width, height } = useElementSize(scroller);
const layout = computed(() => timeLayout(props.strand, props.lines, fittingScale(props.strand, height.value) * props.zoom, width.value));
const BESIDE = 260;
/** Only what is in sight is drawn, and it changes only every so many pixels: in between the browser scrolls alone. */
const drawn = computed(() => Math.floor(top.value / BESIDE) * BESIDE);
const inSight = (from: number, to: number): boolean => to >= drawn.value - BESIDE && from <= drawn.value + height.value + 2 * BESIDE;
const bars = computed(() => layout.value.bars.filter((one) => inSight(one.y, one.y + one.height)));
const arrows = computed(() => layout.value.arrows.filter((one) => inSight(Math.min(one.from.y, one.to.y), Math.max(one.from.y, one.to.y))));
const waits = computed(() => layout.value.waits.filter((one) => inSight(one.y, one.y + one.height)));
const ticks = computed(() => layout.value.ticks.filter((one) => inSight(one.y, one.y)));
/** Records that would lie on the same point are one. */
const dots = computed(() => {
  const seen = new Set<string>();
  return layout.value.dots.filter((dot) => {
    if (!inSight(dot.y, dot.y)) return false;
    const telling = dot.line.id === props.selected || dot.line.marks.includes('failing');
    const place = `${dot.x} ${Math.round(dot.y / 2)} ${telling}`;
    return !seen.has(place) && seen.add(place);
  });
});
const knots = computed(() => new Set(props.strand.findings.map((finding) => finding.record.id)));
const isBad = (line: StrandLine): boolean => line.marks.includes('failing') || knots.value.has(line.id);
const order = computed(() => [...layout.value.dots].sort((a, b) => a.y - b.y));
const picked = computed(() => order.value.find((dot) => dot.line.id === props.selected) ?? null);
watch([picked, layout], () => {
  const box = scroller.value;
  if (!box || !picked.value) return;
  if (picked.value.y < box.scrollTop + HEAD + 10 || picked.value.y > box.scrollTop + box.clientHeight - 30) box.scrollTop = picked.value.y - box.clientHeight / 2;
}); // prettier-ignore
function neighbour(by: 1 | -1, wanted: (line: StrandLine) => boolean): void {
  let index = order.value.findIndex((dot) => dot.line.id === props.selected);
  if (index < 0) index = by > 0 ? -1 : order.value.length;
  for (index += by; index >= 0 && index < order.value.length; index += by) {
    const { line } = order.value[index]!;
    if (wanted(line)) return emit('select', line.id);
  }
}
defineExpose({ next: (by: 1 | -1) => neighbour(by, () => true), nextKnot: (by: 1 | -1) => neighbour(by, isBad) });
/** Zooms around the middle of what is in sight. */
function wheel(event: WheelEvent): void {
  if (!event.ctrlKey && !event.metaKey) return;
  event.preventDefault();
  emit('zoom', event.deltaY < 0 ? 1.25 : 0.8);
}
const middle = ref<number | null>(null);
watch(() => props.zoom, (now, before) => {
  const box = scroller.value;
  if (!box) return;
  middle.value = (box.scrollTop + box.clientHeight / 2 - HEAD) * (now / before);
  void nextTick(() => {
    if (middle.value !== null) box.scrollTop = middle.value + HEAD - box.clientHeight / 2;
    middle.value = null;
  });
}); // prettier-ignore
const SHORT = 7;
const cut = (text: string, room: number): string =>
  text.length * SHORT > room ? `${text.slice(0, Math.max(3, Math.floor(room / SHORT) - 1))}…` : text;
const room = (from: number, to: number): number => Math.abs(to - from) - 22;
</script>
<template>
  <section class="timed" aria-label="Weave in proportion to time">
    <div
      ref="scroller"
      class="scroller"
      tabindex="0"
      role="listbox"
      aria-label="Records in proportion to time; j and k move, plus and minus zoom"
      :aria-activedescendant="picked ? `dot-${picked.line.id}` : undefined"
      @wheel="wheel"
    >
      <div class="names" :style="{ width: `${layout.width}px` }" role="presentation">
        <span
          v-for="lane in layout.lanes"
          :key="lane.name"
          :style="{ left: `${lane.x - layout.laneWidth / 2}px`, width: `${layout.laneWidth}px` }"
          :title="lane.name"
          >{{ lane.name }}</span
        >
      </div>
      <svg :width="layout.width" :height="layout.height" class="picture" role="presentation">
        <g role="presentation" aria-hidden="true">
          <line v-for="lane in layout.lanes" :key="lane.name" :x1="lane.x" :x2="lane.x" :y1="HEAD" :y2="layout.height" class="lane" />
          <g v-for="(tick, i) in ticks" :key="i">
            <line :x1="76" :x2="layout.width" :y1="tick.y" :y2="tick.y" class="tick" />
            <text :x="72 + left" :y="tick.y + 4" text-anchor="end" class="time">{{ tick.text }}</text>
          </g>
          <g v-for="one in layout.breaks" :key="one.y">
            <rect x="0" :y="one.y - 11" :width="layout.width" height="22" class="ground" />
            <text x="92" :y="one.y + 4" class="time later">{{ one.text }}</text>
          </g>
          <rect
            v-for="bar in bars"
            :key="bar.step"
            :x="bar.x"
            :y="bar.y"
            width="9"
            :height="bar.height"
            class="bar"
            :class="`outcome-${bar.outcome}`"
          >
            <title>{{ bar.words }}</title>
          </rect>
          <rect v-for="(wait, i) in waits" :key="i" :x="wait.x" :y="wait.y" width="9" :height="wait.height" class="wait" :class="wait.kind" />
          <g v-for="arrow in arrows" :key="arrow.key">
            <line :x1="arrow.from.x" :y1="arrow.from.y" :x2="arrow.to.x" :y2="arrow.to.y" class="arrow" :class="{ back: arrow.back }" />
            <path :d="`M${arrow.to.x} ${arrow.to.y} l${arrow.to.x > arrow.from.x ? -7 : 7} -3.4 v6.8 z`" class="head" />
            <text v-if="arrow.label" :x="(arrow.from.x + arrow.to.x) / 2" :y="(arrow.from.y + arrow.to.y) / 2 - 3" text-anchor="middle" class="label">
              {{ cut(arrow.label, room(arrow.from.x, arrow.to.x)) }}
            </text>
          </g>
        </g>
        <circle
          v-for="dot in dots"
          :id="`dot-${dot.line.id}`"
          :key="dot.line.id"
          :cx="dot.x"
          :cy="dot.y"
          :r="dot.line.id === selected ? 6 : isBad(dot.line) ? 4.5 : 3"
          class="dot"
          role="option"
          :aria-selected="dot.line.id === selected"
          :aria-label="`${clock(dot.line.at)} ${dot.line.component}: ${dot.line.message.slice(0, 120)}`"
          :class="{ bad: isBad(dot.line), picked: dot.line.id === selected }"
          @click="emit('select', dot.line.id)"
        >
          <title>{{ clock(dot.line.at) }} {{ dot.line.component }}: {{ dot.line.message.slice(0, 300) }}</title>
        </circle>
      </svg>
    </div>
    <p v-if="picked" class="telling mono" role="status">
      <span class="soft">{{ clock(picked.line.at) }}</span> {{ picked.line.component }}: {{ picked.line.message.split('\n', 1)[0]!.slice(0, 400) }}
    </p>
  </section>
</template>
<style scoped>
.timed {
  display: flex;
  flex-direction: column;
  min-height: 0;
}
.scroller {
  flex: 1;
  overflow: auto;
  min-height: 0;
  margin-top: 40px;
  border-top: 1px solid var(--seam);
  outline-offset: -2px;
}
.names {
  position: sticky;
  top: 0;
  z-index: 1;
  height: 24px;
  background: var(--linen);
  border-bottom: 1px solid var(--seam);
}
.names span {
  position: absolute;
  top: 3px;
  text-align: center;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
  padding: 0 4px;
  box-sizing: border-box;
}
.picture {
  display: block;
}
.lane {
  stroke: var(--strong-seam);
  stroke-dasharray: 1.5 3;
}
.tick {
  stroke: var(--seam);
}
.time,
.label {
  font-size: 11.5px;
  fill: var(--soft-ink);
}
.label {
  fill: var(--ink);
}
.later {
  font-weight: 700;
}
.ground {
  fill: var(--linen);
}
.bar {
  fill: var(--indigo);
  opacity: 0.75;
}
.bar.outcome-failed,
.bar.outcome-refused {
  fill: var(--madder);
}
.wait {
  fill: var(--linen);
  stroke: var(--soft-ink);
  stroke-dasharray: 2 2;
}
.wait.lock-wait {
  fill: var(--weld-wash);
  stroke: var(--weld);
}
.arrow {
  stroke: var(--soft-ink);
  stroke-width: 1.3;
}
.back {
  stroke-dasharray: 4 3;
}
.head {
  fill: var(--soft-ink);
}
.dot {
  fill: var(--linen);
  stroke: var(--indigo);
  stroke-width: 1.6;
  cursor: pointer;
}
.dot.bad {
  fill: var(--madder);
  stroke: var(--madder);
}
.dot.picked {
  fill: var(--weld);
  stroke: var(--ink);
}
.telling {
  flex: none;
  margin: 0;
  padding: 4px 16px;
  border-top: 1px solid var(--seam);
  white-space: nowrap;
  overflow: hidden;
  text-overflow: ellipsis;
}
</style>
