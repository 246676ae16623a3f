<script setup lang="ts">
import type { Coverage } from '@fadenweg/api';
import { useElementSize } from '@vueuse/core';
import { scaleTime } from 'd3-scale';
import { durationWords } from '@fadenweg/core/findings';
import { computed, useTemplateRef } from 'vue';
import { clock, day, dayAndClock } from '../time/format.ts';

/** A band for each source, time running down: where it speaks, and where it is silent. */
const props = defineProps<{ coverage: Coverage }>();
const box = useTemplateRef<HTMLElement>('box');
const { height } = useElementSize(box);
const HEAD = 92;
const COLUMN = 46;
const AXIS = 96;
const inner = computed(() => Math.max(160, height.value - HEAD - 14));
const scale = computed(() =>
  scaleTime()
    .domain([Date.parse(props.coverage.from!), Date.parse(props.coverage.to!)])
    .range([0, inner.value]),
);
const ticks = computed(() => {
  const times = scale.value.ticks(Math.max(3, Math.floor(inner.value / 44)));
  return times.map((time, i) => {
    const iso = time.toISOString();
    const newDay = i === 0 || day(iso) !== day(times[i - 1]!.toISOString());
    return {
      y: scale.value(time),
      text: newDay ? day(iso).slice(5) : clock(iso, 0).slice(0, 5),
      clockToo: newDay ? clock(iso, 0).slice(0, 5) : '',
      newDay,
    };
  });
});
const columns = computed(() =>
  props.coverage.items.map((item, i) => ({
    ...item,
    x: AXIS + i * COLUMN,
    name: item.component || item.path,
    bands: item.stretches.map(([from, to]) => {
      const y = scale.value(from);
      return {
        y,
        height: Math.max(1.5, scale.value(to) - y),
        words: `${dayAndClock(new Date(from).toISOString())} to ${dayAndClock(new Date(to).toISOString())}`,
      };
    }),
  })),
);
const width = computed(() => AXIS + props.coverage.items.length * COLUMN + 60);
const MOST_SILENCES = 14;
/** The longest times in which a source says nothing between things that it says, and how far before the others it ends. */
const silences = computed(() =>
  props.coverage.items
    .flatMap((item) =>
      item.stretches.slice(1).map(([to], i) => ({ key: `${item.source} ${to}`, name: item.component || item.path, from: item.stretches[i]![1], to })),
    )
    .sort((a, b) => b.to - b.from - (a.to - a.from))
    .slice(0, MOST_SILENCES),
);
const iso = (ms: number): string => new Date(ms).toISOString();
</script>
<template>
  <div class="both">
    <div ref="box" class="box" tabindex="0" role="region" aria-label="Coverage">
      <svg :width="width" :height="HEAD + inner + 14" role="img" aria-label="When each source speaks, time running down">
        <g :transform="`translate(0,${HEAD})`">
          <g v-for="tick in ticks" :key="tick.y" class="tick">
            <line :x1="AXIS - 8" :x2="width - 60" :y1="tick.y" :y2="tick.y" />
            <text :x="AXIS - 14" :y="tick.y + 4" text-anchor="end" :class="{ day: tick.newDay }">{{ tick.text }} {{ tick.clockToo }}</text>
          </g>
          <g v-for="column in columns" :key="column.source">
            <rect class="warp" :x="column.x + 6" y="0" width="14" :height="inner" />
            <rect
              v-for="band in column.bands"
              :key="band.y"
              class="band"
              :class="{ made: column.demo }"
              :x="column.x + 6"
              :y="band.y"
              width="14"
              :height="band.height"
            >
              <title>{{ column.path }}: {{ band.words }}</title>
            </rect>
            <text class="name" :transform="`translate(${column.x + 14},-8) rotate(-52)`">
              {{ column.name }}
              <title>{{ column.path }}, {{ column.environment }}</title>
            </text>
          </g>
        </g>
      </svg>
    </div>
    <section class="silences" aria-labelledby="silences">
      <h2 id="silences">Longest silences</h2>
      <p class="soft">Where a source says nothing, a missing record proves nothing.</p>
      <p v-if="silences.length === 0">None: each source speaks from its begin to its end.</p>
      <table v-else class="plain-table">
        <thead>
          <tr>
            <th>Source</th>
            <th>From</th>
            <th>To</th>
            <th class="number">Length</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="one in silences" :key="one.key">
            <td>{{ one.name }}</td>
            <td class="mono">{{ dayAndClock(iso(one.from)).slice(5, 16) }}</td>
            <td class="mono">{{ dayAndClock(iso(one.to)).slice(5, 16) }}</td>
            <td class="number">{{ durationWords((one.to - one.from) * 1000) }}</td>
          </tr>
        </tbody>
      </table>
    </section>
  </div>
</template>
<style scoped>
.both {
  display: flex;
  height: 100%;
}
.box {
  flex: 1;
  min-width: 0;
  overflow: auto;
}
.silences {
  flex: none;
  width: 430px;
  border-left: 1px solid var(--seam);
  overflow: auto;
}
.silences h2,
.silences p {
  margin: 0;
  padding: 10px 10px 0;
}
svg {
  display: block;
}
.tick line {
  stroke: var(--seam);
}
.tick text {
  font-size: 12px;
  fill: var(--soft-ink);
  font-variant-numeric: tabular-nums;
}
.tick .day {
  fill: var(--ink);
  font-weight: 600;
}
.name {
  font-size: 12.5px;
  fill: var(--ink);
}
.warp {
  fill: none;
  stroke: var(--undyed);
  stroke-width: 1;
}
.band {
  fill: var(--woad);
}
</style>
