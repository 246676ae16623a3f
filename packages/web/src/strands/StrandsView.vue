<script setup lang="ts">
import type { StrandGrouping } from '@fadenweg/api';
import { useVirtualizer } from '@tanstack/vue-virtual';
import { useElementSize } from '@vueuse/core';
import { computed, ref, useTemplateRef, watch } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import { hrefOf } from '../api/calls.ts';
import ProblemNote from '../frame/ProblemNote.vue';
import SideSheet from '../frame/SideSheet.vue';
import { columnsOf, columnsText, gridOf, type Column } from '../find/columns.ts';
import { useOwnColumns } from '../kept/own-columns.ts';
import { useCommands } from '../keys/commands.ts';
import ValueMenu from '../record/ValueMenu.vue';
import TakeMenu from '../share/TakeMenu.vue';
import { useShare } from '../share/use-share.ts';
import { useSummary } from '../stores/summary.ts';
import { count } from '../time/format.ts';
import { useScope } from '../time/scope.ts';
import { useWindow } from '../time/window.ts';
import InCommonSheet from './InCommonSheet.vue';
import StrandFilters from './StrandFilters.vue';
import StrandGroups from './StrandGroups.vue';
import EmptyStrands from '../first/EmptyStrands.vue';
import StrandCell from './StrandCell.vue';
import StrandColumnsMenu from './StrandColumnsMenu.vue';
import { fitting, NUMBERS, strandColumnsOf, USUAL_STRAND_COLUMNS, widthOf, type StrandField } from './strand-columns.ts';
import { useStrandsLive } from './use-strands-live.ts';
import { useStrands, type StrandsQuery } from './use-strands.ts';

const ROW = 28;
/** What the address may narrow the list by. */
const NARROWED = 'flow outcome component host fault mentions failedIn finding began minMs weight identifier'.split(' ');
const COMMON = [{ name: 'common', label: 'What these have in common' }];
const route = useRoute();
const router = useRouter();
const store = useSummary();
const view = useWindow();
const scope = useScope();
const text = (name: string): string | undefined => (typeof route.query[name] === 'string' ? (route.query[name] as string) : undefined);
const live = computed(() => route.query.live === '1');
const asked = computed<StrandsQuery | null>(() =>
  view.ready.value && !store.empty
    ? {
        environment: scope.chosen.value.join(','),
        ...Object.fromEntries(NARROWED.map((name) => [name, text(name)])),
        ...view.bounds.value,
        // what comes in lies behind the end of any window
        ...(live.value ? { to: undefined } : {}),
        quiet: text('quiet') === 'show' ? undefined : 'true',
        sort: text('sort') ?? '-started',
      }
    : null,
);
const { items, counts, quiet, problem, loading, first, more, again, hasMore } = useStrands(asked);

const scroller = useTemplateRef<HTMLElement>('scroller');
const table = useTemplateRef<HTMLElement>('table');
function toTop(): void {
  if (scroller.value) scroller.value.scrollTop = 0;
  void show();
}
const { waiting, fresh, show } = useStrandsLive(live, items, () => (scroller.value?.scrollTop ?? 0) > ROW, again);
const rows = useVirtualizer(
  computed(() => ({ count: items.value.length, getScrollElement: () => scroller.value, estimateSize: () => ROW, overscan: 12 })),
);
watch(
  () => rows.value.getVirtualItems().at(-1)?.index ?? 0,
  (last) => {
    if (hasMore() && last > items.value.length - 60) void more();
  },
);
const at = ref(-1);
// only another question begins anew: the same one is asked again whenever the summary comes
watch(
  () => JSON.stringify(asked.value),
  () => {
    at.value = -1;
  },
);
function move(by: number): void {
  at.value = Math.max(0, Math.min(items.value.length - 1, at.value + by));
  rows.value.scrollToIndex(at.value);
}
const menu = useTemplateRef<InstanceType<typeof ValueMenu>>('menu');
/** What can be done with a value of a strand: by a click on it, or by key, from where the arrow keys go on. */
function take(index: number, field = ''): void {
  const item = items.value[index];
  const line = scroller.value?.querySelector(`[aria-rowindex="${index + 1}"]`);
  if (!item || !line) return;
  const cell = (name: string): Element | null => line.querySelector(`[data-field="${name}"]`);
  const values = [
    { field: 'outcome', value: item.outcome, identifier: false, cell: cell('outcome') },
    { field: item.kind, value: item.name, identifier: true, cell: cell('identifier') },
    ...(item.flow === null ? [] : [{ field: 'flow', value: item.flow, identifier: false, cell: cell('flow') }]),
    ...item.parties.map((party) => ({
      field: party.kind,
      value: party.value,
      identifier: true,
      party: true,
      cell: cell('happened') ?? cell('parties'),
    })),
  ];
  void menu.value?.show(values, Math.max(0, values.findIndex((one) => one.field === field))); // prettier-ignore
}
function follow(index: number): void {
  const item = items.value[index];
  if (item) void router.push({ name: 'strand', params: { id: item.id } });
}
const open = (): void => follow(at.value);
const share = useShare();
useCommands('Strands', [
  { name: 'next line', keys: ['j'], run: () => move(1) },
  { name: 'previous line', keys: ['k'], run: () => move(-1) },
  { name: 'open the line', keys: ['o', 'Enter'], run: open },
  { name: 'what to do with a value of the line', keys: ['h'], run: () => take(at.value) },
  { name: 'copy a link to exactly this view', keys: ['c'], run: () => void share.copyLink() },
]);

