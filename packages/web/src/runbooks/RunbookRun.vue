<script setup lang="ts">
import type { RunbookInfo } from '@fadenweg/api';
import type { Runbook } from '@fadenweg/core/runbooks';
import { computed, toRef } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import { api } from '../api/client.ts';
import { useRequest } from '../api/use-request.ts';
import { useSaid } from '../share/use-share.ts';
import { dayAndClock } from '../time/format.ts';
import { useScope } from '../time/scope.ts';
import { useWindow } from '../time/window.ts';
import StepPart from './StepPart.vue';
import { useRun, type RunFrame } from './use-run.ts';

/** A runbook as it is run: blanks, steps one by one or all, and the text of what was found. */
const props = defineProps<{ info: RunbookInfo<Runbook> }>();
const route = useRoute();
const router = useRouter();
const frame = useWindow();
const scope = useScope();
const said = useSaid();
const book = computed(() => props.info.runbook);
const within = computed<RunFrame | null>(() => {
  const from = frame.bounds.value.from ?? scope.span.value.from;
  const to = frame.bounds.value.to ?? scope.span.value.to;
  return from && to ? { from, to, environment: scope.chosen.value.join(',') || undefined } : null;
});
const blanks = computed<Record<string, string>>(() =>
  Object.fromEntries(
    book.value.blanks.map(({ name, usual }) => [name, typeof route.query[`b-${name}`] === 'string' ? String(route.query[`b-${name}`]) : usual]),
  ),
);
const fill = (name: string, value: string): void => void router.replace({ query: { ...route.query, [`b-${name}`]: value || undefined } });
/** What there is to choose from in the records. */
const fields = computed(() => book.value.blanks.flatMap(({ values }) => (values && !Array.isArray(values) ? [values.field] : [])));
const known = useRequest([() => fields.value.join(), () => within.value?.from, () => within.value?.to], (signal) =>
  within.value && fields.value.length > 0
    ? api.get('/records/values', { query: { ...within.value, fields: fields.value.join(','), limit: 100 } }, signal)
    : Promise.resolve(null),
);
const choices = (values: Runbook['blanks'][number]['values']): string[] =>
  Array.isArray(values)
    ? values
    : (known.answer.value?.items
        .find((one) => one.field === values?.field)
        ?.values.map((one) => one.value)
        .sort() ?? []);
const { stateOf, sums, missing, running, finding, run, stop, forget } = useRun(toRef(() => book.value), blanks, within); // prettier-ignore
const anything = computed(() => Object.keys(sums.value).length > 0);
async function copy(): Promise<void> {
  const lines = [book.value.title, ...Object.entries(blanks.value).map(([name, value]) => `${name}: ${value}`)];
  if (within.value) lines.push(`${dayAndClock(within.value.from)} – ${dayAndClock(within.value.to)}`);
  await navigator.clipboard.writeText([...lines, '', finding.value ?? ''].join('\n'));
  said.say('Copied what was found');
}
</script>
<template>
  <div class="run">
    <p class="about">{{ book.about }}</p>
    <form class="blanks" @submit.prevent="run(book.steps)">
      <label v-for="one in book.blanks" :key="one.name"
        >{{ one.label }}
        <select
          v-if="one.kind === 'choice'"
          class="input"
          :value="blanks[one.name]"
          @change="(event) => fill(one.name, (event.target as HTMLSelectElement).value)"
        >
          <option value="">choose…</option>
          <option v-for="value in new Set([...choices(one.values), blanks[one.name] ?? ''].filter(Boolean))" :key="value">{{ value }}</option>
        </select>
        <input
          v-else
          class="input"
          :value="blanks[one.name]"
          maxlength="1000"
          @change="(event) => fill(one.name, (event.target as HTMLInputElement).value)"
      /></label>
      <v-btn type="submit" color="primary" :disabled="missing.length > 0 || running || !within">Run all</v-btn>
      <v-btn v-if="running" variant="outlined" @click="stop">Stop</v-btn>
      <button v-else-if="anything" type="button" class="link" @click="forget">forget the results</button>
      <span v-if="missing.length > 0" class="soft">Fill in: {{ missing.map((one) => one.label.toLowerCase()).join(', ') }}</span>
      <span v-else-if="!within" class="soft">Nothing is loaded yet.</span>
    </form>
    <section v-if="finding" class="finding" aria-label="What was found" data-testid="finding">
      <p>{{ finding }}</p>
      <button type="button" class="link" @click="copy">copy for the ticket</button>
    </section>
    <ol class="steps">
      <StepPart
        v-for="(step, i) in book.steps"
        :key="step.name"
        :step="step"
        :number="i + 1"
        :state="stateOf(step.name)"
        :blanks="blanks"
        :sums="sums"
        :frame="within"
        :ready="missing.length === 0 && !running && within !== null"
        @run="run([step])"
      />
    </ol>
  </div>
</template>
<style scoped>
.about {
  margin: 0 0 12px;
  max-width: 760px;
}
.blanks {
  display: flex;
  flex-wrap: wrap;
  align-items: end;
  gap: 8px 14px;
  margin-bottom: 14px;
}
.blanks label {
  display: flex;
  flex-direction: column;
  font-size: 13px;
}
.blanks .input {
  min-width: 220px;
}
.finding {
  background: var(--paper);
  border: 1px solid var(--indigo);
  border-radius: 3px;
  padding: 10px 14px;
  margin-bottom: 14px;
}
.finding p {
  margin: 0 0 4px;
  font-weight: 600;
  overflow-wrap: anywhere;
}
.steps {
  list-style: none;
  margin: 0;
  padding: 0;
}
</style>
