<script setup lang="ts">
import type { Job } from '@fadenweg/api';
import { computed } from 'vue';
import { useRoute } from 'vue-router';
import { api } from '../api/client.ts';
import { useRequest } from '../api/use-request.ts';
import ProblemNote from '../frame/ProblemNote.vue';
import OutcomeGlyph from '../glyphs/OutcomeGlyph.vue';
import { ms } from '../strands/duration-text.ts';
import { count, dayAndClock } from '../time/format.ts';
import { amissWords, JOB_STATES, lastedWords, oddWords, rowsWords, volumeWords } from './job-words.ts';

/** A job: its schedule, the last good run, its runs of the window in order of time. */
const props = defineProps<{ job: Job; asked: { from: string; to: string; environment: string; zone: string } }>();
const route = useRoute();
const { answer, problem, again } = useRequest(
  () => `${props.job.flow} ${props.job.environment} ${JSON.stringify(props.asked)}`,
  (signal) => api.get('/jobs/runs', { query: { ...props.asked, environment: props.job.environment, flow: props.job.flow } }, signal),
);
const runs = computed(() => answer.value?.items[0]?.runs ?? []);
const most = computed(() => Math.max(1, ...runs.value.map((run) => run.read ?? run.written ?? 0)));
const lasted = computed(() => Math.max(1, ...runs.value.map((run) => run.durationMs)));
const volume = (read: number | null, written: number | null): number => read ?? written ?? 0;
const strands = computed(() => ({ name: 'strands', query: { e: route.query.e, w: route.query.w, flow: props.job.flow } }));
/** When something was due and did not start, among the runs. */
const lines = computed(
  () =>
  [...runs.value.map((run) => ({ at: run.startedAt, run })), ...props.job.missed.map((at) => ({ at, run: null }))].sort((a, b) => (a.at < b.at ? -1 : 1)), // prettier-ignore
);
</script>
<template>
  <article class="job" :aria-label="job.label">
    <h2>{{ job.label }}</h2>
    <p class="soft">
      {{ job.schedule === '' ? 'No schedule is seen in its begins.' : `${job.declared ? 'Is to begin' : 'Begins'} ${job.schedule}.` }}
      <template v-if="job.learned !== ''">Its begins follow: {{ job.learned }}.</template>
      <RouterLink :to="{ name: 'usual', params: { name: job.flow }, query: { expect: 'yes' } }">{{
        job.declared ? 'change it' : 'state when it is to begin'
      }}</RouterLink>
    </p>
    <p>
      <b>{{ JOB_STATES[job.state] }}</b>{{ amissWords(job) === '' ? '' : `: ${amissWords(job)}` }}
    </p>
    <p v-if="job.nextDue" class="soft">Next due {{ dayAndClock(job.nextDue).slice(0, 16) }}.</p>
    <section v-if="job.last">
      <h3>The last run</h3>
      <p>
        <OutcomeGlyph :outcome="job.last.outcome" :size="16" />
        <RouterLink :to="{ name: 'strand', params: { id: job.last.strand } }" class="mono">{{ job.last.name }}</RouterLink>
        <span class="soft"> {{ dayAndClock(job.last.startedAt) }}</span>
      </p>
      <p>{{ [rowsWords(job.last), lastedWords(job.last), oddWords(job.last)].filter((one) => one !== '').join(' · ') }}</p>
      <p v-if="volumeWords(job.last)" class="soft">Rows: {{ volumeWords(job.last) }}.</p>
      <p v-if="job.lastGood && job.lastGood.strand !== job.last.strand">
        The last good one:
        <RouterLink :to="{ name: 'strand', params: { id: job.lastGood.strand } }" class="mono">{{ job.lastGood.name }}</RouterLink><span class="soft"
          >, {{ dayAndClock(job.lastGood.startedAt) }}, {{ rowsWords(job.lastGood) }}</span
        >;
        <RouterLink :to="{ name: 'strand', params: { id: job.last.strand }, query: { tab: 'compare', beside: job.lastGood.strand } }"
          >both step by step</RouterLink
        >
      </p>
    </section>
    <p class="acts">
      <RouterLink :to="strands">its strands</RouterLink>
      <RouterLink :to="{ name: 'usual', params: { name: job.flow } }">what is usual for it</RouterLink>
    </p>
    <ProblemNote v-if="problem" :problem="problem" @again="again" />
    <section v-else-if="lines.length > 0">
      <h3>Its runs in the window <span class="soft">begin, rows, how long</span></h3>
      <ol>
        <li v-for="one in lines" :key="one.at" class="line">
          <template v-if="one.run">
            <OutcomeGlyph :outcome="one.run.outcome" :size="14" />
            <RouterLink :to="{ name: 'strand', params: { id: one.run.strand } }">{{ dayAndClock(one.at).slice(5, 16) }}</RouterLink>
            <span class="number" :class="{ odd: one.run.odd.includes('thin') || one.run.odd.includes('many') }">{{
              one.run.read === null && one.run.written === null ? '·' : count(volume(one.run.read, one.run.written))
            }}</span>
            <span class="bar rows" :style="{ width: `${(70 * volume(one.run.read, one.run.written)) / most}px` }" aria-hidden="true"></span>
            <span class="number" :class="{ odd: one.run.odd.includes('long') }">{{ ms(one.run.durationMs) }}</span>
            <span class="bar" :style="{ width: `${(50 * one.run.durationMs) / lasted}px` }" aria-hidden="true"></span>
          </template>
          <template v-else>
            <span class="odd">–</span><span class="odd">{{ dayAndClock(one.at).slice(5, 16) }}</span
            ><span class="odd wide">due, and did not start</span>
          </template>
        </li>
      </ol>
      <p v-if="answer?.items[0]?.cut" class="soft">Earlier ones are left out. Choose a shorter window for them.</p>
    </section>
  </article>
</template>
<style scoped>
h2,
p {
  overflow-wrap: anywhere;
}
h3 {
  font-size: 14px;
  line-height: 20px;
  margin: 10px 0 2px;
}
h3 .soft {
  font-weight: 400;
}
p {
  margin: 2px 0 6px;
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 14px;
}
ol {
  list-style: none;
  margin: 0;
  padding: 0;
}
.line {
  display: grid;
  grid-template-columns: 16px 82px 58px 72px 62px 1fr;
  align-items: center;
  gap: 6px;
  line-height: 20px;
  font-variant-numeric: tabular-nums;
}
.wide {
  grid-column: 3 / -1;
}
.bar {
  border-top: 3px solid var(--soft-ink);
}
.bar.rows {
  border-color: var(--indigo);
}
.odd {
  color: var(--madder);
}
</style>
