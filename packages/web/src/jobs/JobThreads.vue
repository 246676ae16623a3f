<script setup lang="ts">
import type { JobRuns } from '@fadenweg/api';
import { computed } from 'vue';
import { RouterLink } from 'vue-router';
import { OUTCOME_WORDS } from '../glyphs/outcomes.ts';
import { dayAndClock } from '../time/format.ts';
import { oddWords, rowsWords } from './job-words.ts';
import { threadsOf } from './threads.ts';

/** Runs of jobs beside each other, time running down: what overlaps, what is late, what did not start. */
const props = defineProps<{ jobs: readonly JobRuns[]; from: string; to: string }>();
const [LEFT, LANE, TOP] = [96, 128, 42];
const HEIGHT = 620;
const span = computed(() => [Date.parse(props.from), Date.parse(props.to)] as const);
const lanes = computed(() => threadsOf(props.jobs, ...span.value, HEIGHT));
const width = computed(() => LEFT + lanes.value.length * LANE + 10);
const x = (lane: number, track = 0): number => LEFT + lane * LANE + 24 + track * 11;
const STEPS = [5, 15, 30, 60, 120, 180, 360, 720, 1440, 2880, 10_080].map((minutes) => minutes * 60_000);
const ticks = computed(() => {
  const [from, to] = span.value;
  const step = STEPS.find((one) => (to - from) / one <= 14) ?? STEPS.at(-1)!;
  const offset = new Date(from).getTimezoneOffset() * 60_000;
  const found: { y: number; label: string }[] = [];
  for (let at = Math.ceil((from - offset) / step) * step + offset; at < to; at += step) {
    const iso = new Date(at).toISOString();
    found.push({ y: (HEIGHT * (at - from)) / (to - from), label: to - from > 2 * 86_400_000 ? dayAndClock(iso).slice(5, 16) : dayAndClock(iso).slice(11, 16) }); // prettier-ignore
  }
  return found;
});
const tone = (outcome: string, odd: number): string =>
  outcome === 'failed' || outcome === 'stalled' ? 'failed' : outcome === 'odd' || odd > 0 ? 'odd' : outcome === 'running' ? 'running' : 'good';
const words = ({ run }: ReturnType<typeof threadsOf>[number]['threads'][number]): string =>
  [`${run.name}: ${OUTCOME_WORDS[run.outcome]}, ${dayAndClock(run.startedAt)} to ${dayAndClock(run.endedAt).slice(11)}`, rowsWords(run), oddWords(run)].filter((one) => one !== '').join('; '); // prettier-ignore
</script>
<template>
  <div class="beside" tabindex="0" role="region" aria-label="Runs beside each other, time running down">
    <p class="soft key">
      <span class="swatch good"></span> as usual <span class="swatch odd"></span> odd <span class="swatch failed"></span> failed or stalled
      <span class="swatch gap"></span> due, and did not start
    </p>
    <svg :width="width" :height="HEIGHT + TOP + 12" role="group" aria-label="Runs of jobs">
      <g :transform="`translate(0 ${TOP})`">
        <g v-for="tick in ticks" :key="tick.y">
          <line :x1="LEFT - 6" :x2="width" :y1="tick.y" :y2="tick.y" class="tick" />
          <text :x="LEFT - 12" :y="tick.y + 4" text-anchor="end" class="soft">{{ tick.label }}</text>
        </g>
        <g v-for="(lane, i) in lanes" :key="lane.flow">
          <text :x="x(i) - 8" y="-22">
            {{ lane.label.length > 17 ? `${lane.label.slice(0, 16)}…` : lane.label }}
            <title>{{ lane.label }}</title>
          </text>
          <text :x="x(i) - 8" y="-6" class="soft">{{ lane.threads.length }} runs</text>
          <line :x1="x(i)" :x2="x(i)" :y1="0" :y2="HEIGHT" class="lane" />
          <RouterLink
            v-for="one in lane.threads"
            :key="one.run.strand"
            v-slot="{ href, navigate }"
            custom
            :to="{ name: 'strand', params: { id: one.run.strand } }"
          >
            <a :href="href" :aria-label="words(one)" tabindex="-1" @click="navigate">
              <line
                :x1="x(i, one.track)"
                :x2="x(i, one.track)"
                :y1="one.y1"
                :y2="one.y2"
                class="run"
                :class="tone(one.run.outcome, one.run.odd.length)"
              >
                <title>{{ words(one) }}</title>
              </line>
            </a>
          </RouterLink>
          <g v-for="y in lane.missed" :key="y">
            <path :d="`M${x(i) - 7} ${y} h14`" class="missed" />
            <text :x="x(i) + 12" :y="y + 4" class="none">none</text>
          </g>
        </g>
      </g>
    </svg>
  </div>
</template>
<style scoped>
.beside {
  order: 2;
  flex: 1;
  overflow: auto;
  min-height: 0;
  padding: 4px 16px;
}
text {
  font-size: 12.5px;
  fill: var(--ink);
  font-variant-numeric: tabular-nums;
}
text.soft {
  fill: var(--soft-ink);
}
text.none {
  fill: var(--madder);
}
.tick,
.lane {
  stroke: var(--seam);
}
.run {
  stroke-width: 7;
}
.run.good {
  stroke: var(--indigo);
}
.run.running {
  stroke: var(--soft-ink);
}
.run.odd {
  stroke: var(--weld);
}
.run.failed {
  stroke: var(--madder);
}
.missed {
  stroke: var(--madder);
  stroke-width: 2;
  stroke-dasharray: 3 2;
  fill: none;
}
a:focus-visible .run,
a:hover .run {
  stroke-width: 11;
}
.key {
  margin: 4px 0;
}
.swatch {
  display: inline-block;
  width: 14px;
  margin-left: 10px;
  vertical-align: middle;
  border-top: 5px solid var(--indigo);
}
.swatch.odd {
  border-color: var(--weld);
}
.swatch.failed {
  border-color: var(--madder);
}
.swatch.gap {
  border-top: 2px dashed var(--madder);
}
</style>
