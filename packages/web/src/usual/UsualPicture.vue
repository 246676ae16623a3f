<script setup lang="ts">
import { computed } from 'vue';
import { LANE_LEFT, laneWidth, passage } from '../weave/geometry.ts';
import { ROW } from './rows.ts';

/** The usual path as a weave: a lane a component, time running down; what fewer have hangs on a thinner thread. */
const props = defineProps<{ lanes: readonly string[]; stitches: readonly { lane: number; share: number }[] }>();
const HEAD = 96;
const gap = computed(() => laneWidth(props.lanes.length));
const width = computed(() => LANE_LEFT + props.lanes.length * gap.value + 40);
const x = (lane: number): number => LANE_LEFT + lane * gap.value;
const y = (index: number): number => HEAD + index * ROW + ROW / 2;
/** The main thread goes through what more than half have; the rest hangs on what comes before it. */
const threads = computed(() => {
  let main = -1;
  return props.stitches.flatMap(({ lane, share }, index) => {
    const from = main;
    if (share >= 0.5) main = index;
    if (from < 0) return [];
    const start = { x: x(props.stitches[from]!.lane), y: y(from) };
    return [{ d: passage(start, { x: x(lane), y: y(index) }), main: share >= 0.5, key: index }];
  });
});
</script>
<template>
  <svg :width="width" :height="HEAD + stitches.length * ROW" class="picture" aria-hidden="true">
    <g v-for="(lane, i) in lanes" :key="lane">
      <line :x1="x(i)" :x2="x(i)" :y1="HEAD - 8" :y2="HEAD + stitches.length * ROW" class="lane" />
      <text :transform="`translate(${x(i) + 3} ${HEAD - 12}) rotate(-50)`" class="name">{{ lane }}</text>
    </g>
    <path v-for="thread in threads" :key="thread.key" :d="thread.d" :class="thread.main ? 'main' : 'side'" />
    <circle
      v-for="(stitch, i) in stitches"
      :key="i"
      :cx="x(stitch.lane)"
      :cy="y(i)"
      :r="stitch.share >= 0.5 ? 4 : 3"
      :class="stitch.share >= 0.5 ? 'often' : 'rarely'"
    />
  </svg>
</template>
<style scoped>
.picture {
  flex: none;
  display: block;
}
.lane {
  stroke: var(--seam);
}
.name {
  font-size: 11.5px;
  fill: var(--soft-ink);
}
.main,
.side {
  fill: none;
  stroke: var(--indigo);
  stroke-width: 2;
}
.side {
  stroke-width: 1;
  stroke-dasharray: 3 3;
}
.often {
  fill: var(--indigo);
}
.rarely {
  fill: var(--linen);
  stroke: var(--indigo);
}
</style>
