<script setup lang="ts">
import type { Change } from '@fadenweg/api';
import { computed, useTemplateRef, watch } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import { api } from '../api/client.ts';
import { useAttempt } from '../api/use-attempt.ts';
import { useRequest } from '../api/use-request.ts';
import TimeRail from '../find/TimeRail.vue';
import { useTally } from '../find/use-tally.ts';
import ProblemNote from '../frame/ProblemNote.vue';
import SideSheet from '../frame/SideSheet.vue';
import { useCommands } from '../keys/commands.ts';
import { useShare } from '../share/use-share.ts';
import { useSummary } from '../stores/summary.ts';
import { clock, day } from '../time/format.ts';
import { useScope } from '../time/scope.ts';
import { useWindow } from '../time/window.ts';
import ChangeForm from './ChangeForm.vue';
import { againstLink } from '../against/against-link.ts';
import SinceSheet from './SinceSheet.vue';
import StatesSheet from './StatesSheet.vue';
import { CHANGE_WORDS, MOST_CHANGES, useChanges } from './use-changes.ts';

/** What changed in the systems, time running down, and what was known of them at any of these moments. */
const TABS = [
  { name: 'state', label: 'State then' },
  { name: 'since', label: 'Different since' },
  { name: 'register', label: 'Register' },
];
const route = useRoute();
const router = useRouter();
const store = useSummary();
const view = useWindow();
const scope = useScope();
const environment = computed(() => scope.chosen.value.join(','));
const asked = computed(() => (view.ready.value && !store.empty ? { ...view.bounds.value, environment: environment.value } : null));
const { answer, problem, loading, again } = useChanges(asked);
const items = computed(() => answer.value?.items ?? []);
const bounded = computed(() => {
  const { from, to } = scope.span.value;
  return asked.value && from && to
    ? { q: '', quiet: 'show' as const, order: 'oldest' as const, from, to: new Date(Date.parse(to) + 1).toISOString(), ...clean(asked.value) }
    : null;
});
const clean = <T extends object>(of: T): Partial<T> =>
  Object.fromEntries(Object.entries(of).filter(([, value]) => value !== undefined)) as Partial<T>;
const { tally } = useTally(bounded);
const coverage = useRequest([() => bounded.value?.from, () => bounded.value?.to], (signal) =>
  bounded.value ? api.get('/coverage', { query: { from: bounded.value.from, to: bounded.value.to } }, signal) : Promise.resolve(null),
);

const text = (name: string): string => (typeof route.query[name] === 'string' ? (route.query[name] as string) : '');
const adjust = (more: Record<string, string | undefined>): void => void router.replace({ query: { ...route.query, ...more } });
const selected = computed(() => items.value.find((one) => one.id === text('change')) ?? items.value.at(-1) ?? null);
const tab = computed(() => TABS.find((one) => one.name === text('tab'))?.name ?? 'state');
/** Until the end of the evidence where nothing is selected. */
const at = computed(() => selected.value?.at ?? scope.span.value.to ?? new Date().toISOString());
const list = useTemplateRef<HTMLElement>('list');
watch([() => selected.value?.id, list], () => list.value?.querySelector('[aria-selected=true]')?.scrollIntoView({ block: 'nearest' }), {
  flush: 'post',
});
function move(by: number): void {
  const now = items.value.findIndex((one) => one.id === selected.value?.id);
  const next = items.value[Math.max(0, Math.min(items.value.length - 1, now + by))];
  if (next) adjust({ change: next.id });
}
const open = (): void => void (selected.value?.record && router.push({ name: 'record', params: { id: selected.value.record } }));
const share = useShare();
useCommands('Changes', [
  { name: 'next line', keys: ['j'], run: () => move(1) },
  { name: 'previous line', keys: ['k'], run: () => move(-1) },
  { name: 'open the line', keys: ['o'], run: open },
  { name: 'copy a link to exactly this view', keys: ['c'], run: () => void share.copyLink() },
]);

