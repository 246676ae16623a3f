<script setup lang="ts">
import { useRoute } from 'vue-router';
import { api } from '../api/client.ts';
import { useRequest } from '../api/use-request.ts';
import ProblemNote from '../frame/ProblemNote.vue';
import OutcomeGlyph from '../glyphs/OutcomeGlyph.vue';
import { ms } from '../strands/duration-text.ts';
import { clock, count, day } from '../time/format.ts';

/** What was different after a change than before it, as long on both sides: outcomes, durations, findings, and how sure that is. */
const props = defineProps<{ at: string; environment: string }>();
const route = useRoute();
const { answer, problem, loading, again } = useRequest(
  () => `${props.at} ${props.environment}`,
  // which environments are looked at is known a moment later
  async (signal) => (props.environment === '' ? null : api.get('/rounds/since', { query: { at: props.at, environment: props.environment } }, signal)),
);
const WORDS = { worse: 'more amiss', better: 'fewer amiss', slower: 'slower', faster: 'faster' } as const;
const share = ({ all, amiss }: { all: number; amiss: number }): string => (all === 0 ? 'none' : `${count(amiss)} of ${count(all)}`);
const sure = (chance: number): string => (chance < 1e-6 ? 'hardly chance' : `by chance once in ${count(Math.round(1 / Math.max(chance, 1e-9)))}`);
const those = (finding: string, hours: number) => ({
  name: 'strands',
  query: { e: route.query.e, finding, began: 'true', w: `${props.at}~${new Date(Date.parse(props.at) + hours * 3_600_000).toISOString()}` },
});
</script>
<template>
  <ProblemNote v-if="problem" :problem="problem" @again="again" />
  <p v-else-if="loading && !answer" class="soft" role="status">Counting both sides …</p>
  <div v-if="answer">
    <p class="soft">
      {{ answer.hours < 48 ? `${answer.hours} hours` : `${answer.hours / 24} days` }} before {{ day(at) }} {{ clock(at, 0) }}, and as long since.
    </p>
    <p v-if="answer.flows.every((one) => one.differs === null) && answer.findings.length === 0">
      Nothing was different since that chance may not have.
    </p>
    <section v-if="answer.findings.length > 0" class="findings">
      <h2>Findings that came, or came more often</h2>
      <ul>
        <li v-for="one in answer.findings" :key="one.finding">
          <OutcomeGlyph :outcome="one.outcome" :size="16" />
          <span
            ><RouterLink :to="those(one.finding, answer.hours)">{{ one.title }}</RouterLink>
            <span class="soft">
              {{ one.before.count === 0 ? 'none' : count(one.before.count) }} of {{ count(one.before.of) }} before, {{ count(one.since.count) }} of
              {{ count(one.since.of) }} since; {{ sure(one.chance) }}</span
            ></span
          >
        </li>
      </ul>
    </section>
    <section>
      <h2>Flows</h2>
      <table class="plain-table">
        <thead>
          <tr>
            <th scope="col">Flow</th>
            <th scope="col" class="number">Amiss, before and since</th>
            <th scope="col" class="number">Half within</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="one in answer.flows" :key="one.flow">
            <th scope="row">
              {{ one.label }}<br v-if="one.differs" /><b v-if="one.differs" :title="sure(one.chance)">{{ WORDS[one.differs] }}</b>
            </th>
            <td class="number">{{ share(one.before) }}<br />{{ share(one.since) }}</td>
            <td class="number">
              {{ one.before.medianMs === null ? '·' : ms(one.before.medianMs) }}<br />{{ one.since.medianMs === null ? '·' : ms(one.since.medianMs) }}
            </td>
          </tr>
        </tbody>
      </table>
    </section>
  </div>
</template>
<style scoped>
ul {
  list-style: none;
  padding: 0;
  margin: 4px 0 14px;
}
li {
  display: flex;
  gap: 8px;
  margin-bottom: 8px;
  overflow-wrap: anywhere;
}
td {
  white-space: nowrap;
}
th[scope='row'] {
  text-align: left;
  font-weight: 400;
}
p {
  margin: 0 0 8px;
}
</style>
