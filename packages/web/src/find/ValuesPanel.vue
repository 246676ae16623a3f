<script setup lang="ts">
import type { FieldValues, Page } from '@fadenweg/api';
import { printValue } from '@fadenweg/core/search';
import { computed, ref, toRef } from 'vue';
import { api } from '../api/client.ts';
import { useRequest } from '../api/use-request.ts';
import ProblemNote from '../frame/ProblemNote.vue';
import { count } from '../time/format.ts';
import type { Asked } from './use-find.ts';

/** The values of fields in what is found, the most frequent first; a click narrows to one, or leaves it out. */
const props = defineProps<{ asked: Asked; fields: string[] }>();
const emit = defineEmits<{ value: [field: string, value: string, out: boolean]; group: [field: string] }>();
const own = ref('');
const added = ref<string[]>([]);
const shown = computed(() => [...new Set([...added.value, ...props.fields])]);
const ask = (effort: 'quick' | 'thorough', signal: AbortSignal): Promise<Page<FieldValues>> => {
  const { order: _order, ...question } = props.asked;
  return api.get('/records/values', { query: { ...question, fields: shown.value.join(','), limit: 8, effort } }, signal);
};
/** A few records at once, then as many as a sample holds. */
const quick = useRequest([toRef(props, 'asked'), () => shown.value.join('\n')], (signal) => ask('quick', signal));
const { problem, loading, again } = quick;
const thorough = useRequest(quick.answer, (signal) =>
  quick.answer.value?.items[0]?.complete === false ? ask('thorough', signal) : Promise.resolve(null),
);
const answer = computed(() => (thorough.loading.value ? null : thorough.answer.value) ?? quick.answer.value);
const groups = computed(() => (answer.value?.items ?? []).filter((one) => one.values.length > 0));
const sampled = computed(() => (groups.value[0] && !groups.value[0].complete ? groups.value[0].records : 0));
function add(): void {
  const name = own.value.trim();
  if (name !== '') added.value = [name, ...added.value.filter((one) => one !== name)];
  own.value = '';
}
/** The value that is set against all others. */
const compared = ref<{ field: string; value: string } | null>(null);
const against = useRequest([toRef(props, 'asked'), compared], (signal) => {
  if (!compared.value) return Promise.resolve(null);
  const { order: _order, ...question } = props.asked;
  return api.get('/records/against', { query: { ...question, ...compared.value } }, signal);
});
const much = (odds: number): string => (odds >= 1 ? `${odds >= 10 ? Math.round(odds) : odds.toFixed(1)} times as likely` : `${1 / odds >= 10 ? Math.round(1 / odds) : (1 / odds).toFixed(1)} times less likely`); // prettier-ignore
const part = (number: number, of: number): string =>
  of === 0 ? '0 %' : `${number / of < 0.01 && number > 0 ? '<1' : Math.round((number / of) * 100)} %`;
