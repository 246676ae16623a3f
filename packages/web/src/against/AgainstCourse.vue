<script setup lang="ts">
import type { Against, AgainstCompared, AgainstPiece } from '@fadenweg/api';
import { line } from 'd3-shape';
import { scaleLinear, scaleTime } from 'd3-scale';
import { computed } from 'vue';
import { clock, day } from '../time/format.ts';
import { MEASURE_WORDS, valueWords } from './against-words.ts';

/** One measure over time: this one beside the others, the time before the window in another tone; time to the right. */
const props = defineProps<{ against: Against; compared: AgainstCompared }>();
const [WIDTH, HEIGHT, LEFT, BOTTOM, TOP] = [396, 118, 62, 18, 6];
const name = computed(() => props.compared.measure);
const x = computed(() => scaleTime([Date.parse(props.against.before), Date.parse(props.against.to)], [LEFT, WIDTH - 4]));
const most = computed(() =>
  Math.max(
    ...props.against.course.flatMap(({ own, others }) => [own?.[name.value] ?? 0, others?.[name.value] ?? 0]),
    name.value === 'amiss' ? 0.01 : 0.001,
  ),
);
const y = computed(() => scaleLinear([0, most.value], [HEIGHT - BOTTOM, TOP]).nice(2));
const middle = ({ at }: AgainstPiece): number => x.value(Date.parse(at) + props.against.slotMs / 2);
const path = (side: 'own' | 'others'): string =>
  line<AgainstPiece>()
    // half of one or two others tells nothing of them
    .defined((one) => one[side]?.[name.value] !== null && one[side] !== null && (side === 'own' || one[side].strands >= 3))
    .x(middle)
    .y((one) => y.value(one[side]![name.value]!))(props.against.course) ?? '';
const dots = computed(() =>
  props.against.course.flatMap((one) => {
    const value = one.own?.[name.value];
    return value === null || value === undefined
      ? []
      : [{ x: middle(one), y: y.value(value), words: `${clock(one.at, 0)}: ${valueWords(name.value, value)}` }];
  }),
);
const ticks = computed(() => y.value.ticks(2).map((value) => ({ y: y.value(value), text: value === 0 ? '0' : valueWords(name.value, value) })));
const times = computed(() => {
  const long = Date.parse(props.against.to) - Date.parse(props.against.before) > 2.5 * 86_400_000;
  return x.value.ticks(5).map((one) => ({ x: x.value(one), text: long ? day(one.toISOString()).slice(5) : clock(one.toISOString(), 0).slice(0, 5) }));
});
const begin = computed(() => x.value(Date.parse(props.against.from)));
const is = computed(() => {
  const { beside, since } = props.compared;
  if (beside.is === 'more' || beside.is === 'less') return beside.is === 'more' ? 'more than others' : 'less than others';
  if (since.is === 'more' || since.is === 'less') return since.is === 'more' ? 'more than before' : 'less than before';
  return beside.is === 'few' ? '' : 'as others';
});
const words = computed(() => `${MEASURE_WORDS[name.value]}: ${valueWords(name.value, props.compared.own)}, others ${valueWords(name.value, props.compared.others)}`); // prettier-ignore
</script>
<template>
  <figure>
    <figcaption>
      <b>{{ MEASURE_WORDS[name] }}</b> <span v-if="is" :class="{ soft: is === 'as others' }" class="is">{{ is }}</span>
    </figcaption>
    <svg :width="WIDTH" :height="HEIGHT" role="img" :aria-label="words">
      <rect :x="LEFT" :y="TOP" :width="Math.max(0, begin - LEFT)" :height="HEIGHT - BOTTOM - TOP" class="before" />
      <g v-for="tick in ticks" :key="tick.y">
        <line :x1="LEFT" :x2="WIDTH" :y1="tick.y" :y2="tick.y" class="grid" />
        <text :x="LEFT - 6" :y="tick.y + 4" text-anchor="end">{{ tick.text }}</text>
      </g>
      <text v-for="tick in times" :key="tick.x" :x="tick.x" :y="HEIGHT - 4" :text-anchor="tick.x > WIDTH - 24 ? 'end' : 'middle'">
        {{ tick.text }}
      </text>
      <line :x1="begin" :x2="begin" :y1="TOP" :y2="HEIGHT - BOTTOM" class="begin" />
      <path :d="path('others')" class="others" />
      <path :d="path('own')" class="own" />
      <circle v-for="dot in dots" :key="dot.x" :cx="dot.x" :cy="dot.y" r="2.4" class="dot">
        <title>{{ dot.words }}</title>
      </circle>
    </svg>
  </figure>
</template>
<style scoped>
figure {
  margin: 0;
}
.is {
  color: var(--indigo);
  font-weight: 600;
}
.is.soft {
  color: var(--soft-ink);
  font-weight: 400;
}
text {
  font-size: 11.5px;
  fill: var(--soft-ink);
  font-variant-numeric: tabular-nums;
}
.grid {
  stroke: var(--seam);
}
.before {
  fill: var(--undyed);
  opacity: 0.25;
}
.begin {
  stroke: var(--strong-seam);
  stroke-dasharray: 3 3;
}
.others {
  fill: none;
  stroke: var(--soft-ink);
  stroke-width: 1.6;
}
.own {
  fill: none;
  stroke: var(--indigo);
  stroke-width: 1.4;
}
.dot {
  fill: var(--indigo);
}
</style>
