<script setup lang="ts">
import type { StrandLine } from '@fadenweg/api';
import { ref } from 'vue';
import { clock } from '../time/format.ts';
import type { Dot } from './time-layout.ts';

/** The records that lie between two heights of the picture of a strand in proportion to time. */
defineProps<{ dots: Dot[]; width: number; from: number; to: number; selected: string | null; isBad: (line: StrandLine) => boolean }>();
const emit = defineEmits<{ select: [id: string] }>();
/** Told while one points at it: a text of each dot's own would double what is drawn while it scrolls. */
const pointed = ref<StrandLine | null>(null);
const words = ({ at, component, message }: StrandLine, length: number): string => `${clock(at)} ${component}: ${message.slice(0, length)}`;
</script>
<template>
  <svg :width="width" :height="to - from" :viewBox="`0 ${from} ${width} ${to - from}`" class="dots" role="presentation">
    <g role="presentation">
      <title v-if="pointed">{{ words(pointed, 300) }}</title>
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
        :aria-label="words(dot.line, 120)"
        :class="{ bad: isBad(dot.line), picked: dot.line.id === selected }"
        @click="emit('select', dot.line.id)"
        @pointerenter="pointed = dot.line"
      />
    </g>
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
