<script setup lang="ts">
import { computed } from 'vue';
import { HEAD, partOf, type Arrow, type TimeLayout } from './time-layout.ts';

/** Of the picture of a strand in proportion to time what lies between two heights: all but the records. */
const props = defineProps<{
  layout: TimeLayout;
  from: number;
  to: number;
  /** Pixels that it is scrolled to the right: times stay in sight. */
  left: number;
}>();
const part = computed(() => partOf(props.layout, props.from, props.to));
/** Lines of a kind are one path: each element that a browser has to lay out costs while it scrolls. */
const paths = computed(() => {
  const { ticks, arrows } = part.value;
  const begin = Math.max(HEAD, props.from);
  const lines = (some: Arrow[]): string => some.map(({ from, to }) => `M${from.x} ${from.y}L${to.x} ${to.y}`).join('');
  return {
    lanes: props.layout.lanes.map(({ x }) => `M${x} ${begin}V${props.to}`).join(''),
    ticks: ticks.map(({ y }) => `M76 ${y}H${props.layout.width}`).join(''),
    there: lines(arrows.filter((one) => !one.back)),
    back: lines(arrows.filter((one) => one.back)),
    heads: arrows.map(({ from, to }) => `M${to.x} ${to.y}l${to.x > from.x ? -7 : 7} -3.4v6.8z`).join(''),
  };
});
const labelled = computed(() => part.value.arrows.filter((one) => one.label));
const SHORT = 7;
const cut = (text: string, room: number): string =>
  text.length * SHORT > room ? `${text.slice(0, Math.max(3, Math.floor(room / SHORT) - 1))}…` : text;
const room = (from: number, to: number): number => Math.abs(to - from) - 22;
</script>
<template>
  <svg
    :width="layout.width"
    :height="to - from"
    :viewBox="`0 ${from} ${layout.width} ${to - from}`"
    class="picture"
    role="presentation"
    aria-hidden="true"
  >
    <path :d="paths.lanes" :stroke-dashoffset="Math.max(HEAD, from)" class="lane" />
    <path :d="paths.ticks" class="tick" />
    <g v-for="one in part.breaks" :key="one.y">
      <rect x="0" :y="one.y - 11" :width="layout.width" height="22" class="ground" />
      <text x="92" :y="one.y + 4" class="time later">{{ one.text }}</text>
    </g>
    <rect v-for="bar in part.bars" :key="bar.step" :x="bar.x" :y="bar.y" width="9" :height="bar.height" class="bar" :class="`outcome-${bar.outcome}`">
      <title>{{ bar.words }}</title>
    </rect>
    <rect v-for="(wait, i) in part.waits" :key="i" :x="wait.x" :y="wait.y" width="9" :height="wait.height" class="wait" :class="wait.kind" />
    <path :d="paths.there" class="arrow" />
    <path :d="paths.back" class="arrow back" />
    <path :d="paths.heads" class="head" />
    <text
      v-for="arrow in labelled"
      :key="arrow.key"
      :x="(arrow.from.x + arrow.to.x) / 2"
      :y="(arrow.from.y + arrow.to.y) / 2 - 3"
      text-anchor="middle"
      class="label"
    >
      {{ cut(arrow.label!, room(arrow.from.x, arrow.to.x)) }}
    </text>
    <text v-for="(tick, i) in part.ticks" :key="i" :x="72 + left" :y="tick.y + 4" text-anchor="end" class="time">{{ tick.text }}</text>
  </svg>
</template>
<style scoped>
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
.time {
  /* readable also where it lies over a bar */
  paint-order: stroke;
  stroke: var(--linen);
  stroke-width: 5px;
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
  fill: none;
  stroke: var(--soft-ink);
  stroke-width: 1.3;
}
.back {
  stroke-dasharray: 4 3;
}
.head {
  fill: var(--soft-ink);
}
</style>
