<script setup lang="ts">
import { printValue } from '@fadenweg/core/search';
import { useVirtualizer } from '@tanstack/vue-virtual';
import { computed, ref, toRef, useTemplateRef, watch } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import ProblemNote from '../frame/ProblemNote.vue';
import OutcomeGlyph from '../glyphs/OutcomeGlyph.vue';
import { OUTCOME_WORDS } from '../glyphs/outcomes.ts';
import { useCommands } from '../keys/commands.ts';
import { clock, count, day, sameDay } from '../time/format.ts';
import type { Asked } from './use-find.ts';
import { useGroups, type Group } from './use-groups.ts';

/** A result grouped: by strand, by shape, or by the values of any field; the most frequent or the latest first. */
const props = defineProps<{ asked: Asked | null; by: string }>();
const emit = defineEmits<{ value: [field: string, value: string, out: boolean] }>();
const route = useRoute();
const router = useRouter();
const ROW = 28;
const { groups, cut, total, without, searched, searching, problem, again, stop } = useGroups(toRef(props, 'asked'), toRef(props, 'by'));
const SORTS = [{ name: 'frequent', label: 'most frequent' }, { name: 'rare', label: 'rarest' }, { name: 'latest', label: 'latest' }] as const; // prettier-ignore
const sort = computed(() => SORTS.find((one) => one.name === route.query.sort)?.name ?? 'frequent');
/** Letters that a group has to hold. */
const typed = ref('');
const sorted = computed(() => {
  const wanted = typed.value.trim().toLowerCase();
  const some = wanted === '' ? [...groups.value] : groups.value.filter((one) => `${one.value} ${one.strand?.headline ?? ''} ${one.strand?.outcome ?? ''}`.toLowerCase().includes(wanted)); // prettier-ignore
  const later = (a: Group, b: Group): number => b.lastAt.localeCompare(a.lastAt);
  if (sort.value === 'latest') return some.sort(later);
  return some.sort((a, b) => (sort.value === 'rare' ? a.count - b.count : b.count - a.count) || later(a, b));
});
const byStrand = computed(() => props.by === 'strand');
const most = computed(() => groups.value.reduce((max, one) => Math.max(max, one.count), 1));
const scroller = useTemplateRef<HTMLElement>('scroller');
const rows = useVirtualizer(
  computed(() => ({ count: sorted.value.length, getScrollElement: () => scroller.value, estimateSize: () => ROW, overscan: 12 })),
);
const at = ref(-1);
watch([() => JSON.stringify(props.asked), () => props.by, sort], () => (at.value = -1));
function follow(index = at.value): void {
  const one = sorted.value[index];
  if (!one) return;
  if (one.strand) void router.push({ name: 'strand', params: { id: one.value } });
  else emit('value', props.by, one.value, false);
}
function move(by: number): void {
  at.value = Math.max(0, Math.min(sorted.value.length - 1, at.value + by));
  rows.value.scrollToIndex(at.value);
}
useCommands('the groups', [
  { name: 'next line', keys: ['j'], run: () => move(1) },
  { name: 'previous line', keys: ['k'], run: () => move(-1) },
  { name: 'open the line', keys: ['o', 'Enter'], run: () => follow() },
  {
    name: 'leave the value of the line out',
    keys: ['x'],
    can: () => sorted.value[at.value] !== undefined && !sorted.value[at.value]!.strand,
    run: () => emit('value', props.by, sorted.value[at.value]!.value, true),
  },
]);
const when = (first: string, last: string): string => `${day(first).slice(5)} ${clock(first, 0)} – ${sameDay(first, last) ? clock(last, 0) : `${day(last).slice(5)} ${clock(last, 0)}`}`; // prettier-ignore
</script>
<template>
  <section class="groups" :aria-label="`Grouped by ${by}`">
    <p class="head">
      <template v-if="cut">the latest </template><b>{{ count(groups.length) }}</b>
      {{ byStrand ? 'strands' : by === 'shape' ? 'shapes' : `values of ${by}` }} in {{ count(total - without) }} records<template v-if="without"
        >; {{ count(without) }} belong to {{ byStrand ? 'no strand' : 'none' }}</template
      ><template v-if="searching">
        · {{ Math.round(searched * 100) }} % searched <button type="button" class="link" @click="stop">stop</button></template
      ><template v-else-if="searched < 1 && !problem"> · stopped at {{ Math.round(searched * 100) }} % of the window</template>
      <span class="order" role="group" aria-label="Order of groups">
        <input v-model="typed" class="input" maxlength="100" aria-label="Only groups that hold" placeholder="only those that hold …" />
        <button
          v-for="one in SORTS"
          :key="one.name"
          type="button"
          :aria-pressed="sort === one.name"
          @click="router.replace({ query: { ...route.query, sort: one.name === 'frequent' ? undefined : one.name } })"
        >
          {{ one.label }}
        </button>
      </span>
    </p>
    <ProblemNote v-if="problem" :problem="problem" @again="again" />
    <div ref="scroller" class="scroller" tabindex="0" role="listbox" data-lines aria-label="Groups; j and k move, o opens">
      <div :style="{ height: `${rows.getTotalSize()}px`, position: 'relative' }" role="presentation">
        <div
          v-for="row in rows.getVirtualItems()"
          :key="sorted[row.index]!.value"
          class="row"
          role="option"
          :class="{ at: row.index === at }"
          :aria-selected="row.index === at"
          :style="{ transform: `translateY(${row.start}px)` }"
          @click="follow(row.index)"
        >
          <span class="number">{{ count(sorted[row.index]!.count) }}</span>
          <span class="share" aria-hidden="true"><i :style="{ width: `${(sorted[row.index]!.count / most) * 100}%` }"></i></span>
          <template v-if="sorted[row.index]!.strand"
            ><span class="outcome"
              ><OutcomeGlyph :outcome="sorted[row.index]!.strand!.outcome" silent /> {{ OUTCOME_WORDS[sorted[row.index]!.strand!.outcome] }}</span
            ><span class="mono cut id">{{ sorted[row.index]!.strand!.name }}</span
            ><span class="cut">{{ sorted[row.index]!.strand!.flowLabel }}</span
            ><span class="cut what">{{ sorted[row.index]!.strand!.headline }}</span></template
          ><span v-else class="mono cut value" :title="printValue(sorted[row.index]!.value)">{{ sorted[row.index]!.value || '(empty)' }}</span>
          <span class="soft when">{{ when(sorted[row.index]!.firstAt, sorted[row.index]!.lastAt) }}</span>
        </div>
      </div>
      <p v-if="!searching && !problem && sorted.length === 0" class="nothing">
        <template v-if="total === 0">No record of this window is found. Widen the window (<kbd>w</kbd>), or take a term away.</template
        ><template v-else>None of the {{ count(total) }} records that are found has {{ byStrand ? 'a strand' : `a field “${by}”` }}.</template>
      </p>
    </div>
  </section>
