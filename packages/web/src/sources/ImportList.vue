<script setup lang="ts">
import type { ImportInfo } from '@fadenweg/api';
import { ref } from 'vue';
import { api } from '../api/client.ts';
import { useAttempt } from '../api/use-attempt.ts';
import { bytes, count, dayAndClock } from '../time/format.ts';
defineProps<{ imports: ImportInfo[] }>();
const emit = defineEmits<{ changed: [] }>();
const asked = ref<ImportInfo | null>(null);
const { attempt, refused: problem } = useAttempt(() => emit('changed'));
const STATES = {
  receiving: 'receiving',
  reading: 'reading',
  following: 'follows',
  done: 'done',
  failed: 'failed',
  cancelled: 'cancelled',
  removing: 'being taken out',
} as const;
const running = (one: ImportInfo): boolean => one.state === 'receiving' || one.state === 'reading';
async function remove(one: ImportInfo): Promise<void> {
  asked.value = null;
  await attempt(() => api.delete('/imports/{id}', { params: { id: one.id } }));
}
</script>
<template>
  <div>
    <p v-if="problem" class="bad" role="alert">{{ problem }}</p>
    <p v-if="imports.length === 0" class="nothing">There was no import yet.</p>
    <table v-else class="plain-table">
      <thead>
        <tr>
          <th>Import</th>
          <th>State</th>
          <th class="number">Files</th>
          <th class="number">Already there</th>
          <th class="number">Records</th>
          <th class="number">Kept whole</th>
          <th class="number">Size</th>
          <th class="number">Rate</th>
          <th>By</th>
          <th>Remarks</th>
          <th>Action</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="one in imports" :key="one.id">
          <td class="still mono">{{ dayAndClock(one.startedAt) }}</td>
          <td class="still">
            {{ STATES[one.state]
            }}<template v-if="running(one) && one.bytes">
              {{ Math.round((one.readBytes / one.bytes) * 100) }} %<template v-if="one.secondsLeft !== null"
                >, {{ one.secondsLeft }} s left</template
              ></template
            >
          </td>
          <td class="number">{{ count(one.files) }}</td>
          <td class="number">{{ count(one.alreadyThere) }}</td>
          <td class="number">{{ count(one.records) }}</td>
          <td class="number">{{ count(one.keptWhole) }}</td>
          <td class="number still">{{ bytes(one.bytes) }}</td>
          <td class="number still">{{ count(one.perSecond) }}/s</td>
          <td class="still">{{ one.who }}</td>
          <td>
            <ul v-if="one.errors.length" class="errors">
              <li v-for="error in one.errors.slice(0, 5)" :key="error.path">
                <span class="mono">{{ error.path }}</span> {{ error.error }}
              </li>
              <li v-if="one.errors.length > 5">and {{ one.errors.length - 5 }} more</li>
            </ul>
            <ul v-if="one.waitsFor.length" class="waits">
              <li v-for="wait in one.waitsFor" :key="wait.words" :class="{ stopped: wait.stopped }">
                {{ wait.words }}
                <RouterLink v-if="wait.stopped" to="/sources?tab=work">stopped: try it again</RouterLink>
              </li>
            </ul>
          </td>
          <td>
            <v-btn v-if="one.state !== 'removing'" variant="outlined" @click="asked = one">{{ running(one) ? 'Cancel' : 'Take out' }}</v-btn>
          </td>
        </tr>
      </tbody>
    </table>
    <v-dialog :model-value="asked !== null" max-width="460" aria-label="Take an import out" @update:model-value="asked = null">
      <div v-if="asked" class="ask" role="document">
        <h2>{{ running(asked) ? 'Cancel this import?' : 'Take this import out?' }}</h2>
        <p>
          Its {{ count(asked.records) }} records, their strands and the kept bytes go away. The files where they came from are not touched; they can
          be brought in again.
        </p>
        <div class="buttons">
          <v-btn color="error" @click="remove(asked)">{{ running(asked) ? 'Cancel it' : 'Take it out' }}</v-btn><v-btn
            variant="text"
            @click="asked = null"
            >Keep it</v-btn
          >
        </div>
      </div>
    </v-dialog>
  </div>
</template>
<style scoped>
.still {
  white-space: nowrap;
}
.nothing,
.bad {
  padding: 16px 20px;
  margin: 0;
}
.bad {
  color: var(--madder);
}
.waits,
.errors {
  margin: 0;
  padding: 0;
  list-style: none;
}
.stopped,
.errors {
  color: var(--madder);
  overflow-wrap: anywhere;
}
td:first-child,
th:first-child {
  padding-left: 20px;
}
.ask {
  background: var(--paper);
  border: 1px solid var(--strong-seam);
  border-radius: 3px;
  padding: 16px 20px;
}
.buttons {
  display: flex;
  gap: 8px;
  margin-top: 12px;
}
</style>
