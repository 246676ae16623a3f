<script setup lang="ts">
import type { LayoutTrialInfo } from '@fadenweg/api';
import { ref, watch } from 'vue';
import { api } from '../api/client.ts';
import { useAttempt } from '../api/use-attempt.ts';
import { count, dayAndClock } from '../time/format.ts';

/** How a source's times are written, and what would come of it over the whole source before it is saved. */
const props = defineProps<{ source: number; zone: string; learned: boolean }>();
const layout = defineModel<string>({ required: true });
const found = ref<LayoutTrialInfo | null>(null);
const { attempt, refused, busy } = useAttempt();
watch([layout, () => props.zone], () => (found.value = null));
const tryIt = (): Promise<boolean> =>
  attempt(async () => {
    found.value = null;
    found.value = await api.post('/sources/{id}/time-layout', {
      params: { id: props.source },
      body: { timeLayout: layout.value.trim(), zone: props.zone },
    });
  });
</script>
<template>
  <div class="layout">
    <label
      >Times <input v-model="layout" class="input mono" maxlength="80" :placeholder="learned ? 'learned from its lines' : 'yyyy-MM-dd HH:mm:ss,SSS'"
    /></label>
    <p class="soft help">
      Only where they are misread: <span class="mono">yyyy MM MMM dd HH mm ss SSS</span>, <span class="mono">hh a</span> for twelve hours,
      <span class="mono">Z z</span> for an offset or zone, words in quotes.
      <button v-if="layout.trim() !== ''" type="button" class="link" :disabled="busy" @click="tryIt">
        {{ busy ? 'Reading it …' : 'Try it on the whole source' }}
      </button>
    </p>
    <p v-if="refused" class="bad" role="alert">{{ refused }}</p>
    <div v-if="found" class="found" role="status">
      <p :class="{ bad: found.understood === 0 }">
        {{ count(found.understood) }} of {{ count(found.records) }} records{{ found.whole ? '' : ' of its beginning' }} tell a time so<template
          v-if="found.from && found.to"
          >, from {{ dayAndClock(found.from) }} to {{ dayAndClock(found.to) }}</template
        >.
        <template v-if="found.backwards > 0"
          >{{ count(found.backwards) }} stand before the one above them: day and month may be the other way round.</template
        >
      </p>
      <ol v-if="found.examples.length > 0" aria-label="Understood so">
        <li v-for="one in found.examples" :key="one.line">
          <span class="mono at">{{ dayAndClock(one.at) }}</span><span class="mono example">{{ one.text.split('\n')[0] }}</span>
        </li>
      </ol>
      <template v-if="found.missed.length > 0">
        <p class="soft">Not so:</p>
        <ol aria-label="Not understood so">
          <li v-for="one in found.missed" :key="one.line">
            <span class="soft">line {{ count(one.line) }}</span
            ><span class="mono example">{{ one.text.split('\n')[0] }}</span>
          </li>
        </ol>
      </template>
    </div>
  </div>
</template>
<style scoped>
.layout {
  display: grid;
  gap: 4px;
}
label {
  display: grid;
  grid-template-columns: 96px 1fr;
  align-items: center;
}
p {
  margin: 0;
}
.help {
  font-size: 12px;
  line-height: 17px;
}
.found {
  border-left: 2px solid var(--strong-seam);
  padding-left: 10px;
  display: grid;
  gap: 4px;
}
ol {
  margin: 0;
  padding: 0;
  list-style: none;
  display: grid;
  gap: 4px;
  font-size: 12px;
}
li {
  display: grid;
}
.example {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.at {
  color: var(--soft-ink);
}
</style>
