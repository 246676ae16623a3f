<script setup lang="ts">
import type { LogRecord } from '@fadenweg/api';
import { piecesOf, printSearch, withoutPiece, type Piece } from '@fadenweg/core/search';
import { computed, nextTick, ref, useTemplateRef, watch } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import RecordList from '../find/RecordList.vue';
import SearchProblemNote from '../find/SearchProblemNote.vue';
import { useView } from '../find/use-view.ts';
import ViewMenu from '../find/ViewMenu.vue';
import SideSheet from '../frame/SideSheet.vue';
import { useCommands } from '../keys/commands.ts';
import RecordSheet from '../record/RecordSheet.vue';
import { useSaid, useShare } from '../share/use-share.ts';
import { useSummary } from '../stores/summary.ts';
import { clock, count } from '../time/format.ts';
import { useScope } from '../time/scope.ts';
import { useLive, type LiveAsked } from './use-live.ts';

/** Records as they come in: the list follows its end, unless it is paused, one reads further up, or the pointer stands on it. */
const route = useRoute();
const router = useRouter();
const view = useView();
const scope = useScope();
const summary = useSummary();
const share = useShare();
const said = useSaid();
const asked = computed<LiveAsked | null>(() =>
  view.parsed.value.search && summary.summary
    ? {
        q: view.q.value,
        environment: view.text('e') || scope.chosen.value.join(',') || undefined,
        sources: view.only.value.length > 0 ? view.only.value.join(',') : undefined,
        quiet: view.text('quiet') === 'show' ? 'show' : 'hide',
      }
    : null,
);
const live = useLive(asked);
const { store, version, state, sums, paused, waiting, beyond, mark } = live;
const list = useTemplateRef<InstanceType<typeof RecordList>>('list');
const selected = computed(() => view.text('record'));
const pieces = computed(() => (view.parsed.value.search ? piecesOf(view.parsed.value.search) : []));
const remove = (piece: Piece): void => view.search(printSearch(withoutPiece(view.parsed.value.search!, piece)));
const words = computed(() => view.parsed.value.search?.words.map((word) => word.text) ?? []);

