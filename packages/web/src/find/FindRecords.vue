<script setup lang="ts">
import type { Coverage } from '@fadenweg/api';
import { parseSearch, piecesOf, printSearch, withoutPiece, withValue, type Piece } from '@fadenweg/core';
import { useVirtualizer } from '@tanstack/vue-virtual';
import { computed, ref, useTemplateRef, watch } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import { api, query } from '../api/client.ts';
import { useRequest } from '../api/use-request.ts';
import ProblemNote from '../frame/ProblemNote.vue';
import SideSheet from '../frame/SideSheet.vue';
import { useKeys } from '../keys/use-keys.ts';
import RecordSheet from '../record/RecordSheet.vue';
import { useSummary } from '../stores/summary.ts';
import { count } from '../time/format.ts';
import { useScope } from '../time/scope.ts';
import { useWindow } from '../time/window.ts';
import RecordLine from './RecordLine.vue';
import SearchHelp from './SearchHelp.vue';
import TimeRail from './TimeRail.vue';
import ValuesPanel from './ValuesPanel.vue';
import { useFind, type Asked } from './use-find.ts';
import { useTally } from './use-tally.ts';

const ROW = 21;
const route = useRoute();
const router = useRouter();
const store = useSummary();
const view = useWindow();
const scope = useScope();
const text = (name: string): string => (typeof route.query[name] === 'string' ? (route.query[name] as string) : '');
const change = (more: Record<string, string | undefined>): void => void router.push({ query: { ...route.query, ...more } });

const q = computed(() => text('q'));
const parsed = computed(() => parseSearch(q.value));
const pieces = computed(() => (parsed.value.search ? piecesOf(parsed.value.search) : []));
const asked = computed<Asked | null>(() =>
  view.ready.value && !store.empty && parsed.value.search
    ? { q: q.value, ...view.bounds.value, environment: scope.chosen.value.join(','), order: text('order') === 'oldest' ? 'oldest' : 'latest' }
    : null,
);
const { items, problem, searching, searched, ended, more, again, stop } = useFind(asked);
/** The rail needs bounds, also where all time is looked at. */
const railAsked = computed<Asked | null>(
  () =>
    asked.value && {
      ...asked.value,
      order: 'latest',
      from: asked.value.from ?? scope.span.value.from ?? undefined,
      to: asked.value.to ?? scope.span.value.to ?? undefined,
    },
);
const { tally, searched: counted } = useTally(railAsked);
const coverage = useRequest([() => railAsked.value?.from, () => railAsked.value?.to], (signal) =>
  railAsked.value ? api.get<Coverage>(`/coverage${query({ from: railAsked.value.from, to: railAsked.value.to })}`, signal) : Promise.resolve(null),
);

const search = (next: string): void => change({ q: next === '' ? undefined : next, record: undefined });
const remove = (piece: Piece): void => search(printSearch(withoutPiece(parsed.value.search!, piece)));
const narrow = (field: string, value: string, out: boolean): void => search(printSearch(withValue(parsed.value.search!, field, value, out)));
const propose = (): void => search(parsed.value.problem!.proposal!);

const helping = ref(false);
function ask(next: string): void {
  helping.value = false;
  search(next);
}

