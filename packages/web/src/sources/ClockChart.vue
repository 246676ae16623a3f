<script setup lang="ts">
import type { HostClock } from '@fadenweg/api';
import { scaleLinear, scaleTime } from 'd3-scale';
import { computed } from 'vue';
import { clock as clockText, day } from '../time/format.ts';
import { signed } from './clock-words.ts';

/** How far a clock was ahead, time running down: bars are what passages allow, the thread is what holds. */
const props = defineProps<{ clock: HostClock }>();
const [WIDTH, HEIGHT, LEFT, TOP] = [368, 270, 88, 24];
/** Where the others lie farther off than so many times the width of the picture, they are told of in words. */
const FAR = 4;
const ms = (iso: string): number => Date.parse(iso);
const time = computed(() =>
  scaleTime()
    .domain([Math.min(...props.clock.evidence.map((one) => ms(one.from))), Math.max(...props.clock.evidence.map((one) => ms(one.to)))])
    .range([0, HEIGHT - TOP - 8]),
);
/** What holds, clipped to where there is evidence: ends of lines. */
const lines = computed(() => {
  const [first, last] = time.value.domain().map(Number) as [number, number];
  return props.clock.stretches.flatMap((one) => {
    const whole = props.clock.state === 'set';
    const [from, to] = whole ? [first, last] : [Math.max(first, ms(one.from)), Math.min(last, ms(one.to))];
    if (to < from) return [];
    const at = (when: number): number => one.aheadMs + (whole ? 0 : (one.driftMsPerHour * (when - ms(one.from))) / 3_600_000);
    return [{ from, to, a: at(from), b: at(to) }];
  });
});
const ahead = computed(() => {
  const values = [...props.clock.evidence.flatMap((one) => [one.leastMs, one.mostMs]), ...lines.value.flatMap((one) => [one.a, one.b])];
  let [low, high] = [Math.min(...values), Math.max(...values)];
  const wide = Math.max(10, high - low);
  if (Math.max(low, -high) < FAR * wide) [low, high] = [Math.min(low, 0), Math.max(high, 0)];
  const room = Math.max(5, (high - low) * 0.15);
  return scaleLinear()
    .domain([low - room, high + room])
    .range([LEFT, WIDTH - 10]);
});
const ticks = computed(() => {
  const times = time.value.ticks(7);
  return times.map((one, i) => {
    const iso = one.toISOString();
    const newDay = i === 0 || day(iso) !== day(times[i - 1]!.toISOString());
    return { y: time.value(one), text: newDay ? `${day(iso).slice(5)} ${clockText(iso, 0).slice(0, 5)}` : clockText(iso, 0).slice(0, 5) };
  });
});
const bars = computed(() =>
  props.clock.evidence.map((one) => {
    const [x, y] = [ahead.value(one.leastMs), time.value(ms(one.from))];
    return {
      x,
      y,
      width: Math.max(2, ahead.value(one.mostMs) - x),
      height: Math.max(2, time.value(ms(one.to)) - y - 1),
      words: `${one.hops} passages: at least ${signed(one.leastMs)}, at most ${signed(one.mostMs)} ahead`,
    };
  }),
);
const others = computed(() => {
  const [low, high] = ahead.value.domain() as [number, number];
  return low <= 0 && high >= 0;
});
const scaleTicks = computed(() => {
  const values = ahead.value.ticks(4);
  const seconds = values.some((value) => Math.abs(value) >= 1000);
  const step = (values[1] ?? 1) - (values[0] ?? 0);
  const digits = Math.max(0, Math.min(4, Math.ceil((seconds ? 3 : 0) - Math.log10(step) - 0.001)));
  return values.map((value) => ({
    x: ahead.value(value),
    text: `${(seconds ? value / 1000 : value).toFixed(digits).replace('-', '−')} ${seconds ? 's' : 'ms'}`,
  }));
});
</script>
<template>
  <svg :width="WIDTH" :height="HEIGHT" role="img" :aria-label="`How far the clock was ahead, time running down`">
    <g v-for="tick in scaleTicks" :key="tick.x">
      <text :x="tick.x" y="12" text-anchor="middle" class="small">{{ tick.text }}</text>
      <line :x1="tick.x" :x2="tick.x" :y1="TOP - 6" :y2="HEIGHT" class="grid" />
    </g>
    <g :transform="`translate(0,${TOP})`">
      <text v-for="tick in ticks" :key="tick.y" :x="LEFT - 10" :y="tick.y + 4" text-anchor="end" class="small">{{ tick.text }}</text>
      <line v-if="others" :x1="ahead(0)" :x2="ahead(0)" y1="-6" :y2="HEIGHT - TOP" class="others" />
      <rect v-for="bar in bars" :key="bar.y" :x="bar.x" :y="bar.y" :width="bar.width" :height="bar.height" class="bar">
        <title>{{ bar.words }}</title>
      </rect>
      <line v-for="line in lines" :key="line.from" :x1="ahead(line.a)" :x2="ahead(line.b)" :y1="time(line.from)" :y2="time(line.to)" class="thread" />
    </g>
  </svg>
</template>
<style scoped>
svg {
  flex: none;
}
.small {
  font-size: 12px;
  fill: var(--soft-ink);
  font-variant-numeric: tabular-nums;
}
.grid {
  stroke: var(--seam);
}
.others {
  stroke: var(--soft-ink);
  stroke-dasharray: 3 3;
}
.bar {
  fill: var(--woad);
  opacity: 0.45;
}
.thread {
  stroke: var(--indigo);
  stroke-width: 2.5;
  stroke-linecap: round;
}
</style>