/** The pointer stands on the lines: what is under it does not move. */
const over = ref(false);
const behind = ref(false);
/** Lines that came below what is in sight. */
const below = ref(0);
let before = 0;
watch(version, async () => {
  const length = store.length + store.gone;
  const added = Math.max(0, length - before);
  before = length;
  if (paused.value) return;
  if (behind.value || over.value) {
    below.value += added;
    return;
  }
  await nextTick();
  list.value?.toEnd();
});
watch([behind, over], () => {
  live.held.value = behind.value || over.value;
  if (!behind.value && !over.value) below.value = 0;
});
function toEnd(): void {
  if (paused.value) live.resume();
  over.value = false;
  behind.value = false;
  below.value = 0;
  void nextTick(() => list.value?.toEnd());
}
function turnPause(): void {
  if (!paused.value) live.pause();
  else {
    live.resume();
    toEnd();
  }
}
function setMark(): void {
  live.setMark();
  said.say('Marked: times count from now on');
}
const open = (record: LogRecord): void => void router.replace({ query: { ...route.query, record: record.id } });
const current = (): LogRecord | null => list.value?.current() ?? null;
function follow(): void {
  const record = current();
  if (record?.strand) void router.push({ name: 'strand', params: { id: record.strand }, query: { record: record.id, live: '1' } });
}
useCommands('Live', [
  { name: 'pause, go on', keys: ['p'], run: turnPause },
  { name: 'count times from now', keys: ['m'], run: setMark },
  { name: 'to the strand of the line', keys: ['l'], run: follow },
  { name: 'to the end', keys: ['G'], run: toEnd },
  { name: 'copy a link to exactly this view', keys: ['c'], run: () => void share.copyLink() },
  { name: 'copy a text for the ticket', keys: ['y'], run: () => void share.copyTicket(list.value?.chosen() ?? []) },
  { name: 'close the record beside it', keys: ['Escape'], run: () => void router.replace({ query: { ...route.query, record: undefined } }) },
]);
const STATES = { connecting: 'connecting…', on: 'live', lost: 'the server does not answer; what comes in meanwhile is told when it does' } as const;
</script>
<template>
  <main class="live">
    <h1 class="visually-hidden">Live</h1>
    <div class="bar" role="group" aria-label="Live search">
      <span class="state" :class="state" role="status">{{ paused && state === 'on' ? 'paused' : STATES[state] }}</span>
      <button
        v-for="piece in pieces"
        :key="piece.type + piece.index"
        type="button"
        class="piece mono"
        :title="`Take “${piece.text}” away`"
        @click="remove(piece)"
      >
        {{ piece.text }} <span aria-hidden="true">×</span>
      </button>
      <span class="soft"
        ><b>{{ count(sums.found) }}</b> found of {{ count(sums.arrived) }} that came in<template v-if="sums.hidden">
          · {{ count(sums.hidden) }} hidden by quiet rules</template
        ></span
      >
      <span class="room"></span>
      <button v-if="paused" type="button" class="link strong" title="Go on (p)" @click="turnPause">
        go on<template v-if="waiting.length + beyond"> · {{ count(waiting.length + beyond) }} wait</template>
      </button>
      <template v-else
        ><button v-if="below > 0" type="button" class="link strong" title="To the latest (G)" @click="toEnd">{{ count(below) }} came below</button
        ><button type="button" class="link" title="Hold the list; what comes in waits (p)" @click="turnPause">pause</button></template
      >
      <button type="button" class="link" title="Count times from now (m)" @click="setMark">mark now</button>
      <span v-if="mark" class="soft">marked at {{ clock(mark) }}</span>
      <button type="button" class="link" title="Begin with an empty list" @click="live.clear">clear</button>
      <ViewMenu :view="view" :fields="[]" :has-reference="false" />
    </div>
    <SearchProblemNote
      v-if="view.parsed.value.problem"
      :text="view.q.value"
      :problem="view.parsed.value.problem"
      @propose="view.search(view.parsed.value.problem!.proposal!)"
    />
    <div v-else class="body">
      <div class="list" @pointerenter="over = true" @pointerleave="over = false">
        <RecordList
          ref="list"
          :view="view"
          :store="store"
          :version="version"
          :stale="false"
          :words="words"
          :selected="selected"
          :tags="new Map()"
          :reference="mark"
          :beyond="{ top: null, bottom: null }"
          @open="open"
          @behind="(yes) => (behind = yes)"
        >
          <p v-if="store.length === 0" class="nothing">
            Nothing has come in since this page began to watch. What comes in appears here: from files that are
            <RouterLink to="/sources?tab=followed">followed</RouterLink>, and from imports. Set a mark (<kbd>m</kbd>) before you try something, and
            times count from it.
          </p>
        </RecordList>
      </div>
      <SideSheet v-if="selected" :tabs="[{ name: 'record', label: 'Record' }]" tab="record">
        <RecordSheet :id="selected" />
      </SideSheet>
    </div>
  </main>
</template>
<style scoped>
.live {
  display: flex;
  flex-direction: column;
}
.bar {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 4px 12px;
  padding: 6px 16px;
  border-bottom: 1px solid var(--seam);
  background: var(--paper);
}
.state {
  font-weight: 700;
  color: var(--indigo);
}
.state.lost {
  color: var(--madder);
}
.strong {
  font-weight: 700;
}
.room {
  flex: 1;
}
.piece {
  border: 1px solid var(--strong-seam);
  background: var(--linen);
  color: var(--ink);
  padding: 1px 8px;
  border-radius: 2px;
  cursor: pointer;
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
  max-width: 640px;
}
</style>
