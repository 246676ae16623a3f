<script setup lang="ts">
import type { SourceChange, SourceInfo } from '@fadenweg/api';
import { FORMATS } from '@fadenweg/core/reading';
import { reactive, ref } from 'vue';
import TimeLayoutField from './TimeLayoutField.vue';
import { api } from '../api/client.ts';
import { useAttempt } from '../api/use-attempt.ts';
import { useRequest } from '../api/use-request.ts';
import { bytes, count, dayAndClock } from '../time/format.ts';

const props = defineProps<{ source: SourceInfo }>();
const emit = defineEmits<{ changed: []; close: [] }>();
const zones = Intl.supportedValuesOf('timeZone');
const values = reactive({
  format: props.source.format,
  dateOrder: props.source.dateOrder,
  zone: props.source.zone,
  timeLayout: props.source.timeLayout ?? '',
  standsAt: props.source.standsAt,
  snapshots: props.source.snapshots,
  component: props.source.component,
  host: props.source.host,
  environment: props.source.environment,
});
/** Orders of dates in numbers, by an example of each. */
const DATE_ORDERS = { 'day-first': '24/11/26 · day first', 'month-first': '11/24/26 · month first', 'year-first': '26/11/24 · year first' };
const said = ref('');
const whole = useRequest([], () => api.get('/sources/{id}/kept-whole', { params: { id: props.source.id }, query: { limit: 20 } }));
const parts = useRequest([], async () =>
  props.source.parts > 1 ? (await api.get('/sources/{id}/parts', { params: { id: props.source.id } })).items : [],
);

const { attempt: change, refused: problem } = useAttempt();
const attempt = (act: () => Promise<string>): Promise<boolean> =>
  change(async () => {
    said.value = '';
    said.value = await act();
    emit('changed');
  });
function save(): void {
  const given = { ...values, timeLayout: values.timeLayout.trim() || null };
  const change = Object.fromEntries(Object.entries(given).filter(([name, value]) => value !== props.source[name as keyof typeof values]));
  if (Object.keys(change).length === 0) said.value = 'Nothing was changed.';
  else
    void attempt(async () => {
      await api.put('/sources/{id}', { params: { id: props.source.id }, body: change as SourceChange });
      return 'Saved. The source is read again from its kept bytes.';
    });
}
const setApart = (apart: boolean): Promise<boolean> =>
  attempt(async () => {
    await api.put('/sources/{id}', { params: { id: props.source.id }, body: { apart } });
    return apart ? 'Told apart. The sources are read again, each for itself.' : 'Copies are looked for again.';
  });
const again = (): Promise<boolean> =>
  attempt(async () => {
    await api.post('/sources/{id}/again', { params: { id: props.source.id } });
    return 'It is read again.';
  });
</script>
<template>
  <aside class="form" aria-label="How this source is read">
    <h2>How it is read</h2>
    <p class="mono soft path">{{ source.path }}</p>
    <form @submit.prevent="save">
      <label>Zone <input v-model="values.zone" class="input" list="zones" /></label
      ><datalist id="zones"><option v-for="zone in zones" :key="zone" :value="zone" /></datalist>
      <label
        >Format
        <select v-model="values.format" class="input">
          <option v-for="format in FORMATS" :key="format">{{ format }}</option>
        </select></label
      >
      <label v-if="source.dateOrder"
        >Dates
        <select v-model="values.dateOrder" class="input">
          <option v-for="(words, order) in DATE_ORDERS" :key="order" :value="order">{{ words }}</option>
        </select></label
      >
      <p v-if="source.dateOrderBy === 'guessed'" class="soft">Its dates can be read in another order too, and nothing here tells which is right.</p>
      <TimeLayoutField v-model="values.timeLayout" :source="source.id" :zone="values.zone" :learned="source.understood > 0" />
      <label v-if="source.standsAt"
        >Durations
        <select v-model="values.standsAt" class="input">
          <option value="end">end at a line’s time</option>
          <option value="begin">begin at a line’s time</option>
        </select></label
      >
      <label v-if="source.snapshots !== null"
        >Rows
        <select v-model="values.snapshots" class="input">
          <option :value="true">states seen at an instant</option>
          <option :value="false">events</option>
        </select></label
      >
      <p v-if="source.snapshots" class="soft">What was seen belongs to no strand, though it may name one.</p>
      <label>Component <input v-model="values.component" class="input" maxlength="60" /></label
      ><label>Host <input v-model="values.host" class="input" maxlength="80" /></label
      ><label>Environment <input v-model="values.environment" class="input" maxlength="60" /></label>
      <p v-if="problem" class="bad" role="alert">{{ problem }}</p>
      <p v-if="said" role="status">{{ said }}</p>
      <div class="buttons">
        <v-btn type="submit" color="primary">Save</v-btn><v-btn v-if="source.state === 'failed'" variant="outlined" @click="again">Read again</v-btn
        ><v-btn variant="text" @click="emit('close')">Close</v-btn>
      </div>
    </form>
    <section v-if="source.copyOf || source.apart" class="part" aria-label="Copies">
      <h2>Copies</h2>
      <template v-if="source.copyOf">
        <p>
          {{ source.copies === source.records ? 'All' : count(source.copies) }} of its {{ count(source.records) }} records tell the same events as
          <span class="mono path">{{ source.copyOf.path }}</span>. Each event is shown once, there, and counts once.
        </p>
        <v-btn class="act" variant="outlined" @click="setApart(true)">Tell them apart</v-btn>
      </template>
      <template v-else>
        <p>It was said that this is a copy of no other source: what it tells counts by itself.</p>
        <v-btn class="act" variant="outlined" @click="setApart(false)">Look for copies again</v-btn>
      </template>
    </section>
    <section v-if="whole.answer.value" class="part">
      <h2>Kept whole</h2>
      <p v-if="whole.answer.value.records === 0" class="soft">Every record was understood.</p>
      <template v-else>
        <p class="soft">
          {{ count(whole.answer.value.records) }} records without a time or in no known form, by look. If they are many, another format may fit.
        </p>
        <ol>
          <li v-for="group in whole.answer.value.groups" :key="group.recordId">
            <RouterLink :to="{ name: 'record', params: { id: group.recordId } }" class="mono example">{{
              group.example.split('\n')[0] || '(an empty line)'
            }}</RouterLink>
            <span class="soft">{{ count(group.count) }} times, first in line {{ count(group.line) }}</span>
          </li>
        </ol>
      </template>
    </section>
    <section v-if="parts.answer.value?.length" class="part">
      <h2>Parts</h2>
      <ol>
        <li v-for="part in parts.answer.value" :key="part.path">
          <span class="mono example">{{ part.path.split('/').at(-1) }}</span>
          <span class="soft"
            >{{ count(part.records) }} records, {{ bytes(part.size) }}<template v-if="part.from">, from {{ dayAndClock(part.from) }}</template></span
          >
          <span v-if="part.error" class="bad">{{ part.error }}</span>
        </li>
      </ol>
    </section>
  </aside>
</template>
<style scoped src="./form.css"></style>
<style scoped>
.path {
  overflow-wrap: anywhere;
  margin: 2px 0 10px;
}
.part {
  margin-top: 16px;
  border-top: 1px solid var(--seam);
  padding-top: 10px;
}
ol {
  margin: 6px 0 0;
  padding: 0;
  list-style: none;
  display: grid;
  gap: 8px;
}
.act {
  margin-top: 6px;
}
.example {
  display: block;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
</style>
