<script setup lang="ts">
import type { Call } from '@fadenweg/api';
import { useElementSize } from '@vueuse/core';
import { computed, nextTick, useTemplateRef, watch } from 'vue';
import { ms } from '../strands/duration-text.ts';
import { clock } from '../time/format.ts';
import { ladderLayout, ROW } from './ladder-layout.ts';

/** The weave at the scale of messages: those who speak as wide lanes, each message a thread from one to the other, time running down. */
const props = defineProps<{ call: Call; selected: string | null }>();
const emit = defineEmits<{ select: [record: string] }>();
const scroller = useTemplateRef<HTMLElement>('scroller');
const { width } = useElementSize(scroller);
const laid = computed(() => ladderLayout(props.call, Math.max(0, width.value - 8)));
const at = computed(() => props.call.arrows.findIndex((one) => one.record === props.selected || one.arrived === props.selected));
/** Messages of the transaction that the chosen one is of. */
const together = computed(() => {
  const chosen = props.call.arrows[at.value];
  if (!chosen) return new Set<number>();
  const { dialog, number, method } = chosen;
  const own = (name: string): string => (name === 'ACK' || name === 'CANCEL' ? 'INVITE' : name);
  return new Set(
    props.call.arrows.flatMap((one, i) => (one.dialog === dialog && one.number === number && own(one.method) === own(method) ? [i] : [])),
  );
});
function move(by: 1 | -1, wanted: (i: number) => boolean): void {
  let i = at.value < 0 ? (by > 0 ? -1 : props.call.arrows.length) : at.value;
  for (i += by; i >= 0 && i < props.call.arrows.length; i += by) if (wanted(i)) return emit('select', props.call.arrows[i]!.record);
}
watch([at, width], () => void nextTick(() => scroller.value?.querySelector('[aria-selected=true]')?.scrollIntoView({ block: 'nearest' })));
defineExpose({
  next: (by: 1 | -1) => move(by, () => true),
  nextKnot: (by: 1 | -1) =>
    move(by, (i) => laid.value.arrows[i]!.tone === 'bad' || laid.value.arrows[i]!.again || laid.value.arrows[i]!.usualMs !== null),
});
const point = (x: number, y: number, way: number): string => `M${x - way * 9} ${y - 5} L${x} ${y} L${x - way * 9} ${y + 5}`;
const LEAST_TOLD = 1;
</script>
<template>
  <section class="ladder" aria-label="Messages between those who sent them">
    <div ref="scroller" class="scroller" tabindex="0" role="listbox" aria-label="Messages; j and k move">
      <div class="lanes" role="presentation" :style="{ width: `${laid.width}px` }">
        <span
          v-for="lane in laid.lanes"
          :key="lane.x"
          class="lane"
          :style="{ left: `${lane.x - laid.laneWidth / 2}px`, width: `${laid.laneWidth}px` }"
          :title="`${lane.label} ${lane.detail}`"
          ><b>{{ lane.label }}</b
          ><span class="soft">{{ lane.detail }}</span></span
        >
      </div>
      <div class="body" role="presentation" :style="{ width: `${laid.width}px`, height: `${laid.height + 14}px` }">
        <svg :width="laid.width" :height="laid.height + 14" aria-hidden="true">
          <rect
            v-if="laid.talk"
            class="talk"
            :x="laid.talk.left"
            :y="laid.talk.top"
            :width="laid.talk.right - laid.talk.left"
            :height="laid.talk.bottom - laid.talk.top"
          />
          <line v-for="lane in laid.lanes" :key="lane.x" class="warp" :x1="lane.x" :x2="lane.x" y1="0" :y2="laid.height + 14" />
          <g v-for="(one, i) in laid.arrows" :key="i" class="thread" :class="[one.tone, { again: one.again, with: together.has(i) }]">
            <template v-if="one.way === 0"><circle :cx="one.x1" :cy="one.y + 4" r="4" /></template>
            <template v-else>
              <line :x1="one.x1" :x2="one.x2" :y1="one.y + 6" :y2="one.y + 6" />
              <path :d="point(one.x2, one.y + 6, one.way)" />
              <circle :cx="one.x1" :cy="one.y + 6" r="2.5" />
            </template>
          </g>
        </svg>
        <div
          v-for="(one, i) in laid.arrows"
          :key="i"
          class="row"
          role="option"
          :aria-selected="i === at"
          :style="{ top: `${one.y - ROW / 2}px`, height: `${ROW}px` }"
          @click="emit('select', one.record)"
        >
          <span class="time mono">{{ clock(one.at) }}</span>
          <span class="after soft">{{ i > 0 && one.afterMs >= LEAST_TOLD ? `+${ms(one.afterMs)}` : '' }}</span>
          <span
            class="label"
            :class="one.tone"
            :style="{ left: `${Math.min(one.x1, one.x2) + 8}px`, width: `${Math.max(laid.laneWidth, Math.abs(one.x2 - one.x1)) - 16}px` }"
            ><b>{{ one.label }}</b
            ><template v-if="one.again"> sent again</template
            ><em v-if="one.usualMs !== null"> late: usually {{ ms(one.usualMs) }} after the INVITE</em
            ><span v-if="one.underMs !== null" class="soft"> under way {{ ms(Math.abs(one.underMs)) }}</span></span
          >
        </div>
        <p
          v-if="laid.talk && call.talkingMs !== null"
          class="talked soft"
          :style="{ top: `${laid.talk.top + 8}px`, left: `${laid.talk.right + 8}px` }"
        >
          talked {{ ms(call.talkingMs) }}
        </p>
      </div>
    </div>
    <p v-if="call.arrows[at]" class="telling mono" role="status">
      <span class="soft">{{ clock(call.arrows[at]!.at) }}</span> {{ call.arrows[at]!.label }}
      <span class="soft">{{ call.arrows[at]!.number }} {{ call.arrows[at]!.method }}</span> {{ call.arrows[at]!.media }}
    </p>
  </section>
