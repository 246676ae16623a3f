<script setup lang="ts">
import type { LogRecord } from '@fadenweg/api';
import { useVirtualizer, type Range } from '@tanstack/vue-virtual';
import { computed, nextTick, ref, useTemplateRef, watch } from 'vue';
import { useCommands } from '../keys/commands.ts';
import { clock, count, micros } from '../time/format.ts';
import ValueMenu from '../record/ValueMenu.vue';
import ColumnHead from './ColumnHead.vue';
import { gridOf, valueOf } from './columns.ts';
import type { TimeMode } from './line-time.ts';
import type { LineStore } from './page-store.ts';
import RecordLine from './RecordLine.vue';
import { MOST_SHOWN } from './use-find.ts';
import { LINE, type View } from './use-view.ts';

/** The records that are found, line by line, any number of them; the lines in sight are told to whoever draws the time beside them. */
const props = defineProps<{
  view: View;
  store: LineStore;
  /** Changes with the lines. */
  version: number;
  /** The lines are still those of the question before. */
  stale: boolean;
  words: readonly string[];
  /** Id of the record that is open beside, '' for none. */
  selected: string;
  tags: ReadonlyMap<number, { letter: string; shade: number; path: string }>;
  /** Time of the marked record. */
  reference: string | null;
  /** Whether there is evidence beyond the window at the upper and the lower end. */
  beyond: { top: 'earlier' | 'later' | null; bottom: 'earlier' | 'later' | null };
}>();
const emit = defineEmits<{
  open: [record: LogRecord];
  more: [];
  look: [from: number, to: number];
  show: [index: number];
  sight: [from: string, to: string];
  at: [record: LogRecord | null];
  widen: [side: 'earlier' | 'later'];
  /** One reads further up than the end, or no longer. */
  behind: [yes: boolean];
}>();
/** Lines drawn beyond those in sight, at least, on each side. */
const BEYOND = 12;
const scroller = useTemplateRef<HTMLElement>('scroller');
const grid = computed(() => gridOf(props.view.columns.value));
const time = computed<TimeMode>(() =>
  props.reference ? { since: 'mark', at: props.reference } : props.view.since.value ? { since: 'previous' } : { since: 'day' },
);
const height = computed(() => LINE[props.view.density.value]);
const lines = computed(() => {
  const { store, version } = props;
  return {
    version,
    length: store.length,
    at: (index: number) => store.at(index),
    before: (index: number) => store.recordBefore(index)?.at ?? null,
  };
});
/** As many lines at any time, in steps of 16, so that each that leaves gives its place on the page to one that comes. */
function drawn({ startIndex, endIndex, count }: Range): number[] {
  const wanted = Math.ceil((endIndex - startIndex + 1 + 2 * BEYOND) / 16) * 16;
  const length = Math.min(count, wanted);
  const first = Math.max(0, Math.min(count - length, startIndex - Math.floor((length - (endIndex - startIndex + 1)) / 2)));
  return Array.from({ length }, (_, i) => first + i);
}
const rows = useVirtualizer(
  computed(() => ({
    count: lines.value.length,
    getScrollElement: () => scroller.value,
    estimateSize: () => height.value,
    rangeExtractor: drawn,
    measureElement: props.view.wrap.value ? undefined : () => height.value,
  })),
);
watch([height, props.view.wrap, props.view.columns], () => rows.value.measure());
/** Each has one element of the list to itself and nothing beside it: a text between them, though empty, makes the browser go through all of them. */
const shown = computed(() =>
  rows.value.getVirtualItems().flatMap((row) => {
    const line = lines.value.at(row.index);
    return line ? [{ row, line }] : [];
  }),
);
const places = computed(() => rows.value.getVirtualItems().length);
const placeOf = (index: number): number => (props.view.wrap.value ? index : index % places.value);
const measure = (element: unknown): void => rows.value.measureElement(element as Element | null);

const inSight = computed(() => {
  const items = rows.value.getVirtualItems();
  return items.length === 0 ? null : ([items[0]!.index, items.at(-1)!.index] as const);
});
watch(inSight, (now, before) => {
  if (!now || (before && now[0] === before[0] && now[1] === before[1])) return;
  if (now[1] > props.store.length - 80) emit('more');
  emit('look', ...now);
  const seen = rows.value.getVirtualItems().flatMap(({ index }) => {
    const line = props.store.at(index);
    return line?.type === 'record' ? [line.record.at] : [];
  });
  if (seen.length > 0) emit('sight', [...seen].sort()[0]!, [...seen].sort().at(-1)!);
});

