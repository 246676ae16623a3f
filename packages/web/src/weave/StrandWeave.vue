<script setup lang="ts">
import type { Change, Strand, StrandLine } from '@fadenweg/api';
import { useElementSize } from '@vueuse/core';
import { computed, useTemplateRef, watch } from 'vue';
import { useScrolled } from '../frame/use-scrolled.ts';
import LevelGlyph from '../glyphs/LevelGlyph.vue';
import OutcomeGlyph from '../glyphs/OutcomeGlyph.vue';
import { OUTCOME_WORDS } from '../glyphs/outcomes.ts';
import { aheadText } from '../time/ahead.ts';
import { LANE_LEFT, laneWidth } from './geometry.ts';
import { KNOT_OF, lanesOf, peerNames, ROW_HEIGHT, rowsOf } from './rows.ts';
import WeavePicture from './WeavePicture.vue';

/** Weave and records as one list: each line has its stitch in its component's lane. */
const props = defineProps<{
  strand: Strand;
  lines: StrandLine[];
  folded: ReadonlySet<number>;
  selected: string | null;
  changes?: readonly Change[];
}>();
const emit = defineEmits<{ select: [id: string]; fold: [step: number] }>();
const lanes = computed(() => lanesOf(props.strand, props.lines));
const rows = computed(() => rowsOf(props.strand, props.lines, props.folded, props.changes));
const names = computed(() => peerNames(props.lines));
const step = computed(() => laneWidth(lanes.value.length));
const width = computed(() => LANE_LEFT * 2 + (lanes.value.length - 1) * step.value);
const first = computed(() => props.strand.findings[0]);
const knotLane = computed(() => first.value?.component ?? null);

const scroller = useTemplateRef<HTMLElement>('scroller');
const { top: y } = useScrolled(scroller);
const { height } = useElementSize(scroller);
/** What is drawn changes only every few rows: in between the browser scrolls alone. */
const AT_ONCE = 12;
const from = computed(() => Math.max(0, (Math.floor(y.value / ROW_HEIGHT / AT_ONCE) - 1) * AT_ONCE));
const to = computed(() => Math.min(rows.value.length, (Math.ceil((y.value + height.value) / ROW_HEIGHT / AT_ONCE) + 1) * AT_ONCE));
const seen = computed(() => rows.value.slice(from.value, to.value).map((row, offset) => ({ row, index: from.value + offset })));
const place = (id: string | null): number => rows.value.findIndex((row) => row.kind === 'line' && row.line.id === id);
watch([() => props.selected, rows], () => {
  const index = place(props.selected);
  const box = scroller.value;
  if (index < 0 || !box) return;
  const top = index * ROW_HEIGHT;
  if (top < box.scrollTop + 40) box.scrollTop = Math.max(0, top - 60);
  else if (top > box.scrollTop + box.clientHeight - 60) box.scrollTop = top - box.clientHeight + 100;
});
function neighbour(by: number, wanted: (row: (typeof rows.value)[number]) => boolean): void {
  let index = place(props.selected);
  if (index < 0) index = by > 0 ? -1 : rows.value.length;
  for (index += by; index >= 0 && index < rows.value.length; index += by) {
    const row = rows.value[index]!;
    if (row.kind === 'line' && wanted(row)) {
      emit('select', row.line.id);
      return;
    }
  }
}
defineExpose({
  next: (by: 1 | -1) => neighbour(by, () => true),
  nextKnot: (by: 1 | -1) =>
    neighbour(by, (row) => row.kind === 'line' && (row.knot !== null || row.line.marks.includes('failing') || row.line.marks.includes('refusing'))),
});
</script>
<template>
  <section class="woven" aria-label="Weave and records">
    <div class="lanes" :style="{ width: `${width}px` }" aria-hidden="true">
      <span
        v-for="(lane, index) in lanes"
        :key="lane"
        :class="lane === knotLane && first ? ['knot', `outcome-${KNOT_OF[first.kind]}`] : ''"
        :style="{ left: `${LANE_LEFT + index * step}px` }"
        >{{ names.get(lane) ?? lane }}</span
      >
    </div>
    <div
      ref="scroller"
      class="scroller"
      tabindex="0"
      role="listbox"
      data-lines
      aria-label="Records; j and k move, brackets go to knots"
      :aria-activedescendant="selected ? `line-${selected}` : undefined"
    >
      <div class="together" :style="{ height: `${rows.length * ROW_HEIGHT}px`, minWidth: `${width + 320}px` }">
        <WeavePicture class="picture" :rows="rows" :lanes="lanes" :steps="strand.steps" :from="from" :to="to" />
        <div class="lines" :style="{ left: `${width}px` }">
          <template v-for="{ row, index } in seen" :key="row.kind === 'line' ? row.line.id : row.id">
            <div
              v-if="row.kind === 'line'"
              :id="`line-${row.line.id}`"
              class="line mono"
              role="option"
              :aria-selected="row.line.id === selected"
              :class="{
                selected: row.line.id === selected,
                failing: row.line.marks.includes('failing'),
                knot: row.knot !== null,
                warning: row.line.level === 'warning',
              }"
              :style="{ top: `${index * ROW_HEIGHT}px` }"
              @click="emit('select', row.line.id)"
              @dblclick="emit('fold', row.line.step)"
            >
              <span class="time" :class="{ full: row.full }">{{ row.time }}</span><LevelGlyph :level="row.line.level" /><span
                v-if="row.peer"
                class="direction"
                >{{ row.line.attributes.direction === 'in' ? '←' : '→' }} {{ names.get(row.peer) }}</span
              ><span class="text" :title="row.text">{{ row.text }}</span
              ><span v-if="row.more" class="aside">+{{ row.more }} {{ row.more === 1 ? 'line' : 'lines' }}</span
              ><span v-if="row.line.because === 'carried-over'" class="aside">carried over</span
              ><span v-if="row.line.correctedByMs !== 0" class="aside">clock {{ aheadText(row.line.correctedByMs) }}</span
              ><span v-if="row.folded" class="aside">{{ row.folded }} more folded</span>
            </div>
            <div v-else-if="row.kind === 'leg'" class="line leg" role="presentation" :style="{ top: `${index * ROW_HEIGHT}px` }">
              <OutcomeGlyph :outcome="row.outcome" /><strong>leg {{ row.leg }}</strong
              ><span class="text" :title="row.text">{{ row.text }}</span
              ><span class="aside">{{ row.when }}, {{ OUTCOME_WORDS[row.outcome] }}</span>
            </div>
            <div v-else-if="row.kind === 'change'" class="line change" role="presentation" :style="{ top: `${index * ROW_HEIGHT}px` }">
              <span class="time mono">{{ row.time }}</span><RouterLink
                class="text"
                :to="{ name: 'changes', query: { w: 'all', change: row.id.slice(7) } }"
                >{{ row.text }}</RouterLink
              >
            </div>
            <div v-else class="line gap" role="presentation" :class="{ lock: row.lock }" :style="{ top: `${index * ROW_HEIGHT}px` }">
              <span class="time"></span>{{ row.text }}
            </div>
          </template>
        </div>
      </div>
    </div>
  </section>
