<script setup lang="ts">
import type { HostClock } from '@fadenweg/api';
import { computed, ref, watch } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import { api } from '../api/client.ts';
import { useRequest } from '../api/use-request.ts';
import ProblemNote from '../frame/ProblemNote.vue';
import { useSummary } from '../stores/summary.ts';
import { count } from '../time/format.ts';
import ClockSheet from './ClockSheet.vue';
import { aheadWords, driftWords, nameOf, STATES, withinWords } from './clock-words.ts';

/** Hosts with their clocks: which is ahead or behind, how surely that is known, and what it is known by. */
const store = useSummary();
const route = useRoute();
const router = useRouter();
const hosts = useRequest([() => store.summary?.records, () => store.summary?.still], () => api.get('/hosts'));
const ORDER: readonly HostClock['state'][] = ['corrected', 'set', 'unbounded', 'right'];
const rows = computed(() =>
  [...(hosts.answer.value?.items ?? [])].sort((a, b) => ORDER.indexOf(a.state) - ORDER.indexOf(b.state) || nameOf(a).localeCompare(nameOf(b))),
);
const chosen = computed(() => rows.value.find((one) => nameOf(one) === route.query.host) ?? rows.value[0] ?? null);
const choose = (host: HostClock): void => void router.replace({ query: { ...route.query, host: nameOf(host) } });
const said = ref('');
watch(chosen, (now, before) => {
  if (now?.id !== before?.id) said.value = '';
});
function changed(words: string): void {
  said.value = words;
  void hosts.again();
  void store.refresh();
}
</script>
<template>
  <ProblemNote v-if="hosts.problem.value" :problem="hosts.problem.value" @again="hosts.again" />
  <p v-else-if="hosts.answer.value && rows.length === 0" class="nothing">
    No clocks are compared yet. They are at the end of an import of a thousand records or more, by the calls and messages that pass between
    components.
  </p>
  <div v-else class="both">
    <section class="list" aria-labelledby="hosts">
      <h2 id="hosts">Clocks</h2>
      <p class="soft">
        Compared by calls and messages that pass between components. What a clock that is off wrote is put right; the original time stays with each
        record.
      </p>
      <table class="plain-table">
        <thead>
          <tr>
            <th>Host, else component</th>
            <th>Clock</th>
            <th class="number">Ahead by</th>
            <th class="number">Give or take</th>
            <th class="number">Gains</th>
            <th class="number">Compared by</th>
          </tr>
        </thead>
        <tbody>
          <tr
            v-for="host in rows"
            :key="host.id"
            :class="{ chosen: host.id === chosen?.id, amiss: host.state === 'corrected' || host.state === 'set' }"
          >
            <td>
              <button type="button" class="link" :aria-pressed="host.id === chosen?.id" @click="choose(host)">{{ nameOf(host) }}</button>
            </td>
            <td class="state">{{ STATES[host.state] }}</td>
            <td class="number">{{ aheadWords(host) }}</td>
            <td class="number">{{ withinWords(host) }}</td>
            <td class="number">{{ driftWords(host) }}</td>
            <td class="number">{{ host.hops === 0 ? 'nothing' : `${count(host.hops)} passages` }}</td>
          </tr>
        </tbody>
      </table>
    </section>
    <ClockSheet v-if="chosen" :key="chosen.id" :clock="chosen" :said="said" @changed="changed" />
  </div>
</template>
<style scoped>
.both {
  display: flex;
  height: 100%;
}
.list {
  flex: 1;
  min-width: 0;
  overflow: auto;
}
h2,
.list > p {
  margin: 0;
  padding: 10px 20px 0;
}
.nothing {
  padding: 24px 20px;
  margin: 0;
}
.chosen td {
  background: var(--indigo-wash);
}
.amiss .state {
  color: var(--weld);
  font-weight: 600;
}
.state,
.number {
  white-space: nowrap;
}
td:first-child,
th:first-child {
  padding-left: 20px;
}
</style>