const at = ref(-1);
let placed = '';
/** The other end of a selection of several lines, -1 for none. */
const anchor = ref(-1);
const within = (index: number): boolean =>
  anchor.value >= 0 && index >= Math.min(anchor.value, at.value) && index <= Math.max(anchor.value, at.value);
watch(
  () => JSON.stringify([props.view.asked.value, props.view.rank.value]),
  () => {
    at.value = -1;
    anchor.value = -1;
    placed = '';
  },
);
const recordAt = (index: number): LogRecord | null => {
  const line = props.store.at(index);
  return line?.type === 'record' ? line.record : null;
};
watch(at, () => emit('at', recordAt(at.value)));
function move(by: number, extends_ = false): void {
  if (props.store.length === 0) return;
  anchor.value = extends_ ? (anchor.value < 0 ? Math.max(0, at.value) : anchor.value) : -1;
  at.value = Math.max(0, Math.min(props.store.length - 1, at.value + by));
  rows.value.scrollToIndex(at.value);
  const record = recordAt(at.value);
  if (props.selected && record && !extends_) emit('open', record);
}
function open(index = at.value, event?: MouseEvent): void {
  if (event?.shiftKey && at.value >= 0) {
    anchor.value = anchor.value < 0 ? at.value : anchor.value;
    at.value = index;
    window.getSelection()?.removeAllRanges();
    return;
  }
  anchor.value = -1;
  at.value = index;
  const line = props.store.at(index);
  if (line?.type === 'hidden') emit('show', index);
  else if (line?.type === 'record') emit('open', line.record);
}
const menu = useTemplateRef<InstanceType<typeof ValueMenu>>('menu');
/** What can be done with a value of a line: by a click on it, or by key at the first column, from where the arrow keys go on. */
function take(index: number, column: number): void {
  const record = recordAt(index);
  const line = scroller.value?.querySelector(`[data-index="${index}"] .line`);
  if (!record || !line) return;
  const cells = [...line.children].filter((one) => !one.matches('.time, .letter'));
  const values = props.view.columns.value.flatMap(({ field }, place) => {
    const value = field === 'message' ? '' : valueOf(record, field);
    const identifier = record.identifiers.some((one) => one.kind === field || one.value === value);
    return value === '' ? [] : [{ field, value, identifier, cell: cells[place] ?? null, place }];
  });
  const wanted = values.findIndex((one) => one.place === column);
  void menu.value?.show(values, Math.max(0, wanted));
}
useCommands('the lines', [
  { name: 'next line', keys: ['j'], run: () => move(1) },
  { name: 'previous line', keys: ['k'], run: () => move(-1) },
  { name: 'choose the next line too', keys: ['J'], run: () => move(1, true) },
  { name: 'choose the previous line too', keys: ['K'], run: () => move(-1, true) },
  { name: 'open the line', keys: ['o', 'Enter'], run: () => open() },
  { name: 'what to do with a value of the line', keys: ['h'], run: () => take(at.value, 0) },
]);

/** A record that an address names is brought into sight as soon as it is there. */
watch(
  () => [props.version, props.selected, props.stale] as const,
  async () => {
    if (props.stale || props.selected === '' || placed === props.selected) return;
    const index = props.store.indexOf(props.selected);
    if (index < 0) return searchOn();
    placed = props.selected;
    if (at.value === index) return;
    at.value = index;
    await nextTick();
    rows.value.scrollToIndex(index, { align: 'center' });
  },
  { immediate: true },
);

/** Lines that are fetched at most to reach the record that an address names. */
const FURTHEST = 3000;
function searchOn(): void {
  if (props.view.rank.value) return;
  const last = recordAt(props.store.length - 1);
  const wanted = Number(/^\d+/.exec(props.selected)?.[0] ?? NaN);
  if (!last || Number.isNaN(wanted) || props.store.length > FURTHEST) return;
  if (props.view.order.value === 'oldest' ? micros(last.at) <= wanted : micros(last.at) >= wanted) emit('more');
}