</template>
<style scoped>
.groups {
  flex: 1;
  min-width: 0;
  display: flex;
  flex-direction: column;
}
.head {
  margin: 0;
  padding: 5px 16px;
  border-bottom: 1px solid var(--seam);
}
.order {
  float: right;
  display: flex;
  gap: 10px;
  align-items: center;
}
.order .input {
  width: 150px;
  min-height: 24px;
  padding: 0 6px;
}
.scroller {
  flex: 1;
  overflow-y: scroll;
  overflow-x: hidden;
}
.row {
  position: absolute;
  left: 0;
  right: 0;
  height: 28px;
  display: flex;
  align-items: center;
  gap: 12px;
  padding: 0 16px;
  cursor: pointer;
  border-bottom: 1px solid var(--seam);
  white-space: nowrap;
  box-sizing: border-box;
}
.row:hover {
  background: var(--paper);
}
.row.at {
  background: var(--indigo-wash);
  box-shadow: inset 3px 0 var(--indigo);
}
.number {
  flex: 0 0 62px;
}
.share {
  flex: 0 0 70px;
}
.share i {
  display: block;
  height: 9px;
  min-width: 1px;
  background: var(--undyed);
}
.outcome {
  flex: 0 0 86px;
}
.id {
  flex: 0 1 150px;
}
.cut {
  overflow: hidden;
  text-overflow: ellipsis;
}
.what,
.value {
  flex: 1;
  min-width: 0;
}
.when {
  flex: none;
  font-variant-numeric: tabular-nums;
  font-size: 12.5px;
}
.nothing {
  padding: 24px 16px;
  margin: 0;
}
</style>
