<script setup lang="ts">
import type { SourceText } from '@fadenweg/api';
import { ref } from 'vue';
import { api } from '../api/client.ts';
import { useAttempt } from '../api/use-attempt.ts';
import { sendSourceText } from '../api/send-source-text.ts';
import { useRequest } from '../api/use-request.ts';
import ProblemNote from '../frame/ProblemNote.vue';
import { useSaid } from '../share/use-share.ts';
import OwnPackagesPart from './OwnPackagesPart.vue';
import { useSummary } from '../stores/summary.ts';
import { bytes, count, dayAndClock } from '../time/format.ts';

/** Source texts of programs: the lines to which calls of traces and messages lead. */
const store = useSummary();
const said = useSaid();
const { answer, problem, again } = useRequest([], (signal) => api.get('/source-texts', {}, signal));
const component = ref('');
const version = ref('');
const chosen = ref<File[]>([]);
const leaving = ref<number | null>(null);
const { attempt, refused: bad, busy } = useAttempt(() => void again());
const choose = (event: Event): void => void (chosen.value = [...((event.target as HTMLInputElement).files ?? [])]);
const register = (): Promise<boolean> =>
  attempt(async () => {
    if (chosen.value.length === 0) throw new Error('Choose the folder that holds the program’s source text.');
    const kept = await sendSourceText(chosen.value, component.value.trim(), version.value.trim());
    said.say(
      `${count(kept.files)} files of ${kept.component} ${kept.version} are registered${kept.leftOut > 0 ? `, ${count(kept.leftOut)} left out` : ''}`,
    );
    [version.value, chosen.value] = ['', []];
  });
const forget = (one: SourceText): Promise<boolean> =>
  attempt(async () => {
    leaving.value = null;
    await api.delete('/source-texts/{id}', { params: { id: one.id } });
  });
</script>
<template>
  <div class="part">
    <p class="soft about">
      The source text of your programs, by component and version: calls of a trace and messages of a logger then lead to their lines, in the version
      that ran at the time. A build registers it by <span class="mono">bin/fadenweg register-source --component C --version V PATH</span>.
    </p>
    <form class="new" @submit.prevent="register">
      <label>Component <input v-model="component" class="input" required maxlength="200" list="text-components" /></label>
      <label>Version <input v-model="version" class="input" required maxlength="100" /></label>
      <label class="link folder"
        >{{ chosen.length === 0 ? 'choose its folder' : `${count(chosen.length)} files chosen`
        }}<input type="file" webkitdirectory multiple class="visually-hidden" data-testid="text-folder" @change="choose"
      /></label>
      <v-btn type="submit" color="primary" :disabled="busy">Register</v-btn>
      <datalist id="text-components">
        <option v-for="name of store.summary?.components ?? []" :key="name" :value="name"></option>
      </datalist>
    </form>
    <p v-if="bad" class="bad" role="alert">{{ bad }}</p>
    <ProblemNote v-if="problem" :problem="problem" @again="again" />
    <p v-else-if="answer && answer.items.length === 0" class="soft">Nothing is registered yet.</p>
    <table v-else-if="answer" class="plain-table">
      <thead>
        <tr>
          <th>Component</th>
          <th>Version</th>
          <th class="number">Files</th>
          <th class="number">Size</th>
          <th>Registered</th>
          <th><span class="visually-hidden">Acts</span></th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="one in answer.items" :key="one.id">
          <td>{{ one.component }}</td>
          <td class="mono">{{ one.version }}</td>
          <td class="number">
            {{ count(one.files) }}<span v-if="one.leftOut > 0" class="soft">, {{ count(one.leftOut) }} left out</span>
          </td>
          <td class="number">{{ bytes(one.bytes) }}</td>
          <td>{{ dayAndClock(one.registeredAt) }}, {{ one.who }}</td>
          <td>
            <button v-if="leaving !== one.id" type="button" class="link" @click="leaving = one.id">forget</button>
            <template v-else>
              Forget all its files? <button type="button" class="link" @click="forget(one)">yes</button>
              <button type="button" class="link" @click="leaving = null">no</button>
            </template>
          </td>
        </tr>
      </tbody>
    </table>
    <OwnPackagesPart />
  </div>
</template>
<style scoped>
.part {
  padding: 12px 20px;
}
.about {
  max-width: 90ch;
  margin: 0 0 10px;
}
.new {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px 16px;
  margin-bottom: 12px;
}
.folder {
  cursor: pointer;
}
.folder:focus-within {
  outline: 2px solid var(--indigo);
}
table {
  max-width: 980px;
}
</style>
