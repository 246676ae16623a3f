<script setup lang="ts">
import type { Strand, StrandLine } from '@fadenweg/api';
import { useElementSize } from '@vueuse/core';
import { computed, nextTick, ref, useTemplateRef, watch } from 'vue';
import { useScrolled } from '../frame/use-scrolled.ts';
import { clock } from '../time/format.ts';
import { apartDots, fittingScale, HEAD, timeLayout } from './time-layout.ts';
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
const BESIDE = 260;
/** Only what is in sight is drawn, and it changes only every so many pixels: in between the browser scrolls alone. */
const drawn = computed(() => Math.floor(top.value / BESIDE) * BESIDE);
const inSight = (from: number, to: number): boolean => to >= drawn.value - BESIDE && from <= drawn.value + height.value + 2 * BESIDE;
const band = computed(() => ({
  from: Math.max(HEAD, drawn.value - BESIDE),
  to: Math.min(layout.value.height, drawn.value + height.value + 2 * BESIDE),
}));
const sight = computed(() => {
  const all = layout.value;
  return {
    ...all,
    bars: all.bars.filter((one) => inSight(one.y, one.y + one.height)),
    arrows: all.arrows.filter((one) => inSight(Math.min(one.from.y, one.to.y), Math.max(one.from.y, one.to.y))),
    waits: all.waits.filter((one) => inSight(one.y, one.y + one.height)),
    ticks: all.ticks.filter((one) => inSight(one.y, one.y)),
    dots: apartDots(
      all.dots.filter((dot) => inSight(dot.y, dot.y)),
      props.selected,
    ),
  };
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
      <TimePicture :layout="sight" :band="band" :selected="selected" :is-bad="isBad" :left="left" @select="(id) => emit('select', id)" />
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