/** The record at the line, or those of the selection, in the order of the list. */
function chosen(): LogRecord[] {
  if (anchor.value < 0) {
    const one = recordAt(at.value);
    return one ? [one] : [];
  }
  const [from, to] = [Math.min(anchor.value, at.value), Math.max(anchor.value, at.value)];
  return Array.from({ length: to - from + 1 }, (_, i) => recordAt(from + i)).filter((one) => one !== null);
}
const current = (): LogRecord | null => recordAt(at.value);
/** Near the end so many pixels are as good as at it. */
const NEAR = 30;
function scrolled(): void {
  const own = scroller.value;
  if (own) emit('behind', own.scrollHeight - own.scrollTop - own.clientHeight > NEAR);
}
function toEnd(): void {
  if (props.store.length > 0) rows.value.scrollToIndex(props.store.length - 1, { align: 'end' });
}
defineExpose({ chosen, current, toEnd });
</script>
<template>
  <div class="table" :style="{ '--line': `${height}px` }">
    <ColumnHead :view="view" :tagged="tags.size > 0" />
    <div ref="scroller" class="scroller" tabindex="0" role="region" data-lines aria-label="Records; j and k move, o opens" @scroll.passive="scrolled">
      <p v-if="beyond.top && store.length > 0" class="beyond soft" role="presentation">
        The window {{ beyond.top === 'earlier' ? 'begins' : 'ends' }} here ·
        <button type="button" class="link" @click="emit('widen', beyond.top)">go on to {{ beyond.top }} records</button>
      </p>
      <div
        :style="{ height: `${rows.getTotalSize()}px`, position: 'relative' }"
        role="listbox"
        data-lines
        aria-multiselectable="true"
        aria-label="Records"
      >
        <div
          v-for="{ row, line } in shown"
          :key="placeOf(row.index)"
          :ref="(it) => view.wrap.value && measure(it)"
          class="place"
          role="presentation"
          :data-index="row.index"
          :style="{ top: `${row.start}px` }"
        >
          <RecordLine
            v-if="line.type === 'record'"
            :record="line.record"
            :before="lines.before(row.index)"
            :time="time"
            :words="words"
            :marks="view.marks.value"
            :columns="view.columns.value"
            :grid="grid"
            :chosen="row.index === at || line.record.id === selected || within(row.index)"
            :quiet="line.quiet"
            :wrap="view.wrap.value"
            :tag="tags.get(line.record.source.id) ?? null"
            @open="(event) => open(row.index, event)"
            @take="(column) => take(row.index, column)"
          />
          <div
            v-else
            class="between soft"
            role="option"
            :aria-selected="row.index === at"
            :class="{ at: row.index === at }"
            :style="{ height: `${height}px` }"
            @click="open(row.index)"
          >
            <template v-if="line.type === 'hidden'"
              ><span class="thread" aria-hidden="true"></span>{{ count(line.count) }} quiet {{ line.count === 1 ? 'record' : 'records' }} hidden ·
              <span class="link">{{ line.count > MOST_SHOWN ? `show the next ${MOST_SHOWN}` : 'show' }}</span></template
            ><template v-else-if="line.type === 'note'"
              ><span class="thread" aria-hidden="true"></span><span class="mono">{{ line.at ? clock(line.at) : '' }}</span> {{ line.text }}</template
            ><template v-else>…</template>
          </div>
        </div>
      </div>
      <p v-if="beyond.bottom && store.length > 0" class="beyond soft" role="presentation">
        The window {{ beyond.bottom === 'earlier' ? 'begins' : 'ends' }} here ·
        <button type="button" class="link" @click="emit('widen', beyond.bottom)">go on to {{ beyond.bottom }} records</button>
      </p>
      <slot />
    </div>
    <ValueMenu ref="menu" />
  </div>
</template>
<style scoped>
.table {
  flex: 1;
  min-height: 0;
  display: flex;
  flex-direction: column;
}
.scroller {
  flex: 1;
  overflow-y: scroll;
  overflow-x: hidden;
  contain: strict;
  /* opaque, so that scrolling moves what is painted */
  background: var(--linen);
}
.beyond {
  margin: 0;
  padding-left: 158px;
  font-size: 12px;
}
.place {
  position: absolute;
  left: 0;
  right: 0;
}
.between {
  padding-left: 158px;
  display: flex;
  align-items: center;
  gap: 6px;
  font-size: 12px;
  cursor: pointer;
  box-sizing: border-box;
}
.between:hover,
.between.at {
  background: var(--indigo-wash);
}
.thread {
  width: 22px;
  border-top: 1.5px dotted var(--undyed);
}
</style>