const GROUPINGS: readonly StrandGrouping[] = ['flow', 'party', 'failed-in', 'finding'];
const by = computed(() => GROUPINGS.find((one) => one === text('by')));
const sort = computed(() => text('sort') ?? '-started');
function sortBy(column: 'started' | 'duration'): void {
  void router.push({ query: { ...route.query, sort: sort.value === `-${column}` ? column : `-${column}` } });
}
/** What the list can be sorted by, by the column that shows it. */
const SORTED: Partial<Record<StrandField, 'started' | 'duration'>> = { begin: 'started', duration: 'duration' };
useOwnColumns('strand-columns', 'strands');
const columns = computed(() => strandColumnsOf(text('cols') === undefined ? [] : columnsOf(text('cols')!)));
const { width: room } = useElementSize(table);
const fit = computed(() => fitting(columns.value, room.value));
const grid = computed(() => gridOf(fit.value));
const least = computed(() => `${widthOf(fit.value)}px`);
function setColumns(next: readonly Column[]): void {
  const words = columnsText(next);
  void router.replace({ query: { ...route.query, cols: words === columnsText(USUAL_STRAND_COLUMNS.columns) ? undefined : words } });
}
const direction = (column: string): 'ascending' | 'descending' | 'none' =>
  sort.value === column ? 'ascending' : sort.value === `-${column}` ? 'descending' : 'none';
