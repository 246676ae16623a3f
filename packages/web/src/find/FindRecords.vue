<script setup lang="ts">
import type { LogRecord } from '@fadenweg/api';
import { fieldNames, nearestName, parseSearch, printSearch, withValue } from '@fadenweg/core/search';
import { computed, onBeforeUnmount, onMounted, ref, useTemplateRef } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import { api } from '../api/client.ts';
import { useOwnColumns } from '../kept/own-columns.ts';
import { useRequest } from '../api/use-request.ts';
import ProblemNote from '../frame/ProblemNote.vue';
import SideSheet from '../frame/SideSheet.vue';
import { useCommands } from '../keys/commands.ts';
import RecordSheet from '../record/RecordSheet.vue';
import { useSaid, useShare } from '../share/use-share.ts';
import { micros } from '../time/format.ts';
import { useScope } from '../time/scope.ts';
import FindGroups from './FindGroups.vue';
import FindTerms from './FindTerms.vue';
import QuietPanel from './QuietPanel.vue';
import WeightPanel from './WeightPanel.vue';
import RankedNote from './RankedNote.vue';
import RecordList from './RecordList.vue';
import SearchHelp from './SearchHelp.vue';
import SearchProblemNote from './SearchProblemNote.vue';
import { sourceTags } from './source-tags.ts';
import SourcesPanel from './SourcesPanel.vue';
import TimeRail from './TimeRail.vue';
import { useChanges } from '../changes/use-changes.ts';
import { useLines } from './use-lines.ts';
import { useTally } from './use-tally.ts';
import { useView } from './use-view.ts';
import ValuesPanel from './ValuesPanel.vue';

/** What a search finds: the time beside it, records or groups in the middle, and beside them values, the open record, sources, quiet rules. */
const route = useRoute();
const router = useRouter();
const view = useView();
useOwnColumns('columns', 'find');
const share = useShare();
const said = useSaid();
const grouped = computed(() => view.show.value);
const { byTime, ranked, lines, store, stopAll: stop } = useLines(view);
const { version, stale, problem, searching, searched, ended, again: searchAgain } = lines;
const { tally, searched: counted, again: countAgain } = useTally(view.bounded);
const changes = useChanges(computed(() => view.bounded.value && { from: view.bounded.value.from, to: view.bounded.value.to, environment: view.bounded.value.environment })); // prettier-ignore
const coverage = useRequest([() => view.bounded.value?.from, () => view.bounded.value?.to], (signal) =>
  view.bounded.value ? api.get('/coverage', { query: { from: view.bounded.value.from, to: view.bounded.value.to } }, signal) : Promise.resolve(null),
);
const hidden = computed(() => tally.value?.hidden ?? {});
const hiddenSum = computed(() => Object.values(hidden.value).reduce((sum, one) => sum + one, 0));
function rulesChanged(): void {
  void searchAgain();
  void countAgain();
}

const narrow = (field: string, value: string, out: boolean): void => {
  const next = printSearch(withValue(view.parsed.value.search!, field, value, out));
  view.change({ q: next, record: undefined, ...(grouped.value === field && !out ? { show: undefined } : {}) });
};
const helping = ref(false);
function ask(next: string): void {
  helping.value = false;
  view.search(next);
}