const scroller = useTemplateRef<HTMLElement>('scroller');
const rows = useVirtualizer(
  computed(() => ({ count: items.value.length, getScrollElement: () => scroller.value, estimateSize: () => ROW, overscan: 20 })),
);
watch(
  () => rows.value.getVirtualItems().at(-1)?.index ?? 0,
  (last) => {
    if (last > items.value.length - 80 && items.value.length > 0) void more();
  },
);
const at = ref(-1);
watch(asked, () => (at.value = -1));
function move(by: number): void {
  at.value = Math.max(0, Math.min(items.value.length - 1, at.value + by));
  rows.value.scrollToIndex(at.value);
  if (selected.value) open();
}
const selected = computed(() => text('record'));
/** A record that an address names is brought into sight as soon as it is there. */
watch(items, (now, before) => {
  if (at.value >= 0 || selected.value === '' || before.length >= now.length) return;
  const index = now.findIndex((one) => one.id === selected.value);
  if (index < 0) return;
  at.value = index;
  rows.value.scrollToIndex(index, { align: 'center' });
});
const tab = computed(() => (selected.value && text('tab') !== 'values' ? 'record' : 'values'));
function open(index = at.value): void {
  const one = items.value[index];
  if (!one) return;
  at.value = index;
  void router.replace({ query: { ...route.query, record: one.id, tab: undefined } });
}
const AROUND = 60_000;
/** Everything around the line, whatever it says; the browser's way back leads to the search again. */
function around(): void {
  const one = items.value[at.value];
  if (!one) return;
  const moment = Date.parse(one.at);
  const w = `${new Date(moment - AROUND).toISOString()}~${new Date(moment + AROUND).toISOString()}`;
  void router.push({ query: { ...route.query, q: undefined, order: 'oldest', w, record: one.id } });
}
useKeys({
  a: around,
  j: () => move(1),
  k: () => move(-1),
  o: () => open(),
  Enter: () => open(),
  x: () => {
    const one = items.value[at.value];
    if (one) narrow('component', one.component, true);
  },
});

/** Fields worth counting: what every record has, then what those in sight have most often. */
const fields = computed(() => {
  const seen = new Map<string, number>();
  for (const one of items.value.slice(0, 200)) for (const name of Object.keys(one.attributes)) seen.set(name, (seen.get(name) ?? 0) + 1);
  const common = [...seen].filter(([name]) => !/^(?:pid|trace|span|message|content-length)/i.test(name)).sort(([, a], [, b]) => b - a);
  return ['component', 'level', 'outcome', ...common.slice(0, 4).map(([name]) => name)];
});
const words = computed(() => parsed.value.search?.words.map((word) => word.text) ?? []);
const found = computed(() =>
  tally.value && counted.value === 1 ? count(tally.value.total) : tally.value ? `${count(tally.value.total)} so far` : '',
);
const setWindow = (from: number, to: number): void => view.set(`${new Date(from).toISOString()}~${new Date(to).toISOString()}`);
const TABS = [{ name: 'values', label: 'Values' }, { name: 'record', label: 'Record' }]; // prettier-ignore
</script>
<template>
  <main class="find">
    <h1 class="visually-hidden">Find</h1>
    <div class="terms" role="group" aria-label="Terms of the search">
      <span v-if="pieces.length === 0 && !parsed.problem" class="soft"
        >All records of the window. Type words above, or click values on the right.</span
      >
      <template v-for="piece in pieces" :key="piece.type + piece.index">
        <button type="button" class="piece mono" :title="`Take “${piece.text}” away`" @click="remove(piece)">
          {{ piece.text }} <span aria-hidden="true">×</span>
        </button>
      </template>
      <button v-if="pieces.length > 1" type="button" class="link" @click="search('')">clear all</button>
      <span class="room"></span>
      <button type="button" class="link" :aria-expanded="helping" @click="helping = !helping">how to search</button>
      <span class="order" role="group" aria-label="Order">
        <button type="button" :aria-pressed="text('order') !== 'oldest'" @click="change({ order: undefined })">latest</button> ·
        <button type="button" :aria-pressed="text('order') === 'oldest'" @click="change({ order: 'oldest' })">oldest</button>
      </span>
      <span class="said" role="status"
        ><b>{{ found }}</b>
        <template v-if="searching && searched < 1">
          searching, {{ Math.round(searched * 100) }} % <button type="button" class="link" @click="stop">stop</button></template
        ><template v-else-if="counted < 1 && tally"> counting, {{ Math.round(counted * 100) }} %</template></span
      >
    </div>
    <p v-if="parsed.problem" class="bad wrong" role="alert">
      <span class="mono"
        >{{ q.slice(0, parsed.problem.from)
        }}<mark>{{ q.slice(parsed.problem.from, Math.max(parsed.problem.to, parsed.problem.from + 1)) || ' ' }}</mark
        >{{ q.slice(Math.max(parsed.problem.to, parsed.problem.from + 1)) }}</span
      ><br />
      Character {{ parsed.problem.from + 1 }}: {{ parsed.problem.message }}.
      <button v-if="parsed.problem.proposal" type="button" class="link" @click="propose">
        Use <span class="mono">{{ parsed.problem.proposal }}</span>
      </button>
    </p>
    <SearchHelp v-if="helping || parsed.problem" @search="ask" />
    <div v-else class="body">
      <TimeRail v-if="tally" :tally="tally" :coverage="coverage.answer.value" @window="setWindow" />
      <div class="list">
        <ProblemNote v-if="problem" :problem="problem" @again="again" />
        <div ref="scroller" class="scroller" tabindex="0" role="listbox" aria-label="Records; j and k move, o opens">
          <div :style="{ height: `${rows.getTotalSize()}px`, position: 'relative' }" role="presentation">
            <RecordLine
              v-for="row in rows.getVirtualItems()"
              :key="items[row.index]!.id"
              :record="items[row.index]!"
              :before="items[row.index - 1] ?? null"
              :words="words"
              :chosen="row.index === at || items[row.index]!.id === selected"
              :style="{ transform: `translateY(${row.start}px)` }"
              @open="open(row.index)"
            />
          </div>
          <p v-if="ended && items.length === 0" class="nothing">
            No record of this window is found. Widen the window (<kbd>w</kbd>), take a term away, or see under
            <RouterLink to="/sources?tab=coverage">Coverage</RouterLink> whether the sources speak at that time.
          </p>
          <p v-else-if="items.length === 0 && searching" class="nothing soft" role="status">Searching…</p>
        </div>
      </div>
      <SideSheet v-if="asked" :tabs="TABS" :tab="tab" @tab="(name) => change({ tab: name === 'values' ? 'values' : undefined })">
        <ValuesPanel v-if="tab === 'values'" :asked="asked" :fields="fields" @value="narrow" />
        <RecordSheet v-else :id="selected" />
      </SideSheet>
    </div>
  </main>
