<script setup lang="ts">
import { useIntervalFn } from '@vueuse/core';
import { computed, ref } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import { api } from '../api/client.ts';
import { useAttempt } from '../api/use-attempt.ts';
import { useRequest } from '../api/use-request.ts';
import ProblemNote from '../frame/ProblemNote.vue';
import { dayAndClock } from '../time/format.ts';
import { inOrder, stateWords, WORK_LISTS, type WorkList } from './work-words.ts';

const EVERY = 1000;
/** What a piece of work is for, where that is no thing. */
const FOR: Record<string, string> = { '': 'all that is stored', schedule: 'by the clock' };
const emit = defineEmits<{ changed: [] }>();
const route = useRoute();
const router = useRouter();
const list = computed<WorkList>(() => (route.query.work === 'ended' ? 'ended' : 'now'));
const work = useRequest(list, () => api.get('/work', { query: { state: WORK_LISTS[list.value].states, limit: 200 } }));
const rows = computed(() => inOrder(work.answer.value?.items ?? []));
const now = ref(Date.now());
const { attempt, refused: problem } = useAttempt();
useIntervalFn(() => {
  now.value = Date.now();
  void work.again();
}, EVERY);
async function change(call: () => Promise<unknown>): Promise<void> {
  await attempt(call);
  await work.again();
  emit('changed');
}
</script>
<template>
  <div>
    <div class="head">
      <p>What goes on in the background, one piece of a kind after the other. It stands in the database: a stop of the server loses none of it.</p>
      <nav aria-label="Which work" class="which">
        <RouterLink
          v-for="(one, name) in WORK_LISTS"
          :key="name"
          :to="{ query: { ...router.currentRoute.value.query, work: name === 'now' ? undefined : name } }"
          :class="{ on: list === name }"
          :aria-current="list === name ? 'true' : undefined"
          >{{ one.label }}</RouterLink
        >
      </nav>
    </div>
    <p v-if="problem" class="bad" role="alert">{{ problem }}</p>
    <p v-if="work.problem.value && rows.length > 0" class="bad" role="alert">
      {{ work.problem.value.title }}: this is how it stood before. It is asked again.
    </p>
    <ProblemNote v-if="work.problem.value && rows.length === 0" :problem="work.problem.value" @again="work.again" />
    <p v-else-if="work.answer.value && rows.length === 0" class="nothing">
      {{ list === 'now' ? 'Nothing runs, waits or has failed.' : 'Nothing has ended yet.' }}
    </p>
    <table v-else-if="rows.length > 0" class="plain-table">
      <thead>
        <tr>
          <th>Work</th>
          <th>For</th>
          <th>State</th>
          <th>What it does, and why</th>
          <th>{{ list === 'now' ? 'Asked' : 'Ended' }}</th>
          <th>By</th>
          <th>Action</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="one in rows" :key="one.id" :class="one.state" data-testid="work">
          <td class="still">{{ one.label }}</td>
          <td class="still">
            {{ FOR[one.about] ?? one.about }}
          </td>
          <td class="still state">
            {{ stateWords(one, now) }}
            <progress v-if="one.state === 'running' && one.share !== null" :value="one.share" :aria-label="`${one.label}: done so far`"></progress>
          </td>
          <td class="wide">
            <template v-if="one.doing">{{ one.doing }}; </template>{{ one.why }}
            <p v-if="one.error" class="error">{{ one.error }}</p>
          </td>
          <td class="still mono">{{ dayAndClock(list === 'now' ? one.madeAt : (one.endedAt ?? one.madeAt)) }}</td>
          <td class="still">{{ one.who === 'supplied' ? 'itself' : one.who }}</td>
          <td class="still">
            <v-btn
              v-if="one.state === 'failed' || one.state === 'cancelled'"
              variant="outlined"
              @click="change(() => api.post('/work/{id}/again', { params: { id: one.id } }))"
              >Try again</v-btn
            >
            <v-btn v-else-if="one.state !== 'done'" variant="text" @click="change(() => api.delete('/work/{id}', { params: { id: one.id } }))"
              >Cancel</v-btn
            >
          </td>
        </tr>
      </tbody>
    </table>
  </div>
</template>
<style scoped>
.head {
  display: flex;
  align-items: baseline;
  justify-content: space-between;
  gap: 24px;
  padding: 10px 20px;
}
.head p {
  margin: 0;
}
.which {
  display: flex;
  gap: 16px;
}
.which .on {
  color: var(--indigo);
  font-weight: 700;
}
.still {
  white-space: nowrap;
}
.wide {
  overflow-wrap: anywhere;
}
.state progress {
  display: block;
  width: 110px;
  height: 5px;
  accent-color: var(--indigo);
}
.error,
.bad,
.failed .state {
  color: var(--madder);
}
.error {
  margin: 2px 0 0;
}
.nothing,
.bad {
  padding: 16px 20px;
  margin: 0;
}
td:first-child,
th:first-child {
  padding-left: 20px;
}
</style>