const list = useTemplateRef<InstanceType<typeof RecordList>>('list');
const selected = computed(() => view.text('record'));
const tab = computed(() => view.text('tab') || (selected.value ? 'record' : 'values'));
function open(record: LogRecord): void {
  void router.replace({ query: { ...route.query, record: record.id, tab: ['sources', 'quiet'].includes(tab.value) ? tab.value : undefined } });
}
/** Records on each side that make the window around a line. */
const AROUND = 200;
/** Everything around the line, whatever it says, or only what its source, component or host says; the browser's way back leads to the search again. */
async function around(scope: 'all' | 'source' | 'component' | 'host' = 'all', record = list.value?.current() ?? null): Promise<void> {
  if (!record) return;
  try {
    const { items } = await api.get('/records/{id}/around', { params: { id: record.id }, query: { scope, before: AROUND, after: AROUND } });
    const end = new Date(Date.parse(items.at(-1)!.at) + 1).toISOString();
    const q =
      scope === 'component' || scope === 'host' ? printSearch(withValue({ words: [], condition: null }, scope, record[scope], false)) : undefined;
    const source = scope === 'source' ? String(record.source.id) : undefined;
    const w = `${new Date(Date.parse(items[0]!.at)).toISOString()}~${end}`;
    void router.push({
      query: { ...route.query, q, order: 'oldest', w, record: record.id, show: undefined, rank: undefined, src: source, off: undefined },
    });
  } catch (error) {
    said.say(`What stood around it could not be asked for: ${(error as Error).message}`);
  }
}
/** Makes the window longer by its own length, to one side. */
function widen(side: 'earlier' | 'later'): void {
  const { from, to } = view.bounded.value ?? {};
  if (!from || !to) return;
  const [begin, end] = [Date.parse(from), Date.parse(to)];
  setWindow(side === 'earlier' ? begin - (end - begin) : begin, side === 'later' ? end + (end - begin) : end);
}
const reach = useScope().span;
/** Sides on which there is evidence beyond the window: at the upper and the lower end of the list. */
const beyond = computed(() => {
  if (view.rank.value) return { top: null, bottom: null };
  const { from, to } = view.asked.value ?? {};
  const earlier = from !== undefined && reach.value.from !== null && reach.value.from < from ? ('earlier' as const) : null;
  const later = to !== undefined && reach.value.to !== null && Date.parse(reach.value.to) >= Date.parse(to) ? ('later' as const) : null;
  const ends = view.order.value === 'oldest' ? { top: earlier, bottom: later } : { top: later, bottom: earlier };
  return ended.value ? ends : { ...ends, bottom: null };
});
function mark(): void {
  const record = list.value?.current();
  if (record) view.adjust({ ref: view.reference.value === record.id ? undefined : record.id });
}
const reference = computed(() => {
  const at = Number(/^(\d+)-/.exec(view.reference.value)?.[1] ?? NaN);
  return Number.isNaN(at) ? null : `${new Date(Math.floor(at / 1000)).toISOString().slice(0, -1)}${String(at % 1000).padStart(3, '0')}Z`;
});
async function full(): Promise<void> {
  const on = !view.full.value;
  view.flag('full', on);
  try {
    if (on) await document.documentElement.requestFullscreen();
    else if (document.fullscreenElement) await document.exitFullscreen();
  } catch {
    // the browser keeps its own frame; the page still gives all of its room to the lines
  }
}
const left = (): void => {
  if (!document.fullscreenElement && view.full.value) view.flag('full', false);
};
onMounted(() => document.addEventListener('fullscreenchange', left));
onBeforeUnmount(() => document.removeEventListener('fullscreenchange', left));
const ticket = (): void => void share.copyTicket(list.value?.chosen() ?? []);
/** To the strand that the line belongs to. */
function follow(): void {
  const record = list.value?.current();
  if (record?.strand) void router.push({ name: 'strand', params: { id: record.strand }, query: { record: record.id } });
}
useCommands('Find', [
  { name: 'to the strand of the line', keys: ['l'], run: follow },
  { name: 'everything around the line', keys: ['a'], run: () => void around() },
  {
    name: 'leave the component of the line out',
    keys: ['x'],
    run: () => {
      const one = list.value?.current();
      if (one) narrow('component', one.component, true);
    },
  },
  { name: 'count times from the line', keys: ['m'], run: mark },
  { name: 'all of the screen for the lines', keys: ['v'], run: () => void full() },
  { name: 'copy a link to exactly this view', keys: ['c'], run: () => void share.copyLink() },
  { name: 'copy a text for the ticket', keys: ['y'], run: ticket },
]);

/** Fields worth counting: what every record has, then what those in sight have most often. */
const fields = computed(() => {
  const seen = new Map<string, number>();
  if (version.value === 0) return ['component', 'level', 'weight', 'outcome'];
  for (const one of store.value.some(200)) for (const name of Object.keys(one.attributes)) seen.set(name, (seen.get(name) ?? 0) + 1);
  const common = [...seen].filter(([name]) => !/^(?:pid|trace|span|message|content-length)/i.test(name)).sort(([, a], [, b]) => b - a);
  return ['component', 'level', 'weight', 'outcome', ...common.slice(0, 4).map(([name]) => name)];
});
const nothing = computed(() => version.value > 0 && ended.value && store.value.length === 0);
/** Names in a search that finds nothing and that no record has, each with what was probably meant. */
const known = useRequest([() => nothing.value && view.q.value], (signal) => {
  const names = view.parsed.value.search ? fieldNames(view.parsed.value.search) : [];
  if (!nothing.value || names.length === 0 || !view.asked.value) return Promise.resolve(null);
  const { environment, from, to } = view.asked.value;
  return api.get('/records/fields', { query: { environment, from, to } }, signal);
});
const strange = computed(() => {
  const names = known.answer.value?.items;
  if (!names || !view.parsed.value.search) return [];
  const ends = new Set(names.map((name) => name.split('.').at(-1)!));
  return fieldNames(view.parsed.value.search)
    .filter((name) => !names.includes(name) && !ends.has(name))
    .map((name) => ({ name, meant: nearestName(name, names) }));
});
const mend = ({ name, meant }: { name: string; meant: string | null }): void => {
  // the field stands where its name does; what is printed anew is the same search
  const printed = JSON.stringify(view.parsed.value.search, (key, value: unknown) => (key === 'name' && value === name ? meant : value));
  view.search(printSearch(JSON.parse(printed) as Parameters<typeof printSearch>[0]));
};
const words = computed(() => view.parsed.value.search?.words.map((word) => word.text) ?? []);
const setWindow = (from: number, to: number): void => view.frame.set(`${new Date(from).toISOString()}~${new Date(to).toISOString()}`);

