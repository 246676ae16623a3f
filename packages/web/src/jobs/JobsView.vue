<script setup lang="ts">
import type { Job } from '@fadenweg/api';
import { computed } from 'vue';
import { useRouter } from 'vue-router';
import { api } from '../api/client.ts';
import { useRequest } from '../api/use-request.ts';
import ProblemNote from '../frame/ProblemNote.vue';
import SideSheet from '../frame/SideSheet.vue';
import { useAddressed } from '../frame/use-addressed.ts';
import { useChosenLine } from '../frame/use-chosen-line.ts';
import OutcomeGlyph from '../glyphs/OutcomeGlyph.vue';
import { useSummary } from '../stores/summary.ts';
import EmptyStrands from '../first/EmptyStrands.vue';
import { useAsked } from '../time/asked.ts';
import { count, dayAndClock } from '../time/format.ts';
import { amissWords, JOB_STATES, lastedWords, volumeWords } from './job-words.ts';
import JobSheet from './JobSheet.vue';
import JobThreads from './JobThreads.vue';

/** Jobs: a line each, gravest first; or their runs beside each other. */
const router = useRouter();
const store = useSummary();
const asked = useAsked();
const { text, adjust } = useAddressed();
const SORTS = [['gravest', 'gravest'], ['last', 'last run'], ['name', 'by name']] as const; // prettier-ignore
const sort = computed(() => SORTS.find(([name]) => name === text('sort'))?.[0] ?? 'gravest');
const beside = computed(() => text('as') === 'threads');
const stamp = computed(() => `${store.summary?.strands} ${store.summary?.weaving}`);
const list = useRequest(
  () => (asked.value ? `${JSON.stringify(asked.value)} ${sort.value} ${stamp.value}` : ''),
  async (signal) => (asked.value ? api.get('/jobs', { query: { ...asked.value, sort: sort.value } }, signal) : null),
);
const runs = useRequest(
  () => (asked.value && beside.value ? `${JSON.stringify(asked.value)} ${stamp.value}` : ''),
  async (signal) => (asked.value && beside.value ? api.get('/jobs/runs', { query: asked.value }, signal) : null),
);
const items = computed(() => list.answer.value?.items ?? []);
const keyOf = ({ flow, environment }: Job): string => `${flow}~${environment}`;
const { selected } = useChosenLine(items, keyOf, 'job', ({ last }) => {
  if (last) void router.push({ name: 'strand', params: { id: last.strand } });
});
const bad = computed(() => items.value.filter((job) => ['missed', 'failed', 'odd'].includes(job.state)).length);
</script>
<template>
  <main class="jobs">
    <EmptyStrands v-if="store.empty" />
    <template v-else>
      <section class="list" aria-labelledby="jobs-title">
        <header>
          <h1 id="jobs-title">Jobs</h1>
          <p v-if="list.answer.value" class="soft facts" data-testid="sum">
            {{ count(items.length) }} jobs, {{ bad === 0 ? 'with none is anything amiss now' : `with ${count(bad)} something is amiss now` }}
            <template v-if="list.answer.value.until">
              · as of {{ dayAndClock(list.answer.value.until).slice(0, 16) }}, the end of the evidence</template
            >
          </p>
          <div class="order" role="group" aria-label="Order">
            <button
              v-for="[name, label] in SORTS"
              :key="name"
              type="button"
              :aria-pressed="sort === name && !beside"
              @click="adjust({ sort: name === 'gravest' ? undefined : name, as: undefined })"
            >
              {{ label }}
            </button>
            <button type="button" :aria-pressed="beside" @click="adjust({ as: beside ? undefined : 'threads' })">runs beside each other</button>
            <RouterLink :to="{ name: 'data', query: { e: text('e') || undefined, w: text('w') || undefined } }">what they touch</RouterLink>
          </div>
        </header>
        <ProblemNote v-if="list.problem.value" :problem="list.problem.value" @again="list.again" />
        <p v-else-if="!list.answer.value" class="soft wait" role="status">Looking at runs …</p>
        <p v-else-if="items.length === 0" class="soft wait">
          No flow begins by a schedule here, and none is declared to be a job. Flows are named under <RouterLink to="/sources">Sources</RouterLink>.
        </p>
        <template v-else-if="beside">
          <ProblemNote v-if="runs.problem.value" :problem="runs.problem.value" @again="runs.again" />
          <JobThreads v-else-if="runs.answer.value && asked" :jobs="runs.answer.value.items" :from="asked.from" :to="asked.to" />
          <p v-else class="soft wait" role="status">Laying runs beside each other …</p>
        </template>
        <div v-else ref="body" class="lines" role="listbox" aria-label="Jobs" data-lines tabindex="0">
          <div
            v-for="job in items"
            :key="keyOf(job)"
            class="line"
            role="option"
            :aria-selected="selected !== null && keyOf(job) === keyOf(selected)"
            @click="adjust({ job: keyOf(job) })"
          >
            <span class="state" :class="job.state">{{ JOB_STATES[job.state] }}</span>
            <span class="what" :title="[job.label, job.schedule, amissWords(job)].filter((one) => one !== '').join(' · ')"
              ><b>{{ job.label }}</b> <span class="soft">{{ job.schedule }}</span><br v-if="amissWords(job)" /><span
                :class="{ bad: job.state !== 'good' }"
                >{{ amissWords(job) }}</span
              ></span
            >
            <span v-if="job.last" class="when"
              ><OutcomeGlyph :outcome="job.last.outcome" :size="14" /> {{ dayAndClock(job.last.startedAt).slice(5, 16) }}</span
            ><span v-else></span>
            <span>{{ job.last ? volumeWords(job.last) : '' }}</span>
            <span>{{ job.last ? lastedWords(job.last) : '' }}</span>
            <span class="soft">{{ job.nextDue ? dayAndClock(job.nextDue).slice(5, 16) : '' }}</span>
          </div>
        </div>
        <div v-if="items.length > 0 && !beside" class="names soft" aria-hidden="true">
          <span>state</span><span>job and when it begins</span><span>last run</span><span>rows</span><span>how long</span><span>next due</span>
        </div>
      </section>
      <SideSheet :tabs="[{ name: 'job', label: 'Job' }]" tab="job">
        <JobSheet v-if="selected && asked" :job="selected" :asked="asked" />
        <p v-else class="soft">Nothing is selected.</p>
      </SideSheet>
    </template>
  </main>
</template>
<style scoped src="../frame/list-beside.css"></style>
<style scoped>
.line,
.names {
  grid-template-columns: 78px minmax(0, 1fr) 104px 118px 128px 84px;
}
.when,
.state {
  white-space: nowrap;
}
.state {
  font-size: 12.5px;
}
.state.missed,
.state.failed,
.state.odd,
.bad {
  color: var(--madder);
}
.what {
  -webkit-line-clamp: 3;
}
</style>
