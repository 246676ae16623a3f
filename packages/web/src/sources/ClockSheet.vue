<script setup lang="ts">
import type { HostClock } from '@fadenweg/api';
import { computed, ref } from 'vue';
import { api } from '../api/client.ts';
import { useAttempt } from '../api/use-attempt.ts';
import { count, dayAndClock } from '../time/format.ts';
import ClockChart from './ClockChart.vue';
import { nameOf, signed } from './clock-words.ts';

/** One clock: how it went, what it is known by, and a way to set it by hand. */
const props = defineProps<{ clock: HostClock; said: string }>();
const emit = defineEmits<{ changed: [said: string] }>();
const seconds = ref(props.clock.setAheadMs === null ? '' : String(props.clock.setAheadMs / 1000));
const { attempt, refused: problem } = useAttempt();
const hops = computed(() => props.clock.evidence.reduce((sum, one) => sum + one.hops, 0));

async function set(aheadMs: number | null): Promise<void> {
  await attempt(async () => {
    await api.put('/hosts/{id}', { params: { id: props.clock.id }, body: { aheadMs } });
    emit(
      'changed',
      aheadMs === null ? 'What was found holds again; its records are read again.' : 'Set. Its records are read again with their times put right.',
    );
  });
}
function submit(): void {
  const value = Number(seconds.value.trim().replace(',', '.').replace('−', '-'));
  if (seconds.value.trim() === '' || !Number.isFinite(value))
    problem.value = `“${seconds.value}” is no number of seconds. Write 2.9 for ahead, -2.9 for behind.`;
  else void set(value * 1000);
}
</script>
<template>
  <aside class="sheet" :aria-label="`Clock of ${nameOf(clock)}`">
    <h2>Clock of {{ nameOf(clock) }}</h2>
    <p v-if="clock.state === 'unbounded'">
      <template v-if="clock.hops === 0"
        >No call or message that could be recognised passes between it and others, so its times are taken as they are.</template
      >
      <template v-else>Too little passes back and forth between it and others to know it closely, so its times are taken as they are.</template>
    </p>
    <template v-else>
      <ol class="stretches">
        <li v-for="one in clock.stretches" :key="one.from">
          <template v-if="clock.state === 'set'"
            >Set by {{ clock.changedBy }}: {{ signed(Math.abs(one.aheadMs)) }} {{ one.aheadMs < 0 ? 'behind' : 'ahead' }} at all times.</template
          >
          <template v-else
            ><span class="mono">{{ dayAndClock(one.from) }}</span> to <span class="mono">{{ dayAndClock(one.to) }}</span>:
            <strong v-if="one.aheadMs !== 0 || one.driftMsPerHour !== 0"
              >{{ signed(Math.abs(one.aheadMs)) }} {{ one.aheadMs < 0 ? 'behind' : 'ahead' }}</strong
            ><template v-else>with the others</template
            ><template v-if="Math.abs(one.driftMsPerHour) >= 0.1">, gaining {{ one.driftMsPerHour.toFixed(1).replace('-', '−') }} ms an hour</template
            >, give or take {{ signed(Math.max(1, one.withinMs)) }}</template
          >
        </li>
      </ol>
      <p v-if="clock.state === 'set' && clock.found.length > 0" class="soft">
        Found: {{ clock.found.map((one) => `${signed(one.aheadMs)} from ${dayAndClock(one.from)}`).join(', ') }}
      </p>
    </template>
    <ClockChart v-if="clock.evidence.length > 0" :clock="clock" />
    <p v-if="hops > 0" class="soft">
      Each bar: {{ clock.evidence.length === 1 ? 'all of' : `about ${count(Math.round(hops / clock.evidence.length))} of` }}
      {{ count(hops) }} passages that were looked at, and between what they allow the clock to be.
    </p>
    <p v-if="clock.partners.length > 0">Compared with {{ clock.partners.map((one) => `${nameOf(one)} (${count(one.hops)})`).join(', ') }}.</p>
    <form @submit.prevent="submit">
      <label>Ahead by, in seconds <input v-model="seconds" class="input" inputmode="decimal" placeholder="2.9, or -2.9 for behind" /></label>
      <div class="buttons">
        <v-btn type="submit" variant="outlined" size="small">Set by hand</v-btn>
        <v-btn v-if="clock.setAheadMs !== null" variant="text" size="small" @click="set(null)">Let what was found hold</v-btn>
      </div>
      <p v-if="problem" class="bad" role="alert">{{ problem }}</p>
      <p v-if="said" role="status">{{ said }}</p>
    </form>
  </aside>
</template>
<style scoped>
.sheet {
  flex: none;
  width: 420px;
  box-sizing: border-box;
  border-left: 1px solid var(--seam);
  background: var(--paper);
  padding: 10px 16px;
  overflow: auto;
  display: flex;
  flex-direction: column;
  gap: 8px;
}
h2,
p {
  margin: 0;
}
.stretches {
  margin: 0;
  padding: 0;
  list-style: none;
  display: grid;
  gap: 4px;
}
form {
  border-top: 1px solid var(--seam);
  padding-top: 10px;
  display: grid;
  gap: 8px;
}
label {
  display: grid;
  grid-template-columns: 150px 1fr;
  align-items: center;
}
.buttons {
  display: flex;
  gap: 8px;
}
</style>
