<script setup lang="ts">
import { useIntervalFn } from '@vueuse/core';
import { computed } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import { api } from '../api/client.ts';
import { useRequest } from '../api/use-request.ts';
import ProblemNote from '../frame/ProblemNote.vue';
import { useSummary } from '../stores/summary.ts';
import CodesPart from './CodesPart.vue';
import CoverageChart from './CoverageChart.vue';
import AfterImport from '../first/AfterImport.vue';
import DemoPart from './DemoPart.vue';
import DropPlace from './DropPlace.vue';
import FollowPart from './FollowPart.vue';
import HostsPart from './HostsPart.vue';
import ImportList from './ImportList.vue';
import KindList from './KindList.vue';
import SourceTextsPart from './SourceTextsPart.vue';
import SourceTable from './SourceTable.vue';
import WorkPart from './WorkPart.vue';

const TABS = [
  ['sources', 'Sources'],
  ['coverage', 'Coverage'],
  ['imports', 'Imports'],
  ['work', 'Work'],
  ['followed', 'Followed'],
  ['hosts', 'Hosts'],
  ['identifiers', 'Identifiers'],
  ['codes', 'Codes'],
  ['texts', 'Source texts'],
] as const;
const route = useRoute();
const router = useRouter();
const store = useSummary();
const tab = computed(() => (TABS.some(([name]) => name === route.query.tab) ? route.query.tab : 'sources'));
const sources = useRequest(
  () => store.summary?.records,
  () => api.get('/sources'),
);
const coverage = useRequest([() => tab.value === 'coverage', () => store.summary?.records], async () =>
  tab.value === 'coverage' ? api.get('/coverage') : null,
);
const imports = useRequest(
  () => store.summary?.imports.length,
  () => api.get('/imports'),
);
/** What the person brought in last, where it has come to an end. */
const own = computed(() => (imports.answer.value?.items ?? []).find((one) => !one.demo && one.state === 'done'));
const running = computed(() => (imports.answer.value?.items ?? []).some((one) => ['receiving', 'reading', 'removing'].includes(one.state)));
useIntervalFn(() => {
  if (running.value) refresh();
}, 1000);
function refresh(): void {
  void sources.again();
  void imports.again();
  void store.refresh();
}
</script>
<template>
  <main class="sources">
    <DropPlace @sent="refresh" />
    <DemoPart @changed="refresh" />
    <AfterImport v-if="own && sources.answer.value" :latest="own" :sources="sources.answer.value.items" />
    <nav class="tabs" aria-label="Parts of Sources">
      <RouterLink
        v-for="[name, label] in TABS"
        :key="name"
        :to="{ query: { ...router.currentRoute.value.query, tab: name === 'sources' ? undefined : name } }"
        :class="{ on: tab === name }"
        :aria-current="tab === name ? 'page' : undefined"
        >{{ label }}</RouterLink
      >
    </nav>
    <p v-if="store.unnamed && tab === 'sources' && !own" class="next">
      No strand yet: none of these records names a transaction by an identifier that is declared.
      <RouterLink to="/sources?tab=identifiers">See what looks like one</RouterLink>.
    </p>
    <div class="body">
      <template v-if="tab === 'sources'">
        <ProblemNote v-if="sources.problem.value" :problem="sources.problem.value" @again="refresh" />
        <SourceTable v-else-if="sources.answer.value" :sources="sources.answer.value.items" @changed="refresh" />
      </template>
      <template v-else-if="tab === 'imports'">
        <ProblemNote v-if="imports.problem.value" :problem="imports.problem.value" @again="refresh" />
        <ImportList v-else-if="imports.answer.value" :imports="imports.answer.value.items" @changed="refresh" />
      </template>
      <template v-else-if="tab === 'coverage'">
        <ProblemNote v-if="coverage.problem.value" :problem="coverage.problem.value" @again="coverage.again" />
        <CoverageChart v-else-if="coverage.answer.value?.from" :coverage="coverage.answer.value" />
        <p v-else-if="coverage.answer.value" class="nothing">Nothing is loaded yet, so there is no coverage.</p>
      </template>
      <WorkPart v-else-if="tab === 'work'" @changed="refresh" />
      <FollowPart v-else-if="tab === 'followed'" @changed="refresh" />
      <CodesPart v-else-if="tab === 'codes'" />
      <SourceTextsPart v-else-if="tab === 'texts'" />
      <HostsPart v-else-if="tab === 'hosts'" />
      <KindList v-else @changed="refresh" />
    </div>
  </main>
</template>
<style scoped>
.sources {
  display: flex;
  flex-direction: column;
}
.tabs {
  display: flex;
  gap: 20px;
  padding: 8px 20px 0;
  border-bottom: 1px solid var(--strong-seam);
}
.tabs a {
  text-decoration: none;
  color: var(--soft-ink);
  padding-bottom: 6px;
  border-bottom: 2px solid transparent;
}
.tabs .on {
  color: var(--indigo);
  font-weight: 700;
  border-color: var(--indigo);
}
.nothing {
  padding: 24px 20px;
  margin: 0;
}
.next {
  padding: 10px 20px;
  margin: 0;
}
.body {
  flex: 1;
  min-height: 0;
  overflow: auto;
}
</style>
