<script setup lang="ts">
import type { FaultDetail } from '@fadenweg/api';
import { computed } from 'vue';
import { OUTCOME_PATHS } from '../glyphs/outcomes.ts';
import { count } from '../time/format.ts';
import { wayRows } from './ways.ts';

/** How strands come to this place and end there, the usual way beside it: a lane for each component, time running down. */
const props = defineProps<{ fault: FaultDetail }>();
const [ROW, TOP, LEFT, WIDE, MOST] = [26, 14, 12, 372, 26];
const rows = computed(() => wayRows(props.fault));
const lane = computed(() => Math.min(MOST, 190 / Math.max(1, rows.value.length)));
const x = (i: number): number => LEFT + i * lane.value;
const y = (i: number): number => TOP + i * ROW;
const names = computed(() => x(rows.value.length - 1) + 22);
const height = computed(() => y(rows.value.length - 1) + TOP);
const most = computed(() => Math.max(1, ...rows.value.map((one) => one.passed ?? 0)));
/** From stitch to stitch of those for which it holds. */
function threads(of: (i: number) => boolean): { path: string; to: number }[] {
  const own = rows.value.flatMap((_, i) => (of(i) ? [i] : []));
  return own.slice(1).map((to, k) => {
    const from = own[k]!;
    return { path: `M${x(from)} ${y(from)} C${x(from)} ${y(to) - ROW / 3} ${x(to)} ${y(from) + ROW / 3} ${x(to)} ${y(to)}`, to };
  });
}
const usual = computed(() => threads((i) => rows.value[i]!.usual));
const own = computed(() =>
  threads((i) => rows.value[i]!.passed !== null).map(({ path, to }) => ({ path, width: 1.2 + (3.3 * rows.value[to]!.passed!) / most.value })),
);
const words = computed(() => `${rows.value.map((one) => `${one.component}: ${one.passed === null ? 'none of them' : count(one.passed)}${one.here ? ', here it fails' : ''}`).join('; ')}`); // prettier-ignore
</script>
<template>
  <figure v-if="fault.ways.length > 0" class="ways">
    <svg :width="WIDE" :height="height" role="img" :aria-label="`How strands come to it. ${words}`">
      <line v-for="(row, i) in rows" :key="`lane ${row.component}`" :x1="x(i)" :x2="x(i)" :y1="0" :y2="height" class="lane" />
      <path v-for="one in usual" :key="`usual ${one.to}`" :d="one.path" class="usual" />
      <path v-for="(one, i) in own" :key="`own ${i}`" :d="one.path" class="own" :style="{ strokeWidth: `${one.width}px` }" />
      <g v-for="(row, i) in rows" :key="row.component">
        <g v-if="row.here" :transform="`translate(${x(i) - 9} ${y(i) - 9})`"><path :d="OUTCOME_PATHS.failed" class="end" /></g>
        <circle v-else :cx="x(i)" :cy="y(i)" r="3.4" :class="row.passed === null ? 'only-usual' : 'stitch'" />
        <text :x="names" :y="y(i) + 4" :class="{ here: row.here, soft: row.passed === null }">
          {{ row.component.length > 20 ? `${row.component.slice(0, 19)}…` : row.component }}
        </text>
        <text :x="WIDE - 4" :y="y(i) + 4" text-anchor="end" :class="{ here: row.here }">{{ row.passed === null ? '' : count(row.passed) }}</text>
      </g>
    </svg>
    <figcaption class="soft">
      <span class="key own"></span> strands of the fault<template v-if="fault.usualWay.length > 0">
        · <span class="key usual"></span> the way of most that end well</template
      >
    </figcaption>
  </figure>
</template>
<style scoped>
.ways {
  margin: 4px 0;
}
text {
  font-size: 12.5px;
  fill: var(--ink);
  font-variant-numeric: tabular-nums;
}
text.soft {
  fill: var(--soft-ink);
}
text.here {
  fill: var(--madder);
  font-weight: 700;
}
.lane {
  stroke: var(--seam);
}
.usual {
  fill: none;
  stroke: var(--soft-ink);
  stroke-width: 1.4;
  stroke-dasharray: 4 3;
}
.own {
  fill: none;
  stroke: var(--indigo);
  stroke-linecap: round;
}
.stitch {
  fill: var(--indigo);
}
.only-usual {
  fill: var(--paper);
  stroke: var(--soft-ink);
}
.end {
  fill: none;
  stroke: var(--madder);
  stroke-width: 2.4;
  stroke-linecap: round;
}
.key {
  display: inline-block;
  width: 18px;
  vertical-align: middle;
  border-top: 3px solid var(--indigo);
}
.key.usual {
  border-top: 2px dashed var(--soft-ink);
}
</style>