</template>
<style scoped>
.find {
  display: flex;
  flex-direction: column;
}
.terms {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 6px 8px;
  min-height: 34px;
  padding: 6px 16px;
  border-bottom: 1px solid var(--seam);
}
.piece {
  background: var(--paper);
  border: 1px solid var(--strong-seam);
  border-radius: 3px;
  padding: 1px 8px;
  color: var(--ink);
  cursor: pointer;
  max-width: 420px;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.piece:hover span {
  color: var(--madder);
}
.room {
  flex: 1;
}
.order button {
  background: none;
  border: 0;
  padding: 0;
  font: inherit;
  color: var(--soft-ink);
  cursor: pointer;
}
.order button[aria-pressed='true'] {
  color: var(--indigo);
  font-weight: 700;
}
.said {
  white-space: nowrap;
  font-variant-numeric: tabular-nums;
  min-width: 90px;
  text-align: right;
}
.wrong {
  margin: 0;
  padding: 8px 16px;
  background: var(--paper);
  border-bottom: 1px solid var(--seam);
}
mark {
  background: var(--madder-wash, var(--weld-wash));
  color: inherit;
  text-decoration: underline wavy var(--madder);
}
.body {
  flex: 1;
  min-height: 0;
  display: flex;
}
.list {
  flex: 1;
  min-width: 0;
  display: flex;
  flex-direction: column;
}
.scroller {
  flex: 1;
  overflow-y: scroll;
  overflow-x: hidden;
}
.nothing {
  padding: 24px 16px;
  margin: 0;
}
</style>