const all = useRequest([], (signal) => api.get('/sources', {}, signal));
const sources = computed(() => {
  const { environment } = view.asked.value ?? {};
  const wanted = environment?.split(',');
  return (all.answer.value?.items ?? []).filter((one) => !wanted || wanted.includes(one.environment));
});
/** Lines bear the letter of their source while sources are being chosen, or some are. */
const tagged = computed(() => tab.value === 'sources' || view.only.value.length > 0 || view.off.value.length > 0);
const tags = computed(() => (tagged.value ? sourceTags(sources.value) : new Map<number, never>()));
const sight = ref<[number, number] | null>(null);
const seen = (from: string, to: string): void => {
  sight.value = [micros(from) / 1000, micros(to) / 1000];
};
const TABS = [{ name: 'values', label: 'Values' }, { name: 'record', label: 'Record' }, { name: 'sources', label: 'Sources' }, { name: 'quiet', label: 'Quiet' }, { name: 'weights', label: 'Weights' }]; // prettier-ignore
const current = ref<LogRecord | null>(null);
const turn = (name: string): void => view.change({ tab: name === (selected.value ? 'record' : 'values') ? undefined : name });
const proposal = (): void => view.search(parseSearch(view.q.value).problem!.proposal!);
</script>
<template>
  <main class="find">
    <h1 class="visually-hidden">Find</h1>
    <FindTerms
      v-model:helping="helping"
      :view="view"
      :found="grouped === '' && tally ? tally.total : null"
      :counted="counted"
      :hidden="hiddenSum"
      :searching="searching"
      :searched="searched"
      :fields="fields"
      :has-reference="!!view.reference.value"
      @stop="stop"
      @link="share.copyLink"
      @full="full"
    />
    <SearchProblemNote v-if="view.parsed.value.problem" :text="view.q.value" :problem="view.parsed.value.problem" @propose="proposal" />
    <SearchHelp v-if="helping || view.parsed.value.problem" @search="ask" />
    <div v-else class="body">
      <TimeRail
        v-if="tally"
        :tally="tally"
        :coverage="coverage.answer.value"
        :changes="changes.answer.value?.items"
        :sight="grouped === '' ? sight : null"
        @window="setWindow"
      />
      <FindGroups v-if="grouped !== ''" :asked="view.asked.value" :by="grouped" @value="narrow" />
      <div v-else class="list">
        <ProblemNote v-if="problem" :problem="problem" @again="searchAgain" />
        <RecordList
          ref="list"
          :view="view"
          :store="store"
          :version="version"
          :stale="stale"
          :words="words"
          :selected="selected"
          :tags="tags"
          :reference="reference"
          :beyond="beyond"
          @widen="widen"
          @open="open"
          @more="view.rank.value || byTime.more()"
          @look="(from, to) => view.rank.value || byTime.look(from, to)"
          @show="byTime.show"
          @sight="seen"
          @at="(record) => (current = record)"
        >
          <p v-if="nothing" class="nothing">
            <template v-for="one in strange" :key="one.name"
              >No record here has a field “{{ one.name }}”.
              <button v-if="one.meant" type="button" class="link" @click="mend(one)">
                Did you mean <span class="mono">{{ one.meant }}</span>?</button
              ><br
            /></template>
            No record of this window is found. Widen the window (<kbd>w</kbd>), take a term away, or see under
            <RouterLink to="/sources?tab=coverage">Coverage</RouterLink> whether the sources speak at that time.
          </p>
          <p v-else-if="searching && store.length === 0" class="nothing soft" role="status">Searching…</p>
          <RankedNote v-else-if="view.rank.value" :by="view.rank.value" :ranked="ranked" />
        </RecordList>
      </div>
      <SideSheet v-if="view.asked.value" :tabs="TABS" :tab="tab" @tab="turn">
        <ValuesPanel
          v-if="tab === 'values'"
          :asked="view.asked.value"
          :fields="fields"
          @value="narrow"
          @group="(field) => view.change({ show: field })"
        />
        <SourcesPanel v-else-if="tab === 'sources'" :view="view" :sources="sources" :tags="tags" />
        <QuietPanel
          v-else-if="tab === 'quiet' && view.bounded.value"
          :asked="view.bounded.value"
          :hidden="hidden"
          :record="current"
          @changed="rulesChanged"
        />
        <WeightPanel
          v-else-if="tab === 'weights' && view.bounded.value"
          :asked="view.bounded.value"
          :record="current"
          @changed="rulesChanged"
          @search="(q) => view.search(q)"
        />
        <RecordSheet v-else-if="selected" :id="selected" @around="around" />
        <p v-else class="soft">Choose a line: <kbd>j</kbd> and <kbd>k</kbd> move, <kbd>o</kbd> opens.</p>
      </SideSheet>
    </div>
  </main>
</template>
<style scoped>
.find {
  display: flex;
  flex-direction: column;
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
.nothing {
  padding: 24px 16px;
  margin: 0;
}
</style>
