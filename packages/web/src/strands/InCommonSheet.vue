<script setup lang="ts">
import type { InCommonValue } from '@fadenweg/api';
import { computed } from 'vue';
import { api } from '../api/client.ts';
import { useRequest } from '../api/use-request.ts';
import ProblemNote from '../frame/ProblemNote.vue';
import ValueHandle from '../record/ValueHandle.vue';
import { count } from '../time/format.ts';
import type { StrandsQuery } from './use-strands.ts';

/** What the strands of the list have in common that others of their flow and time hardly have. */
const props = defineProps<{ asked: StrandsQuery }>();
const { answer, problem, loading, again } = useRequest([() => JSON.stringify(props.asked)], (signal) => {
  const { sort: _sort, ...filter } = props.asked;
  return api.get('/strands/in-common', { query: filter }, signal);
});
const before = computed(() => answer.value?.values.filter((one) => !one.only) ?? []);
const only = computed(() => answer.value?.values.filter((one) => one.only) ?? []);
const SECTIONS = computed(() => [
  { title: 'Others have it too, but less often', why: 'Where a cause may be looked for.', list: before.value },
  { title: 'Hardly any other has it', why: 'What happened itself, or followed from it.', list: only.value },
]);
const percent = (part: number, of: number): string =>
  of === 0 ? '–' : part === of ? 'all' : part === 0 ? 'none' : `${Math.max(1, Math.round((part / of) * 100))} %`;
const width = (part: number, of: number): string => `${of === 0 ? 0 : (part / of) * 100}%`;
const keyOf = (one: InCommonValue): string => `${one.kind} ${one.component} ${one.field} ${one.value}`;
</script>
<template>
  <div>
    <ProblemNote v-if="problem" :problem="problem" @again="again" />
    <p v-else-if="loading && !answer" class="soft" role="status">Comparing…</p>
    <template v-else-if="answer">
      <p class="soft">
        {{ count(answer.inside) }} of {{ count(answer.strands) }} strands of this list beside {{ count(answer.outside) }} others of the same flow and
        time.
      </p>
      <p v-if="answer.outside === 0">There are no others of the same flow and time to compare them with. Narrow the list, or widen the window.</p>
      <p v-else-if="answer.values.length === 0">Nothing that they are about, and nothing that is said of them, tells them from the others.</p>
      <section v-for="{ title, why, list } in SECTIONS" :key="title">
        <template v-if="list.length > 0">
          <h2>{{ title }}</h2>
          <p class="soft">{{ why }}</p>
          <ul>
            <li v-for="one in list" :key="keyOf(one)">
              <p class="what">
                <template v-if="one.kind === 'saying'"
                  ><b>{{ one.component }}</b> <span class="mono">{{ one.value }}</span></template
                >
                <template v-else
                  ><span v-if="one.component" class="soft">{{ one.component }}&nbsp;</span>{{ one.field }} =
                  <ValueHandle :field="one.field" :value="one.value" :identifier="one.kind === 'party'" :party="one.kind === 'party'" class="mono"
                /></template>
              </p>
              <p class="shares">
                <span class="bar" aria-hidden="true"><i :style="{ width: width(one.inside, answer.inside) }"></i></span>
                <b class="number">{{ percent(one.inside, answer.inside) }}</b>
                <span class="soft">of these,</span>
                <span class="bar others" aria-hidden="true"><i :style="{ width: width(one.outside, answer.outside) }"></i></span>
                <span class="number">{{ percent(one.outside, answer.outside) }}</span> <span class="soft">of the others</span>
              </p>
            </li>
          </ul>
        </template>
      </section>
    </template>
  </div>
</template>
<style scoped>
p {
  margin: 3px 0;
}
h2 {
  margin-top: 10px;
}
ul {
  list-style: none;
  margin: 0;
  padding: 0;
}
li {
  padding: 4px 0;
  border-bottom: 1px solid var(--seam);
}
.what {
  overflow-wrap: anywhere;
  line-height: 17px;
}
.shares {
  display: flex;
  gap: 6px;
  align-items: center;
  font-size: 13px;
  white-space: nowrap;
}
.bar {
  width: 64px;
  height: 8px;
  flex: none;
  background: var(--linen);
  border: 1px solid var(--seam);
}
.bar i {
  display: block;
  height: 100%;
  background: var(--indigo);
}
.others i {
  background: var(--soft-ink);
}
.number {
  min-width: 36px;
  text-align: right;
}
</style>