const arrow = (column: string): string => ({ ascending: '↑', descending: '↓', none: '' })[direction(column)];
const formats = computed(() => {
  const { sort: _sort, ...filter } = asked.value ?? { sort: '' };
  const href = (format: string): string => hrefOf('/strands/export', { query: { ...filter, format } });
  return [
    { name: 'CSV', about: 'the list, for a spreadsheet', file: 'strands.csv', href: href('csv') },
    { name: 'JSON lines', about: 'all that is known of each', file: 'strands.jsonl', href: href('jsonl') },
    { name: 'OTLP', about: 'as traces, a request a line', file: 'strands.otlp.jsonl', href: href('otlp') },
    { name: 'XES', about: 'as an event log (IEEE 1849)', file: 'strands.xes', href: href('xes') },
  ];
});
const total = computed(() => {
  const flows = text('flow')?.split(',');
  const outcomes = text('outcome')?.split(',');
  return counts.value
    .filter((one) => (!flows || flows.includes(one.flow ?? 'none')) && (!outcomes || outcomes.includes(one.outcome)))
    .reduce((sum, one) => sum + one.count, 0);
});
</script>
<template>
  <main class="strands">
    <h1 v-if="!store.empty && !store.unnamed" class="visually-hidden">Strands</h1>
    <EmptyStrands v-if="store.empty || store.unnamed" />
    <template v-else>
      <StrandFilters :counts="counts" :quiet="quiet" :flows="store.flows" :components="store.summary?.components ?? []" />
      <ProblemNote v-if="problem" :problem="problem" @again="again" />
      <StrandGroups v-if="by && asked" :asked="asked" :by="by" />
      <div v-else class="beside">
        <div ref="table" class="table" role="table" :aria-rowcount="total" aria-label="Strands">
          <div class="head" role="row" :style="{ gridTemplateColumns: grid, minWidth: least }">
            <span
              v-for="column in fit"
              :key="column.field"
              role="columnheader"
              :class="{ number: NUMBERS.has(column.field) }"
              :aria-sort="SORTED[column.field] && direction(SORTED[column.field]!)"
              ><button v-if="SORTED[column.field]" type="button" @click="sortBy(SORTED[column.field]!)">
                {{ column.title }} {{ arrow(SORTED[column.field]!) }}</button
              ><template v-else>{{ column.title }}</template></span
            >
          </div>
          <p v-if="waiting" class="waiting" role="status">
            Strands have come or changed meanwhile. <button type="button" class="link" @click="toTop">show them</button>
          </p>
          <div ref="scroller" class="scroller" :style="{ minWidth: least }" tabindex="0" role="rowgroup" aria-label="Rows; j and k move, o opens">
            <div :style="{ height: `${rows.getTotalSize()}px`, position: 'relative' }" role="presentation">
              <div
                v-for="row in rows.getVirtualItems()"
                :key="items[row.index]!.id"
                class="row"
                :class="{ at: row.index === at, fresh: fresh.has(items[row.index]!.id) }"
                role="row"
                :aria-rowindex="row.index + 1"
                :style="{ transform: `translateY(${row.start}px)`, gridTemplateColumns: grid }"
                @click="follow(row.index)"
              >
                <StrandCell
                  v-for="column in fit"
                  :key="column.field"
                  :item="items[row.index]!"
                  :field="column.field"
                  @take="(field) => take(row.index, field)"
                />
              </div>
            </div>
            <p v-if="!loading && !first && items.length === 0 && !problem" class="nothing">
              No strand in this window fits. Widen the window (<kbd>w</kbd>), or clear the filters.
            </p>
            <p v-if="loading && items.length === 0" class="nothing soft" role="status">Loading…</p>
          </div>
        </div>
        <SideSheet v-if="text('common') && asked" :tabs="COMMON" tab="common">
          <InCommonSheet :asked="asked" />
        </SideSheet>
      </div>
      <ValueMenu ref="menu" />
      <div v-if="!by" class="foot soft">
        <p class="said soft" role="status">{{ count(items.length) }} of {{ count(total) }} strands loaded</p>
        <span class="ways">
          <StrandColumnsMenu :columns="columns" @change="setColumns" />
          <TakeMenu v-if="asked && total > 0" what="these strands" :formats="formats" />
        </span>
      </div>
    </template>
  </main>
</template>
<style scoped>
.fresh {
  background: var(--weld-wash);
}
.waiting {
  margin: 0;
  padding: 3px 16px;
  background: var(--weld-wash);
}
.beside {
  flex: 1;
  min-height: 0;
  display: flex;
}
.beside .table {
  min-width: 0;
  overflow-x: auto;
}
.strands {
  display: flex;
  flex-direction: column;
}
.table {
  flex: 1;
  min-height: 0;
  display: flex;
  flex-direction: column;
}
.head,
.row {
  display: grid;
  column-gap: 12px;
  align-items: center;
  padding: 0 16px;
  box-sizing: border-box;
}
.head {
  height: 30px;
  border-bottom: 1px solid var(--strong-seam);
  font-weight: 600;
  color: var(--soft-ink);
  padding-right: 27px;
}
.head button {
  background: none;
  border: 0;
  font: inherit;
  color: inherit;
  padding: 0;
  cursor: pointer;
}
.head button:hover {
  color: var(--indigo);
}
.scroller {
  flex: 1;
  overflow-y: scroll;
}
.row {
  position: absolute;
  left: 0;
  right: 0;
  height: 28px;
  cursor: pointer;
  border-bottom: 1px solid var(--seam);
  white-space: nowrap;
}
.row:hover {
  background: var(--paper);
}
.row.at {
  background: var(--indigo-wash);
  box-shadow: inset 3px 0 var(--indigo);
}
.nothing {
  padding: 32px 16px;
  margin: 0;
}
.ways {
  display: flex;
  gap: 16px;
}
.foot {
  display: flex;
  justify-content: space-between;
  align-items: center;
  padding: 0 16px;
  font-size: 12px;
  border-top: 1px solid var(--seam);
}
.said {
  margin: 0;
  padding: 2px 0;
}
</style>
