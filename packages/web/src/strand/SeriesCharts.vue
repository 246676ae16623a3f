<script setup lang="ts">
import type { SeriesPoint, Strand } from '@fadenweg/api';
import { area, line } from 'd3-shape';
import { scaleLinear, scaleTime } from 'd3-scale';
import { computed } from 'vue';
import { api } from '../api/client.ts';
import { useRequest } from '../api/use-request.ts';
import ProblemNote from '../frame/ProblemNote.vue';
import { ms } from '../strands/duration-text.ts';
import { clock } from '../time/format.ts';

/** Response, database and network time of this strand beside its party's and everybody's, over the day around it; time to the right. */
const props = defineProps<{ strand: Strand }>();
const series = useRequest([() => props.strand.id], () => api.get('/strands/{id}/series', { params: { id: props.strand.id } }));
const [WIDTH, HEIGHT, LEFT, BOTTOM, TOP] = [384, 96, 62, 18, 6];
type Name = 'wholeMs' | 'databaseMs' | 'transitMs';
const CHARTS: readonly { name: Name; label: string }[] = [
  { name: 'wholeMs', label: 'Whole' },
  { name: 'databaseMs', label: 'In databases' },
  { name: 'transitMs', label: 'On the way: queues and gaps' },
];
const times = computed(() => {
  const now = series.answer.value;
  return now
    ? scaleTime()
        .domain([Date.parse(now.from), Date.parse(now.to)])
        .range([LEFT, WIDTH - 4])
    : null;
});
const charts = computed(() => {
  const now = series.answer.value;
  const x = times.value;
  if (!now || !x) return [];
  return CHARTS.map(({ name, label }) => {
    const tops = now.everybody.map((one) => (name === 'wholeMs' ? one.slowMs : one[name]));
    const most = Math.max(now.own[name], ...tops, ...(now.party?.points ?? []).map((one) => one[name]), 0.001);
    const y = scaleLinear()
      .domain([0, most])
      .nice(2)
      .range([HEIGHT - BOTTOM, TOP]);
    // a slot's value stands in its middle
    const middle = (one: SeriesPoint): number => x(Date.parse(one.at) + 900_000);
    const path = line<SeriesPoint>(middle, (one) => y(one[name]));
    const band = area<SeriesPoint>(middle, (one) => y(one.wholeMs), (one) => y(one.slowMs)); // prettier-ignore
    return {
      name,
      label,
      everybody: path(now.everybody) ?? '',
      band: name === 'wholeMs' ? (band(now.everybody) ?? '') : '',
      party: (now.party?.points ?? []).map((one) => ({ x: middle(one), y: y(one[name]), words: `${clock(one.at, 0)}: ${ms(one[name])}` })),
      own: { x: x(Date.parse(now.own.at)), y: y(now.own[name]), words: ms(now.own[name]) },
      ticks: y.ticks(2).map((value) => ({ y: y(value), text: ms(value) })),
      usual: median(now.everybody.map((one) => one[name])),
    };
  });
});
const median = (numbers: readonly number[]): number => [...numbers].sort((a, b) => a - b)[Math.floor(numbers.length / 2)] ?? 0;
const ticks = computed(() => times.value?.ticks(5).map((one) => ({ x: times.value!(one), text: clock(one.toISOString(), 0).slice(0, 5) })) ?? []);
</script>
<template>
  <ProblemNote v-if="series.problem.value" :problem="series.problem.value" @again="series.again" />
  <section v-else-if="series.answer.value" aria-labelledby="beside">
    <h2 id="beside">Beside others of that day</h2>
    <p class="soft key">
      <span class="all"></span> everybody, half an hour’s median<template v-if="series.answer.value.party">
        · <span class="dot"></span> {{ series.answer.value.party.kind }} {{ series.answer.value.party.value }}</template
      >
      · <span class="own"></span> this one
    </p>
    <figure v-for="chart in charts" :key="chart.name">
      <figcaption>
        {{ chart.label }} <strong>{{ chart.own.words }}</strong><span class="soft">, everybody {{ ms(chart.usual) }}</span>
      </figcaption>
      <svg :width="WIDTH" :height="HEIGHT" role="img" :aria-label="`${chart.label}: this one ${chart.own.words}, everybody ${ms(chart.usual)}`">
        <g v-for="tick in chart.ticks" :key="tick.y">
          <line :x1="LEFT" :x2="WIDTH" :y1="tick.y" :y2="tick.y" class="grid" />
          <text :x="LEFT - 6" :y="tick.y + 4" text-anchor="end">{{ tick.text }}</text>
        </g>
        <text v-for="tick in ticks" :key="tick.x" :x="tick.x" :y="HEIGHT - 4" text-anchor="middle">{{ tick.text }}</text>
        <path :d="chart.band" class="band" />
        <path :d="chart.everybody" class="line" />
        <circle v-for="dot in chart.party" :key="dot.x" :cx="dot.x" :cy="dot.y" r="2.6" class="party">
          <title>{{ dot.words }}</title>
        </circle>
        <path :d="`M${chart.own.x - 5} ${chart.own.y} l5 -5 l5 5 l-5 5 z`" class="mark" />
      </svg>
    </figure>
  </section>
</template>
<style scoped>
h2,
.key,
figure {
  margin: 0;
}
.key {
  font-size: 12px;
  padding: 2px 0 4px;
}
.key span {
  display: inline-block;
  vertical-align: middle;
  margin-right: 3px;
}
.key .all {
  width: 16px;
  height: 2px;
  background: var(--soft-ink);
}
.key .dot {
  width: 7px;
  height: 7px;
  border-radius: 50%;
  background: var(--woad);
}
.key .own {
  width: 8px;
  height: 8px;
  background: var(--indigo);
  transform: rotate(45deg);
}
figcaption {
  padding-top: 6px;
}
text {
  font-size: 11.5px;
  fill: var(--soft-ink);
  font-variant-numeric: tabular-nums;
}
.grid {
  stroke: var(--seam);
}
.band {
  fill: var(--undyed);
  opacity: 0.45;
}
.line {
  fill: none;
  stroke: var(--soft-ink);
  stroke-width: 1.6;
}
.party {
  fill: var(--woad);
}
.mark {
  fill: var(--indigo);
  stroke: var(--paper);
}
</style>
