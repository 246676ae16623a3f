<script setup lang="ts">
import type { Strand, StrandLine } from '@fadenweg/api';
import { useElementSize } from '@vueuse/core';
import { computed, nextTick, ref, useTemplateRef, watch } from 'vue';
import { useScrolled } from '../frame/use-scrolled.ts';
import { clock } from '../time/format.ts';
import TimeDots from './TimeDots.vue';
import { apartDots, fittingScale, HEAD, timeLayout, TIMES_LEFT, type Dot } from './time-layout.ts';
import TimePicture from './TimePicture.vue';

/** The strand in proportion to time: wide lanes, a bar for each step, labelled arrows between them, times along the side. */
const props = defineProps<{ strand: Strand; lines: StrandLine[]; selected: string | null; zoom: number }>();
const emit = defineEmits<{ select: [id: string]; zoom: [factor: number] }>();
const scroller = useTemplateRef<HTMLElement>('scroller');
const { top, left } = useScrolled(scroller);
const { width, height } = useElementSize(scroller);
/** Height of the lanes' names: all of it is in sight below them. */
const NAMES = 24;
const layout = computed(() => timeLayout(props.strand, props.lines, fittingScale(props.strand, height.value - NAMES) * props.zoom, width.value));
/** Drawn in bands of this height, and of those only what is in sight or close to it: what stands is not touched while it scrolls. */
const BAND = 240;
const bands = computed(() => {
  const last = Math.max(0, Math.ceil(layout.value.height / BAND) - 1);
  const first = Math.min(last, Math.max(0, Math.floor(top.value / BAND) - 1));
  const end = Math.min(last, Math.floor((top.value + height.value) / BAND) + 1);
  return Array.from({ length: end - first + 1 }, (_, i) => first + i);
});
const endOf = (band: number): number => Math.min(layout.value.height, (band + 1) * BAND);
const dots = computed(() => {
  const own = new Map<number, Dot[]>();
  for (const dot of apartDots(layout.value.dots, props.selected)) {
    const band = Math.floor(dot.y / BAND);
    const there = own.get(band);
    if (there) there.push(dot);
    else own.set(band, [dot]);
  }
  return own;
});
const NONE: Dot[] = [];
const knots = computed(() => new Set(props.strand.findings.map((finding) => finding.record.id)));
const isBad = (line: StrandLine): boolean => line.marks.includes('failing') || knots.value.has(line.id);
const order = computed(() => [...layout.value.dots].sort((a, b) => a.y - b.y));
const picked = computed(() => order.value.find((dot) => dot.line.id === props.selected) ?? null);
watch([picked, layout], () => {
  const box = scroller.value;
  if (!box || !picked.value) return;
  if (picked.value.y < box.scrollTop + HEAD + 10 || picked.value.y > box.scrollTop + box.clientHeight - 30) box.scrollTop = picked.value.y - box.clientHeight / 2;
  if (picked.value.x < box.scrollLeft + TIMES_LEFT || picked.value.x > box.scrollLeft + box.clientWidth - 30) box.scrollLeft = picked.value.x - box.clientWidth / 2;
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
      <div class="bands" :style="{ width: `${layout.width}px`, height: `${layout.height}px` }" role="presentation">
        <TimePicture
          v-for="band in bands"
          :key="band"
          :layout="layout"
          :from="band * BAND"
          :to="endOf(band)"
          :left="left"
          :style="{ top: `${band * BAND}px` }"
        />
        <TimeDots
          v-for="band in bands"
          :key="band"
          :dots="dots.get(band) ?? NONE"
          :width="layout.width"
          :from="band * BAND"
          :to="endOf(band)"
          :selected="selected"
          :is-bad="isBad"
          :style="{ top: `${band * BAND}px` }"
          @select="(id) => emit('select', id)"
        />
      </div>
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
  background: var(--linen);
  will-change: scroll-position;
  flex: 1;
  overflow: auto;
  min-height: 0;
  margin-top: 40px;
  border-top: 1px solid var(--seam);
  outline-offset: -2px;
}
.bands {
  position: relative;
  /* a layer of its own: what is beside it is not drawn anew with it */
  will-change: transform;
}
.bands > :deep(svg) {
  position: absolute;
  left: 0;
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