const figure = (number: number): string => (Math.abs(number) >= 100 || Number.isInteger(number) ? count(Math.round(number)) : String(Number(number.toPrecision(3)))); // prettier-ignore
const highest = (bins: readonly { count: number }[]): number => Math.max(1, ...bins.map((bin) => bin.count));
const share = (group: FieldValues, number: number): number => (group.records === 0 ? 0 : number / group.records);
</script>
<template>
  <div class="values">
    <form @submit.prevent="add">
      <label>Values of <input v-model="own" class="input" maxlength="100" placeholder="any field" list="field-names" /></label>
      <datalist id="field-names"><option v-for="name in fields" :key="name" :value="name" /></datalist>
    </form>
    <section v-if="compared" class="compared" aria-live="polite">
      <h2>
        <span class="mono">{{ compared.field }} = {{ printValue(compared.value) }}</span>
        <button type="button" class="link soft" @click="compared = null">close</button>
      </h2>
      <p v-if="against.loading.value" class="soft" role="status">Comparing…</p>
      <template v-else-if="against.answer.value">
        <p class="soft">
          {{ count(against.answer.value.inside) }} records against {{ count(against.answer.value.outside) }} others<template
            v-if="!against.answer.value.complete"
          >
            (the latest)</template
          >
        </p>
        <p v-if="against.answer.value.items.length === 0">No other field tells them apart.</p>
        <ul v-else>
          <li v-for="one in against.answer.value.items" :key="`${one.field} ${one.value}`" class="apart">
            <button
              type="button"
              class="name mono"
              :title="`Only ${one.field} = ${printValue(one.value)}`"
              @click="emit('value', one.field, one.value, false)"
            >
              {{ one.field }} = {{ one.value }}
            </button>
            <span class="soft"
              >{{ much(one.odds) }}: {{ part(one.inside, against.answer.value.inside) }} against
              {{ part(one.outside, against.answer.value.outside) }}</span
            >
          </li>
        </ul>
      </template>
      <p v-else-if="against.problem.value" class="bad" role="alert">{{ against.problem.value.detail }}</p>
    </section>
    <ProblemNote v-if="problem" :problem="problem" @again="again" />
    <p v-else-if="(loading && !answer) || (thorough.loading.value && groups.length === 0)" class="soft" role="status">Counting…</p>
    <p v-else-if="sampled" class="soft">In the latest {{ count(sampled) }} records that are found.</p>
    <section v-for="group in groups" :key="group.field">
      <h2>
        {{ group.field }}
        <button type="button" class="link soft" :title="`All values of ${group.field} as a list`" @click="emit('group', group.field)">
          {{ count(group.distinct) }} {{ group.distinct === 1 ? 'value' : 'values' }}
        </button>
      </h2>
      <div v-if="group.numbers" class="spread">
        <svg viewBox="0 0 100 26" preserveAspectRatio="none" aria-hidden="true">
          <rect
            v-for="(bin, i) in group.numbers.bins"
            :key="i"
            :x="(i * 100) / group.numbers.bins.length"
            :width="96 / group.numbers.bins.length"
            :y="26 - (bin.count / highest(group.numbers.bins)) * 26"
            :height="(bin.count / highest(group.numbers.bins)) * 26"
          />
        </svg>
        <p class="soft">
          {{ figure(group.numbers.min) }} to {{ figure(group.numbers.max) }}<template v-if="group.field === 'took'"> ms</template> · half up to
          <button type="button" class="link" @click="emit('value', group.field, String(group.numbers.p50), false)">
            {{ figure(group.numbers.p50) }}</button>, 90 % up to {{ figure(group.numbers.p90) }}, 99 % up to {{ figure(group.numbers.p99) }}
        </p>
      </div>
      <ul>
        <li v-for="one in group.values" :key="one.value">
          <span class="bar" :style="{ width: `${Math.max(1, share(group, one.count) * 100)}%` }" aria-hidden="true"></span>
          <button
            type="button"
            class="name mono"
            :title="`Only ${group.field} = ${printValue(one.value)}`"
            @click="emit('value', group.field, one.value, false)"
          >
            {{ one.value }}
          </button>
          <span class="number">{{ count(one.count) }}</span>
          <span class="number share">{{ Math.round(share(group, one.count) * 100) }} %</span>
          <button
            type="button"
            class="link out"
            :aria-label="`${group.field} ${one.value} against all others`"
            title="What tells these records from all others?"
            @click="compared = { field: group.field, value: one.value }"
          >
            against
          </button>
          <button
            type="button"
            class="link out"
            :aria-label="`Leave out ${group.field} ${one.value}`"
            title="Leave out"
            @click="emit('value', group.field, one.value, true)"
          >
            leave out
          </button>
        </li>
      </ul>
    </section>
  </div>
</template>
<style scoped>
section {
  margin-top: 14px;
}
h2 {
  display: flex;
  justify-content: space-between;
}
h2 span {
  font-weight: 400;
}
ul {
  list-style: none;
  margin: 4px 0 0;
  padding: 0;
}
li {
  position: relative;
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto 38px 48px 58px;
  gap: 8px;
  align-items: center;
  height: 24px;
}
.bar {
  position: absolute;
  left: 0;
  top: 1px;
  bottom: 1px;
  background: var(--indigo-wash);
  z-index: 0;
}
.name {
  position: relative;
  text-align: left;
  background: none;
  border: 0;
  padding: 0 4px;
  color: var(--ink);
  cursor: pointer;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
  height: 24px;
}
.name:hover {
  text-decoration: underline;
}
.compared {
  border: 1px solid var(--strong-seam);
  border-radius: 3px;
  padding: 8px 10px;
}
.apart {
  display: block;
  height: auto;
  padding: 2px 0;
}
.apart .name {
  width: 100%;
}
.apart .soft {
  padding-left: 4px;
  font-size: 12.5px;
}
.spread svg {
  width: 100%;
  height: 26px;
  display: block;
}
.spread rect {
  fill: var(--undyed);
}
.spread p {
  font-size: 12.5px;
  line-height: 17px;
}
.number,
.out {
  position: relative;
}
.share {
  color: var(--soft-ink);
}
.out {
  height: 24px;
  font-size: 12px;
  color: var(--soft-ink);
}
p {
  margin: 2px 0 0;
}
label {
  display: flex;
  gap: 8px;
  align-items: center;
}
.input {
  flex: 1;
}
</style>
