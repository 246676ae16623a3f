<script setup lang="ts">
import type { FollowBody, FollowInfo } from '@fadenweg/api';
import { useIntervalFn } from '@vueuse/core';
import { ref } from 'vue';
import { api } from '../api/client.ts';
import { useAttempt } from '../api/use-attempt.ts';
import { useRequest } from '../api/use-request.ts';
import ProblemNote from '../frame/ProblemNote.vue';
import { count, dayAndClock, ZONE } from '../time/format.ts';

/** Files and folders of the server's machine that are read as they grow. */
const emit = defineEmits<{ changed: [] }>();
const follows = useRequest([], (signal) => api.get('/follows', {}, signal));
useIntervalFn(() => void follows.again(), 2000);
const body = ref<FollowBody>({ path: '', environment: 'production', zone: ZONE });
const {
  attempt,
  refused: problem,
  busy,
} = useAttempt(() => {
  void follows.again();
  emit('changed');
});
async function add(): Promise<void> {
  const { path, environment, zone } = body.value;
  const known = zone.trim() || ZONE;
  const sent: FollowBody = { path: path.trim(), environment: environment.trim() || 'production', zone: known, stated: known !== ZONE };
  if (await attempt(() => api.post('/follows', { body: sent }))) body.value.path = '';
}
const stop = (one: FollowInfo): Promise<boolean> => attempt(() => api.delete('/follows/{id}', { params: { id: one.id } }));
</script>
<template>
  <div class="part">
    <form @submit.prevent="add">
      <label
        >File or folder on the server’s machine <input v-model="body.path" class="input path mono" maxlength="1000" placeholder="/var/log/…" required
      /></label>
      <label>Environment <input v-model="body.environment" class="input" maxlength="60" /></label>
      <label>Zone of times without an offset <input v-model="body.zone" class="input" maxlength="60" /></label>
      <v-btn type="submit" color="primary" :disabled="busy || body.path.trim() === ''">Follow</v-btn>
    </form>
    <p v-if="problem" class="bad" role="alert">{{ problem }}</p>
    <p class="soft about">
      What is in the files is read, and what they grow by, also after the server’s next start. Files may be renamed, emptied after a copy, or packed:
      nothing is lost or read twice. From a terminal: <span class="mono">bin/fadenweg follow PATH</span>
    </p>
    <ProblemNote v-if="follows.problem.value" :problem="follows.problem.value" @again="follows.again" />
    <template v-else-if="follows.answer.value">
      <p v-if="follows.answer.value.items.length === 0" class="soft">Nothing is followed.</p>
      <table v-else class="plain-table">
        <thead>
          <tr>
            <th>Path</th>
            <th>Environment</th>
            <th>Zone</th>
            <th class="number">Files</th>
            <th>Last grew</th>
            <th>Followed since</th>
            <th>By</th>
            <th>Action</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="one in follows.answer.value.items" :key="one.id">
            <td class="mono where">
              {{ one.path }}
              <div v-if="one.problem" class="bad" role="status">{{ one.problem }}; it is tried again</div>
            </td>
            <td>{{ one.environment }}</td>
            <td>{{ one.zone }}</td>
            <td class="number">{{ count(one.files) }}</td>
            <td class="mono still">{{ one.grewAt ? dayAndClock(one.grewAt) : 'not yet' }}</td>
            <td class="mono still">{{ dayAndClock(one.since) }}</td>
            <td class="still">{{ one.who }}</td>
            <td class="acts">
              <RouterLink class="link" :to="{ name: 'find', query: { live: '1', e: one.environment } }">watch live</RouterLink>
              <v-btn variant="outlined" :disabled="busy" :title="'What was read stays'" @click="stop(one)">Stop following</v-btn>
            </td>
          </tr>
        </tbody>
      </table>
    </template>
  </div>
</template>
<style scoped>
.part {
  padding: 12px 20px;
}
form {
  display: flex;
  flex-wrap: wrap;
  align-items: end;
  gap: 8px 16px;
}
form label {
  display: flex;
  flex-direction: column;
  font-size: 13px;
}
.path {
  width: 380px;
}
.about {
  max-width: 780px;
}
.bad {
  color: var(--madder);
}
.where {
  overflow-wrap: anywhere;
}
.still {
  white-space: nowrap;
}
.acts {
  white-space: nowrap;
  display: flex;
  gap: 12px;
  align-items: center;
}
</style>