</template>
<style scoped>
.woven {
  display: flex;
  flex-direction: column;
  min-height: 0;
  min-width: 0;
}
.lanes {
  position: relative;
  height: 82px;
  flex: none;
}
.lanes span {
  position: absolute;
  bottom: 4px;
  transform-origin: 0 100%;
  transform: rotate(-58deg) translateY(7px);
  white-space: nowrap;
  font-size: 12.5px;
  line-height: 14px;
  max-width: 96px;
  overflow: hidden;
  text-overflow: ellipsis;
}
.lanes .knot {
  font-weight: 700;
}
.scroller {
  background: var(--linen);
  will-change: scroll-position;
  flex: 1;
  overflow: auto;
  outline-offset: -2px;
}
.together {
  position: relative;
}
.picture {
  position: absolute;
  left: 0;
  top: 0;
  pointer-events: none;
  z-index: 1;
}
.lines {
  position: absolute;
  top: 0;
  right: 0;
}
.line {
  position: absolute;
  left: 0;
  right: 0;
  height: 21px;
  white-space: pre;
  overflow: hidden;
  cursor: default;
  display: flex;
  align-items: center;
  gap: 6px;
  padding-right: 10px;
}
.line:hover {
  background: var(--paper);
}
.line.selected {
  background: var(--indigo-wash);
  box-shadow: inset 3px 0 var(--indigo);
}
.time {
  width: 106px;
  flex: none;
  text-align: right;
  color: var(--soft-ink);
}
.time.full {
  color: var(--ink);
}
.text {
  overflow: hidden;
  text-overflow: ellipsis;
  unicode-bidi: isolate;
}
.failing .text {
  color: var(--madder);
}
.knot .text {
  font-weight: 700;
}
.warning .text {
  color: var(--weld);
}
.direction {
  color: var(--soft-ink);
  flex: none;
  min-width: 92px;
}
.aside {
  color: var(--soft-ink);
  flex: none;
  font-size: 11.5px;
}
.gap {
  color: var(--soft-ink);
  font:
    600 12.5px/21px 'Source Sans 3 Variable',
    sans-serif;
}
.leg {
  color: var(--ink);
  border-top: 1px solid var(--strong-seam);
  font:
    400 13px/21px 'Source Sans 3 Variable',
    sans-serif;
}
.leg strong {
  flex: none;
}
.change {
  color: var(--walnut);
  font:
    600 13px/21px 'Source Sans 3 Variable',
    sans-serif;
}
.gap.lock {
  color: var(--weld);
}
.gap:hover {
  background: none;
}
</style>
