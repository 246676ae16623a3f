<script setup lang="ts">
import type { DeclaredSchedule } from '@fadenweg/api';
import { nextDue, scheduleFrom, scheduleProblem, scheduleWords } from '@fadenweg/core/jobs';
import { computed, ref, watch } from 'vue';
import { dayAndClock, ZONE } from '../time/format.ts';
import { durationField, typedDuration } from './duration-field.ts';

/** When runs are to begin: the five fields of a crontab, with what they mean as they are typed. Nothing typed is null: it is learned. */
const model = defineModel<DeclaredSchedule | null>({ required: true });
const emit = defineEmits<{ problem: [string] }>();
const cron = ref('');
const zone = ref(ZONE);
const late = ref('');
const lateMs = computed(() => typedDuration(late.value));
const problem = computed(() => {
  if (cron.value.trim() === '') return '';
  const reason = scheduleProblem({ cron: cron.value, zone: zone.value });
  if (reason !== null) return `This is no schedule yet: ${reason}.`;
  return lateMs.value === undefined ? 'How late it may begin is a length of time, as 10 min, or nothing.' : '';
});
const typed = computed((): DeclaredSchedule | null =>
  cron.value.trim() === '' || problem.value !== '' ? null : { cron: cron.value.trim(), zone: zone.value.trim(), lateMs: lateMs.value ?? null },
);
const ZONES = Intl.supportedValuesOf('timeZone');
/** What it means: in words, and the next times. */
const meaning = computed(() => {
  if (typed.value === null) return '';
  const schedule = scheduleFrom(typed.value);
  const next: number[] = [];
  for (let at: number | null = Date.now() * 1000; next.length < 3; next.push(at)) {
    at = nextDue(schedule, at, ZONE);
    if (at === null) break;
  }
  return `${scheduleWords(schedule)}; next ${next.map((at) => dayAndClock(new Date(at / 1000).toISOString()).slice(0, 16)).join(', ')}`;
});
watch(
  model,
  (now) => {
    if (JSON.stringify(now) === JSON.stringify(typed.value)) return;
    cron.value = now?.cron ?? '';
    zone.value = now?.zone ?? ZONE;
    late.value = durationField(now?.lateMs);
  },
  { immediate: true },
);
watch([typed, problem], () => {
  emit('problem', problem.value);
  if (problem.value === '' && JSON.stringify(typed.value) !== JSON.stringify(model.value)) model.value = typed.value;
});
</script>
<template>
  <fieldset>
    <legend>When its runs are to begin</legend>
    <div class="row">
      <input
        v-model="cron"
        class="input mono"
        maxlength="200"
        placeholder="as learned"
        aria-label="Minute, hour, day, month, weekday"
        aria-describedby="schedule-said"
        :aria-invalid="problem !== ''"
      />
      <input
        v-model="zone"
        class="input"
        maxlength="60"
        list="schedule-zones"
        aria-label="Time zone of the schedule"
        :disabled="cron.trim() === ''"
      />
      <input
        v-model="late"
        class="input"
        maxlength="20"
        placeholder="at most so late"
        aria-label="It may begin so much later"
        :disabled="cron.trim() === ''"
      />
    </div>
    <datalist id="schedule-zones"><option v-for="one of ZONES" :key="one" :value="one"></option></datalist>
    <p id="schedule-said" :class="problem === '' ? 'soft' : 'bad'" role="status">
      {{ problem || meaning || 'Minute, hour, day of the month, month, weekday, as in a crontab: 30 6 * * 1-5' }}
    </p>
  </fieldset>
</template>
<style scoped src="./expected-parts.css"></style>
<style scoped>
.row {
  grid-template-columns: minmax(0, 3fr) minmax(0, 2fr);
}
.row > .mono {
  grid-column: 1 / -1;
}
.bad {
  color: var(--madder);
}
</style>
