<script setup lang="ts">
import type { Step } from '@fadenweg/api';
import { computed } from 'vue';
import { OUTCOME_PATHS } from '../glyphs/outcomes.ts';
import { comesFrom, LANE_LEFT, laneWidth, passage, points } from './geometry.ts';
import { ROW_HEIGHT, type Row } from './rows.ts';

/** The strand as it passes from lane to lane; only the rows in sight are drawn. */
const props = defineProps<{ rows: Row[]; lanes: string[]; steps: readonly Step[]; from: number; to: number }>();
const step = computed(() => laneWidth(props.lanes.length));
const width = computed(() => LANE_LEFT * 2 + (props.lanes.length - 1) * step.value);
const height = computed(() => props.rows.length * ROW_HEIGHT);
const all = computed(() => points(props.rows, props.lanes));
const came = computed(() => comesFrom(props.rows, props.steps));
/** Dashed lines are drawn where they are in sight alone: each dash of one that is longer costs. */
const band = computed(() => ({ from: Math.max(0, props.from - 2) * ROW_HEIGHT, to: Math.min(props.rows.length, props.to + 2) * ROW_HEIGHT }));
const seen = computed(() => {
  const begin = Math.max(0, props.from - 2);
  return props.rows.slice(begin, props.to + 2).map((row, offset) => ({
    row,
    index: begin + offset,
    at: all.value[begin + offset]!,
    before: came.value[begin + offset]!.map((index) => all.value[index]!),
  }));
});
/** What goes on over rows in between; there are few of them. */
const long = computed(() =>
  came.value.flatMap((sources, index) => sources.flatMap((source, way) => (source < index - 1 ? [{ source, index, way }] : []))),
);
/** What passes by from above to below what is in sight. */
const passing = computed(() =>
  long.value
    .filter(({ source, index }) => index >= props.to + 2 && source < props.from - 2)
    .map(({ source, index, way }) => passage(all.value[source]!, all.value[index]!, way > 0)),
);
const laneX = (lane: string): number => LANE_LEFT + props.lanes.indexOf(lane) * step.value;
/** The head of a message's arrow; at the stitch it ends before the dot. */
function arrow(comesIn: boolean, peer: number, stitch: number, y: number): string {
  const right = comesIn === peer < stitch;
  const tip = comesIn ? stitch + (peer < stitch ? -4 : 4) : peer;
  return `M${tip} ${y} l${right ? -7 : 7} -3.6 v7.2 z`;
}
const carried = (row: Row): boolean => row.kind === 'line' && row.line.because === 'carried-over';
const failing = (row: Row): boolean => row.kind === 'line' && row.line.marks.includes('failing');
</script>
<template>
  <svg :width="width" :height="height" class="weave" aria-hidden="true">
    <line
      v-for="(lane, index) in lanes"
      :key="lane"
      :x1="LANE_LEFT + index * step"
      :x2="LANE_LEFT + index * step"
      :y1="band.from"
      :y2="band.to"
      :stroke-dashoffset="band.from"
      class="lane"
    />
    <path v-for="path in passing" :key="path" :d="path" class="strand" />
    <g v-for="one in seen" :key="one.index">
      <path
        v-for="(before, way) in one.before"
        :key="way"
        :d="passage(before, one.at, way > 0)"
        :class="one.row.kind === 'gap' || rows[one.index - 1]?.kind === 'gap' ? 'strand waiting' : 'strand'"
      />
      <template v-if="one.row.kind === 'line' && one.row.peer">
        <line :x1="laneX(one.row.peer)" :x2="one.at.x" :y1="one.at.y" :y2="one.at.y" class="message" :class="{ bad: failing(one.row) }" />
        <path
          :d="arrow(one.row.line.attributes.direction === 'in', laneX(one.row.peer), one.at.x, one.at.y)"
          class="arrow"
          :class="{ bad: failing(one.row) }"
        />
      </template>
      <g v-if="one.row.kind === 'gap'" :transform="`translate(${one.at.x - 9} ${one.at.y - 9})`">
        <rect width="18" height="18" class="ground" />
        <path :d="OUTCOME_PATHS.slow" class="glyph" :class="one.row.lock ? 'weld' : 'soft-mark'" />
      </g>
      <g v-else-if="one.row.kind === 'line' && one.row.knot" :transform="`translate(${one.at.x - 9} ${one.at.y - 9})`">
        <circle cx="9" cy="9" r="9" class="ground" />
        <path :d="OUTCOME_PATHS[one.row.knot]" class="glyph" :class="`outcome-${one.row.knot}`" />
      </g>
      <path
        v-else-if="one.row.kind === 'change' && lanes.includes(one.row.component)"
        class="change"
        :d="`M${laneX(one.row.component) - 8} ${one.at.y}h5c6 0 6 -5.5 2.5 -5.5s-3.5 5.5 2.5 5.5h6`"
      />
      <circle
        v-else-if="one.row.kind === 'line'"
        :cx="one.at.x"
        :cy="one.at.y"
        :r="one.row.folded ? 5 : 3.4"
        :class="['stitch', { bad: failing(one.row), carried: carried(one.row) }]"
      />
    </g>
  </svg>
</template>
<style scoped>
.change {
  fill: none;
  stroke: var(--walnut);
  stroke-width: 1.6;
}
.weave {
  display: block;
  /* a layer of its own: what is beside it is not drawn anew with it */
  will-change: transform;
  flex: none;
}
.lane {
  stroke: var(--strong-seam);
  stroke-dasharray: 1.5 3;
}
.strand {
  fill: none;
  stroke: var(--indigo);
  stroke-width: 2.4;
}
.strand.waiting {
  stroke: var(--weld);
  stroke-dasharray: 4 3;
}
.stitch {
  fill: var(--indigo);
}
.stitch.bad {
  fill: var(--madder);
}
.stitch.carried {
  fill: var(--linen);
  stroke: var(--indigo);
  stroke-width: 1.6;
}
.message {
  stroke: var(--soft-ink);
  stroke-width: 1.4;
}
.arrow {
  fill: var(--soft-ink);
}
.message.bad {
  stroke: var(--madder);
}
.arrow.bad {
  fill: var(--madder);
}
.ground {
  fill: var(--linen);
}
.glyph {
  fill: none;
  stroke: currentColor;
  stroke-width: 2.2;
  stroke-linecap: round;
  stroke-linejoin: round;
}
.madder {
  stroke: var(--madder);
}
.weld {
  stroke: var(--weld);
}
.soft-mark {
  stroke: var(--soft-ink);
}
</style>
