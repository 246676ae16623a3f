<script setup lang="ts">
import type { StrandLine } from '@fadenweg/api';
import { clock } from '../time/format.ts';
import type { Dot } from './time-layout.ts';

/** The records that lie between two heights of the picture of a strand in proportion to time. */
defineProps<{ dots: Dot[]; width: number; from: number; to: number; selected: string | null; isBad: (line: StrandLine) => boolean }>();
const emit = defineEmits<{ select: [id: string] }>();
</script>
<template>
  <svg :width="width" :height="to - from" :viewBox="`0 ${from} ${width} ${to - from}`" class="dots" role="presentation">
    <circle
      v-for="dot in dots"
      :id="`dot-${dot.line.id}`"
      :key="dot.line.id"
      :cx="dot.x"
      :cy="dot.y"
      :r="dot.line.id === selected ? 6 : isBad(dot.line) ? 4.5 : 3"
      class="dot"
      role="option"
      :aria-selected="dot.line.id === selected"
      :aria-label="`${clock(dot.line.at)} ${dot.line.component}: ${dot.line.message.slice(0, 120)}`"
      :class="{ bad: isBad(dot.line), picked: dot.line.id === selected }"
      @click="emit('select', dot.line.id)"
    >
      <title>{{ clock(dot.line.at) }} {{ dot.line.component }}: {{ dot.line.message.slice(0, 300) }}</title>
    </circle>
  </svg>
</template>
<style scoped>
.dots {
  display: block;
  overflow: visible;
  pointer-events: none;
}
.dot {
  fill: var(--linen);
  stroke: var(--indigo);
  stroke-width: 1.6;
  cursor: pointer;
  pointer-events: auto;
}
.dot.bad {
  fill: var(--madder);
  stroke: var(--madder);
}
.dot.picked {
  fill: var(--weld);
  stroke: var(--ink);
}
</style>