</template>
<style scoped>
.ladder {
  display: flex;
  flex-direction: column;
  min-height: 0;
}
.scroller {
  flex: 1;
  overflow: auto;
  min-height: 0;
  margin-top: 40px;
  border-top: 1px solid var(--seam);
  background: var(--linen);
  outline-offset: -2px;
}
.lanes {
  position: sticky;
  top: 0;
  z-index: 2;
  height: 42px;
  background: var(--linen);
  border-bottom: 1px solid var(--seam);
}
.lane {
  position: absolute;
  top: 3px;
  text-align: center;
  padding: 0 6px;
  box-sizing: border-box;
}
.lane > * {
  display: block;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
  line-height: 18px;
}
.body {
  position: relative;
}
svg {
  position: absolute;
  inset: 0;
  pointer-events: none;
  z-index: 1;
}
.warp {
  stroke: var(--strong-seam);
  stroke-width: 1.5;
  stroke-dasharray: 1 3;
}
.talk {
  fill: var(--woad);
  opacity: 0.13;
}
.thread {
  stroke: var(--indigo);
  stroke-width: 1.8;
  fill: none;
}
.thread circle {
  fill: var(--indigo);
  stroke: none;
}
.thread.again {
  stroke-dasharray: 5 4;
}
.thread.bad {
  stroke: var(--madder);
}
.thread.bad circle {
  fill: var(--madder);
}
.thread.with {
  stroke-width: 3;
}
.row {
  position: absolute;
  left: 0;
  right: 0;
  cursor: pointer;
}
.row:hover {
  background: var(--paper);
}
.row[aria-selected='true'] {
  background: var(--indigo-wash);
  box-shadow: inset 3px 0 0 var(--indigo);
}
.time {
  position: absolute;
  left: 14px;
  top: 5px;
}
.after {
  position: absolute;
  left: 112px;
  top: 5px;
  width: 76px;
  text-align: right;
  font-size: 12.5px;
}
.label {
  position: absolute;
  top: 0;
  text-align: center;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
  font-size: 13px;
  line-height: 18px;
}
.label b {
  font-weight: 600;
}
.label.bad b {
  color: var(--madder);
}
.label em {
  font-style: normal;
  color: var(--weld);
}
.talked {
  position: absolute;
  margin: 0;
  white-space: nowrap;
  pointer-events: none;
}
.telling {
  flex: none;
  margin: 0;
  padding: 5px 16px;
  border-top: 1px solid var(--seam);
  background: var(--paper);
  white-space: nowrap;
  overflow: hidden;
  text-overflow: ellipsis;
}
</style>
