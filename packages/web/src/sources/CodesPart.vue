<script setup lang="ts">
import type { Asked, KeptCode, OwnCode } from '@fadenweg/api';
import { ref } from 'vue';
import { api } from '../api/client.ts';
import { jsonOf } from '../api/json-of.ts';
import { useAttempt } from '../api/use-attempt.ts';
import { useRequest } from '../api/use-request.ts';
import ProblemNote from '../frame/ProblemNote.vue';
import { useSaid } from '../share/use-share.ts';

type Codes = Asked['post /explanations']['body'];

/** What codes of partners mean: a list that is kept as a file, and brought in again. */
const said = useSaid();
const { answer, problem, again } = useRequest([], (signal) => api.get('/explanations', {}, signal));
const gone = ref<KeptCode | null>(null);
const { attempt, refused: bad } = useAttempt(() => void again());
const forget = (one: KeptCode): Promise<boolean> =>
  attempt(async () => {
    await api.delete('/explanations/{id}', { params: { id: one.id } });
    gone.value = one;
  });
const undo = (): Promise<boolean> =>
  attempt(async () => {
    const { id: _id, changedBy: _by, ...code } = gone.value!;
    await api.post('/explanations', { body: { items: [code] } });
    gone.value = null;
  });
function give(): void {
  const items = (answer.value?.items ?? []).map(({ id: _id, changedBy: _by, ...code }): OwnCode => code);
  const url = URL.createObjectURL(new Blob([JSON.stringify({ items }, null, 2)], { type: 'application/json' }));
  Object.assign(document.createElement('a'), { href: url, download: 'codes.json' }).click();
  setTimeout(() => URL.revokeObjectURL(url), 60_000);
}
async function take(event: Event): Promise<void> {
  const input = event.target as HTMLInputElement;
  const file = input.files?.[0];
  input.value = '';
  if (!file) return;
  await attempt(async () => {
    const codes = await jsonOf<Codes | Codes['items']>(file);
    const { items } = await api.post('/explanations', { body: Array.isArray(codes) ? { items: codes } : codes });
    said.say(`${items.length} ${items.length === 1 ? 'code is' : 'codes are'} explained now`);
  });
}
</script>
<template>
  <div class="part">
    <p class="soft about">
      What your partners’ codes mean, beside those of the standards that are known anyway. A record that holds one says it. One is explained at a
      record, too.
    </p>
    <p class="acts">
      <label class="link"
        >bring a file in<input type="file" accept=".json,application/json" class="visually-hidden" data-testid="codes-file" @change="take"
      /></label>
      <button v-if="answer && answer.items.length > 0" type="button" class="link" @click="give">take them along</button>
    </p>
    <p v-if="bad" class="bad" role="alert">{{ bad }}</p>
    <p v-if="gone" role="status">
      <span class="mono">{{ gone.code }}</span> is forgotten. <button type="button" class="link" @click="undo">undo</button>
    </p>
    <ProblemNote v-if="problem" :problem="problem" @again="again" />
    <p v-else-if="answer && answer.items.length === 0" class="soft">
      None is explained yet. A file is JSON:
      <span class="mono">{"items": [{"code": "E-117", "title": "not enough stock", "means": "…", "next": "…"}]}</span>
    </p>
    <table v-else-if="answer" class="plain-table">
      <thead>
        <tr>
          <th>Code</th>
          <th>Component</th>
          <th>In a few words</th>
          <th>What it means</th>
          <th>Where to look next</th>
          <th>By</th>
          <th>Action</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="one in answer.items" :key="one.id">
          <td class="mono">{{ one.code }}</td>
          <td>{{ one.component ?? 'all' }}</td>
          <td>{{ one.title }}</td>
          <td class="long">
            {{ one.means }}<template v-if="one.causes"> Mostly {{ one.causes }}.</template>
          </td>
          <td class="long">{{ one.next }}</td>
          <td>{{ one.changedBy }}</td>
          <td><button type="button" class="link" @click="forget(one)">take away</button></td>
        </tr>
      </tbody>
    </table>
  </div>
</template>
<style scoped>
.part {
  padding: 12px 20px;
}
.about {
  max-width: 780px;
}
.acts {
  display: flex;
  gap: 16px;
}
.bad {
  color: var(--madder);
  overflow-wrap: anywhere;
}
.long {
  max-width: 320px;
  overflow-wrap: anywhere;
}
</style>
