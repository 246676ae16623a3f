<script setup lang="ts">
import type { AgainstCompared, AgainstJudged } from '@fadenweg/api';
import { computed } from 'vue';
import { useRoute } from 'vue-router';
import { api } from '../api/client.ts';
import { useRequest } from '../api/use-request.ts';
import ProblemNote from '../frame/ProblemNote.vue';
import { useSummary } from '../stores/summary.ts';
import { useAsked } from '../time/asked.ts';
import { count } from '../time/format.ts';
import AgainstCourse from './AgainstCourse.vue';
import AgainstPeers from './AgainstPeers.vue';
import { chanceWords, MEASURE_WORDS, nameOf, othersWords, valueWords, verdicts } from './against-words.ts';

/** A party, component, host or version beside all others and beside itself before: what is different, and what stays flat and so is innocent. */
const route = useRoute();
const store = useSummary();
const looked = useAsked();
const text = (name: string): string => (typeof route.query[name] === 'string' ? (route.query[name] as string) : '');
const asked = computed(() =>
  looked.value && text('name') !== '' ? { what: text('what'), name: text('name'), of: text('of'), ...looked.value } : null,
);
const { answer, problem, loading, again } = useRequest(
  () => (asked.value ? `${JSON.stringify(asked.value)} ${store.summary?.strands} ${store.summary?.weaving}` : ''),
  async (signal) => (asked.value ? api.get('/against', { query: asked.value }, signal) : null),
);
const charts = computed(() => answer.value?.measures.filter((one) => one.own !== null || one.ownBefore !== null) ?? []);
const its = computed(() => {
  const { w, e } = route.query;
  const of = text('what');
  const name = text('name');
  const narrowed = of === 'party' ? { identifier: name } : of === 'host' ? { host: name } : { component: of === 'version' ? text('of') : name };
  return { name: 'strands', query: { w, e, began: 'true', ...narrowed } };
});
const JUDGED = { more: 'more', less: 'less', flat: 'alike', few: 'too few' } as const;
const judgedWords = ({ is, chance }: AgainstJudged): string =>
  is === 'more' || is === 'less' ? `${JUDGED[is]}, ${chanceWords(chance)}` : JUDGED[is];
const cells = ({ measure, own, others, ownBefore, othersBefore }: AgainstCompared): string[] =>
  [own, others, ownBefore, othersBefore].map((one) => valueWords(measure, one));
</script>
<template>
  <main class="against">
    <ProblemNote v-if="problem" :problem="problem" @again="again" />
    <p v-else-if="text('name') === ''" class="soft wait">
      Nothing is named to compare. Open it at the name of a party, component or host: in a line of Rounds, beside a strand under Time, or at any
      value.
    </p>
    <p v-else-if="!answer && loading" class="soft wait" role="status">Comparing …</p>
    <template v-if="answer && !problem">
      <section class="whole" aria-labelledby="against-title">
        <header>
          <h1 id="against-title">{{ nameOf(answer) }} against everybody</h1>
          <p class="soft">
            <RouterLink :to="its">{{ count(answer.strands.own) }} strands</RouterLink> of
            {{ answer.flows.map((one) => one.label).join(', ') || 'no flow' }} · {{ count(answer.strands.others) }} others:
            {{ othersWords(answer) }} · as long before {{ count(answer.strands.ownBefore) }} and {{ count(answer.strands.othersBefore) }}
            <template v-if="answer.sampled.own > 1 || answer.sampled.others > 1">
              · of many one in {{ Math.max(answer.sampled.own, answer.sampled.others) }} is looked at</template
            >
          </p>
        </header>
        <p v-if="answer.strands.own + answer.strands.ownBefore === 0" class="wait">
          None of its strands began in this window or before it. Choose a longer one above.
        </p>
        <template v-else>
          <ul class="verdicts">
            <li v-for="sentence in verdicts(answer)" :key="sentence">{{ sentence }}</li>
          </ul>
          <p class="soft key">
            <span class="own"></span> {{ nameOf(answer) }} · <span class="others"></span> others · <span class="before"></span> before the window
          </p>
          <div class="charts">
            <AgainstCourse v-for="one in charts" :key="one.measure" :against="answer" :compared="one" />
          </div>
          <table class="plain-table measures">
            <caption class="visually-hidden">
              Each measure of it and of others, in the window and before
            </caption>
            <thead>
              <tr>
                <th scope="col">Half of those that ended well within</th>
                <th scope="col" class="number">it</th>
                <th scope="col" class="number">others</th>
                <th scope="col" class="number">it before</th>
                <th scope="col" class="number">others before</th>
                <th scope="col">beside others</th>
                <th scope="col">beside itself before</th>
              </tr>
            </thead>
            <tbody>
              <tr v-for="one in answer.measures" :key="one.measure">
                <th scope="row">{{ MEASURE_WORDS[one.measure] }}</th>
                <td v-for="(cell, i) in cells(one)" :key="i" class="number">{{ cell }}</td>
                <td :class="{ soft: one.beside.is === 'flat' || one.beside.is === 'few' }">{{ judgedWords(one.beside) }}</td>
                <td :class="{ soft: one.since.is === 'flat' || one.since.is === 'few' }">{{ judgedWords(one.since) }}</td>
              </tr>
            </tbody>
          </table>
          <p class="soft note">Compared is within each flow; numbers of others are as if they were of the same flows in the same proportion.</p>
        </template>
      </section>
      <AgainstPeers :against="answer" />
    </template>
  </main>
</template>
<style scoped>
.against {
  display: flex;
  flex: 1;
  min-width: 0;
  min-height: 0;
}
.whole {
  flex: 1;
  min-width: 0;
  overflow: auto;
  padding: 10px 16px 20px;
}
header p {
  margin: 0;
}
.verdicts {
  margin: 8px 0;
  padding: 6px 10px 6px 26px;
  background: var(--paper);
  border-left: 3px solid var(--indigo);
}
.charts {
  display: flex;
  flex-wrap: wrap;
  gap: 8px 14px;
}
.key {
  margin: 0 0 6px;
}
.key span {
  display: inline-block;
  width: 16px;
  height: 3px;
  vertical-align: middle;
}
.key .own {
  background: var(--indigo);
}
.key .others {
  background: var(--soft-ink);
}
.key .before {
  height: 10px;
  background: var(--undyed);
  opacity: 0.5;
}
.measures {
  margin-top: 14px;
}
.measures th[scope='row'] {
  text-align: left;
  font-weight: 400;
}
.note {
  margin: 4px 0;
}
.wait {
  padding: 24px;
}
</style>