function registered(change: Change): void {
  void again();
  adjust({ change: change.id, tab: undefined });
}
const { attempt, problem: refused } = useAttempt(again);
const takeBack = (change: Change): Promise<boolean> => attempt(() => api.delete('/changes/{id}', { params: { id: change.id } }));
/** Records of the hour around it, of its component. */
const around = (change: Change) => ({
  name: 'find',
  query: {
    e: route.query.e,
    w: `${new Date(Date.parse(change.at) - 1_800_000).toISOString()}~${new Date(Date.parse(change.at) + 1_800_000).toISOString()}`,
    q: change.component === '' ? undefined : `where component = '${change.component.replaceAll("'", "''")}'`,
  },
});
/** In the window that is looked at. */
const version = ({ component, after }: Change) => againstLink({ what: 'version', name: after, of: component }, route.query);
/** The hour since it, against the hours before it. */
const saidSince = (change: Change) => ({
  name: 'shapes',
  query: { e: route.query.e, w: `${change.at}~${new Date(Date.parse(change.at) + 3_600_000).toISOString()}` },
});
const failedSince = (change: Change) => ({
  name: 'strands',
  query: {
    e: route.query.e,
    w: `${change.at}~${view.bounds.value.to ?? scope.span.value.to}`,
    outcome: 'failed,stalled,odd,slow,refused',
    by: 'finding',
  },
});
</script>
<template>
  <main class="changes">
    <h1 class="visually-hidden">Changes</h1>
    <div v-if="store.empty" class="empty">
      <p>Nothing is loaded yet. Bring in logs on <RouterLink to="/sources">Sources</RouterLink>.</p>
    </div>
    <div v-else class="body">
      <TimeRail
        v-if="tally"
        :tally="tally"
        :coverage="coverage.answer.value"
        :changes="items"
        @window="(from, to) => view.set(`${new Date(from).toISOString()}~${new Date(to).toISOString()}`)"
      />
      <div class="middle">
        <ProblemNote v-if="problem" :problem="problem" @again="again" />
        <ProblemNote v-if="refused" :problem="refused" @again="again" />
        <p v-if="loading && !answer" class="soft note" role="status">Loading…</p>
        <p v-else-if="!problem && items.length === 0" class="note">
          In this window no record tells of a version, a setting, a restart or a fail-over. Widen the window (<kbd>w</kbd>), or
          <button type="button" class="link" @click="adjust({ tab: 'register' })">register</button> what changed.
        </p>
        <div v-else ref="list" class="list" role="listbox" tabindex="0" data-lines aria-label="Changes; j and k move, o opens the record">
          <div
            v-for="(change, index) in items"
            :key="change.id"
            class="row"
            role="option"
            :aria-selected="change.id === selected?.id"
            @click="adjust({ change: change.id })"
          >
            <span class="mono when"
              ><span class="soft">{{ index === 0 || day(items[index - 1]!.at) !== day(change.at) ? day(change.at) : '' }}</span>
              {{ clock(change.at, 0) }}</span
            >
            <span class="kind">{{ CHANGE_WORDS[change.kind] }}</span>
            <span class="what">{{ change.words }}</span>
          </div>
          <p v-if="answer?.next" class="soft note">The first {{ MOST_CHANGES }} of the window. Narrow it for the others.</p>
        </div>
        <section v-if="selected" class="open" aria-label="The selected change">
          <p v-if="selected.record" class="mono told">{{ selected.text }}</p>
          <p v-else class="soft">Registered by {{ selected.by }}.</p>
          <p class="next">
            <RouterLink v-if="selected.record" :to="{ name: 'record', params: { id: selected.record } }">the record</RouterLink>
            <RouterLink :to="around(selected)">records around it</RouterLink>
            <RouterLink v-if="selected.component && selected.after && selected.kind !== 'setting'" :to="version(selected)"
              >{{ selected.after }} against other versions</RouterLink
            >
            <RouterLink :to="failedSince(selected)">what went wrong since</RouterLink>
            <RouterLink :to="saidSince(selected)">what is said otherwise since</RouterLink>
            <button v-if="selected.kind === 'registered'" type="button" class="link" @click="takeBack(selected)">take back</button>
          </p>
        </section>
      </div>
      <SideSheet :tabs="TABS" :tab="tab" @tab="(name) => adjust({ tab: name === 'state' ? undefined : name })">
        <StatesSheet v-if="tab === 'state'" :at="at" :environment="environment" />
        <SinceSheet v-else-if="tab === 'since'" :at="at" :environment="environment" />
        <ChangeForm
          v-else-if="scope.span.value.to"
          :at="scope.span.value.to"
          :components="store.summary?.components ?? []"
          :environment="scope.chosen.value[0] ?? ''"
          @registered="registered"
        />
      </SideSheet>
    </div>
  </main>
</template>
<style scoped>
.changes,
.middle {
  display: flex;
  flex-direction: column;
  min-width: 0;
}
.body {
  flex: 1;
  display: flex;
  min-height: 0;
}
.middle {
  flex: 1;
}
.empty,
.note {
  padding: 12px 16px;
  margin: 0;
}
.list {
  flex: 1;
  overflow: auto;
  outline-offset: -2px;
  padding: 6px 0;
}
.row {
  display: grid;
  grid-template-columns: 164px 92px minmax(0, 1fr);
  gap: 10px;
  padding: 4px 16px;
  line-height: 19px;
  cursor: default;
  border-bottom: 1px solid var(--seam);
}
.row:hover {
  background: var(--paper);
}
.row[aria-selected='true'] {
  background: var(--indigo-wash);
  box-shadow: inset 3px 0 var(--indigo);
}
.when {
  text-align: right;
  white-space: pre;
}
.kind {
  color: var(--walnut);
}
.what {
  overflow-wrap: anywhere;
}
.open {
  flex: none;
  border-top: 1px solid var(--strong-seam);
  background: var(--paper);
  padding: 8px 16px;
  max-height: 30%;
  overflow: auto;
}
.open p {
  margin: 2px 0;
}
.told {
  overflow-wrap: anywhere;
}
.next {
  display: flex;
  gap: 18px;
}
</style>
