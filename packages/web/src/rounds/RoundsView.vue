<script setup lang="ts">
import type { Rounds } from '@fadenweg/api';
import { computed, useTemplateRef } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import { useChanges } from '../changes/use-changes.ts';
import ProblemNote from '../frame/ProblemNote.vue';
import { useCommands } from '../keys/commands.ts';
import { useSummary } from '../stores/summary.ts';
import EmptyStrands from '../first/EmptyStrands.vue';
import { count } from '../time/format.ts';
import ClothGrid from './ClothGrid.vue';
import DepartureList from './DepartureList.vue';
import InstantPanel from './InstantPanel.vue';
import GroupsForm from './GroupsForm.vue';
import { slotWord } from './cells.ts';
import { columnsOf } from './groups.ts';
import { useRounds } from './use-rounds.ts';

/** One page that is quiet when all is well, and leads to the evidence when it is not. */
const store = useSummary();
const route = useRoute();
const router = useRouter();
const { asked, cloth, list } = useRounds();
const rounds = computed(() => cloth.answer.value);
/** What changed in the window, at its slot. */
const changes = useChanges(computed(() => asked.value && { from: asked.value.from, to: asked.value.to, environment: asked.value.environment }));
const cells = computed(() => rounds.value?.flows.flatMap((flow) => flow.cells) ?? []);
const all = computed(() => cells.value.reduce((sum, one) => sum + one.all, 0));
const done = computed(() => cells.value.reduce((sum, one) => sum + (one.outcomes.done ?? 0), 0));
const marked = computed(() => cells.value.filter((one) => one.departs).length);
const usual = computed(() => {
  const now = rounds.value;
  if (!now) return '';
  if (now.usualBy === 'window') return 'compared with the rest of the window: nothing earlier is known';
  return `compared with the same hours of ${now.days} earlier ${now.usualBy === 'week' ? 'weeks' : 'days'}`;
});
const shift = computed(() => {
  const now = rounds.value;
  if (!now?.shift) return '';
  const names = now.shift.flows.map((name) => now.flows.find((one) => one.flow === name)?.label ?? name);
  const { factor } = now.shift;
  const times = factor >= 1 ? `${factor >= 10 ? Math.round(factor) : factor.toFixed(1)} times as many` : `${Math.round(factor * 100)} % as many`;
  return `${names.join(', ')}: ${times} as usual all the time. Cells are compared after that.`;
});
const pinned = computed(() => {
  const at = typeof route.query.at === 'string' ? route.query.at : null;
  const place = at === null || !rounds.value ? -1 : rounds.value.bounds.indexOf(at);
  return place < 0 || place >= rounds.value!.seen.length ? null : place;
});
const folded = computed(() => new Set(typeof route.query.fold === 'string' ? route.query.fold.split(',') : []));
const columns = computed(() => (rounds.value ? columnsOf(rounds.value.flows, folded.value, rounds.value.seen) : []));
function fold(group: string): void {
  const now = new Set(folded.value);
  if (!now.delete(group)) now.add(group);
  void router.replace({ query: { ...route.query, fold: now.size > 0 ? [...now].join(',') : undefined } });
}
const grouping = computed(() => route.query.groups === '1');
const group = (): void => void router.replace({ query: { ...route.query, groups: grouping.value ? undefined : '1' } });
function open({ bounds }: Rounds, flow: string, slot: number): void {
  void router.push({
    name: 'strands',
    query: { e: route.query.e, w: `${bounds[slot]}~${bounds[slot + 1]}`, began: 'true', flow, by: 'finding' },
  });
}
const column = (flow: string): void => void router.push({ name: 'strands', query: { e: route.query.e, w: route.query.w, began: 'true', flow } });
function pin(slot: number): void {
  void router.push({ query: { ...route.query, at: pinned.value === slot ? undefined : rounds.value!.bounds[slot] } });
}
const instant = computed(() => (typeof route.query.at === 'string' && !Number.isNaN(Date.parse(route.query.at)) ? route.query.at : null));
/** To the slot before or behind the pinned one; a finer step where the pinned instant is none of them. */
function step(by: number): void {
  const { bounds, slotMs } = rounds.value!;
  const next = pinned.value === null ? new Date(Date.parse(instant.value!) + by * slotMs).toISOString() : bounds[pinned.value + by];
  if (next) void router.push({ query: { ...route.query, at: next } });
}
const grid = useTemplateRef<InstanceType<typeof ClothGrid>>('grid');
useCommands('Rounds', [{ name: 'into the cloth', keys: ['j', 'ArrowDown'], run: () => grid.value?.focus() }]);
</script>
<template>
  <main class="rounds">
    <EmptyStrands v-if="store.empty || store.unnamed" />
    <template v-else>
      <section class="cloth" aria-labelledby="rounds-title">
        <header class="top">
          <h1 id="rounds-title">Rounds</h1>
          <p v-if="rounds" class="soft facts">
            {{ count(all) }} strands<template v-if="all > 0"> · {{ ((100 * done) / all).toFixed(1) }} % done</template> ·
            {{ marked === 0 ? 'no cell departs' : `${count(marked)} ${marked === 1 ? 'cell departs' : 'cells depart'}` }} · each row
            {{ slotWord(rounds.slotMs) === 'h' ? 'an hour' : slotWord(rounds.slotMs) === 'day' ? 'a day' : slotWord(rounds.slotMs) }}
          </p>
          <p class="soft facts right">
            {{ usual }} ·
            <button type="button" class="link" :aria-expanded="grouping" @click="group">groups</button>
          </p>
        </header>
        <GroupsForm v-if="rounds && grouping" :flows="rounds.flows" @changed="cloth.again" />
        <p v-if="shift" class="shift" role="note">{{ shift }}</p>
        <ProblemNote v-if="cloth.problem.value" :problem="cloth.problem.value" @again="cloth.again" />
        <p v-if="!rounds && cloth.loading.value" class="soft wait" role="status">Counting what came …</p>
        <p v-else-if="rounds && rounds.flows.length === 0" class="soft wait">No strand began in this window. Choose another one above.</p>
        <ClothGrid
          v-if="rounds && rounds.flows.length > 0"
          ref="grid"
          :rounds="rounds"
          :columns="columns"
          :pinned="pinned"
          :changes="changes.answer.value?.items ?? []"
          @open="(flow, slot) => open(rounds!, flow, slot)"
          @column="column"
          @pin="pin"
          @fold="fold"
        />
        <InstantPanel
          v-if="instant && asked"
          :at="instant"
          :environment="asked.environment"
          @close="router.push({ query: { ...route.query, at: undefined } })"
          @step="step"
        />
      </section>
      <ProblemNote v-if="list.problem.value" :problem="list.problem.value" @again="list.again" />
      <DepartureList v-else-if="list.answer.value" :departures="list.answer.value" @noted="list.again" />
    </template>
  </main>
</template>
<style scoped>
.rounds {
  display: flex;
  flex: 1;
  min-width: 0;
  min-height: 0;
}
.cloth {
  flex: 1;
  min-width: 0;
  display: flex;
  flex-direction: column;
}
.top {
  display: flex;
  align-items: baseline;
  flex-wrap: wrap;
  gap: 2px 14px;
  padding: 10px 16px 6px;
}
.facts {
  margin: 0;
}
.right {
  margin-left: auto;
}
.shift {
  margin: 0 16px 6px;
  padding: 3px 10px;
  border-left: 3px solid var(--indigo);
  background: var(--paper);
}
.wait {
  padding: 24px;
}
</style>
