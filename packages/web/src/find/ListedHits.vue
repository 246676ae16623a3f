<script setup lang="ts">
import type { ListedAnswer, Outcome } from '@fadenweg/api';
import { computed, ref, toRef } from 'vue';
import { api } from '../api/client.ts';
import { useRequest } from '../api/use-request.ts';
import ProblemNote from '../frame/ProblemNote.vue';
import OutcomeGlyph from '../glyphs/OutcomeGlyph.vue';
import { OUTCOME_WORDS } from '../glyphs/outcomes.ts';
import { ms } from '../strands/duration-text.ts';
import { count, dayAndClock } from '../time/format.ts';
import { csv, save } from './save.ts';

/** Many identifiers at once: how each ended, grouped by that, and which are nowhere. */
const props = defineProps<{ text: string }>();
const { answer, problem, again } = useRequest(toRef(props, 'text'), () => api.post('/search/list', { body: { text: props.text } }));
/** Which components each passed takes longer to find out: it comes behind. */
const passed = useRequest(answer, (signal) =>
  answer.value ? api.post('/search/list', { body: { text: props.text, components: true } }, signal) : Promise.resolve(null),
);
const passes = computed(() => new Map((passed.answer.value?.items ?? []).map((item) => [item.word, item.components])));
const known = computed(() => [...new Set((passed.answer.value?.items ?? []).flatMap((item) => item.components ?? []))].sort());
/** Only strands that never come through this component. */
const without = ref('');
const missing = (item: Item, component: string): boolean => item.strand !== null && !(passes.value.get(item.word) ?? []).includes(component);
type Group = Outcome | 'no strand' | 'nowhere';
type Item = ListedAnswer['items'][number];
const groupOf = (item: Item): Group => item.strand?.outcome ?? (item.records ? 'no strand' : 'nowhere');
const items = computed(() => answer.value?.items ?? []);
const groups = computed(() => {
  const counts = new Map<Group, number>();
  for (const item of items.value) counts.set(groupOf(item), (counts.get(groupOf(item)) ?? 0) + 1);
  return [...counts].sort(([, a], [, b]) => b - a);
});
const only = ref<Group | null>(null);
const shown = computed(() =>
  items.value.filter((item) => (only.value === null || groupOf(item) === only.value) && (without.value === '' || missing(item, without.value))),
);
const words = (group: Group): string => (group === 'nowhere' ? 'in no record' : group === 'no strand' ? 'in no strand' : OUTCOME_WORDS[group]);
function saveAll(): void {
  const head = ['identifier', 'kind', 'found', 'outcome', 'flow', 'begin', 'end', 'duration_ms', 'records', 'what_happened', 'components'];
  const rows = shown.value.map(({ word, kind, records, strand }) => [
    word,
    kind ?? '',
    records ? 'yes' : 'no',
    strand?.outcome ?? '',
    strand?.flowLabel ?? '',
    strand?.startedAt ?? '',
    strand?.endedAt ?? '',
    strand ? String(strand.durationMs) : '',
    strand ? String(strand.records) : '',
    strand?.headline ?? '',
    (passes.value.get(word) ?? []).join(' '),
  ]);
  save('identifiers.csv', 'text/csv', csv([head, ...rows]));
}
</script>
<template>
  <div>
    <ProblemNote v-if="problem" :problem="problem" @again="again" />
    <p v-else-if="!answer" class="soft" role="status">Looking them up…</p>
    <template v-else>
      <h1>{{ count(items.length) }} identifiers at once</h1>
      <div class="groups" role="group" aria-label="Only those that">
        <button
          v-for="[group, number] in groups"
          :key="group"
          type="button"
          :aria-pressed="only === group"
          @click="only = only === group ? null : group"
        >
          <OutcomeGlyph v-if="group !== 'nowhere' && group !== 'no strand'" :outcome="group" silent /> {{ words(group) }}
          <span class="soft">{{ count(number) }}</span>
        </button>
        <label
          >never in
          <select v-model="without" class="input" :disabled="known.length === 0">
            <option value="">{{ passed.loading.value ? 'looking where each passed…' : 'any of these' }}</option>
            <option v-for="one in known" :key="one" :value="one">{{ one }} ({{ items.filter((item) => missing(item, one)).length }})</option>
          </select></label
        >
        <button type="button" class="link plain" @click="saveAll">Save as CSV</button>
      </div>
      <table class="plain-table">
        <thead>
          <tr>
            <th>Identifier</th>
            <th>Outcome</th>
            <th>Flow</th>
            <th>Begin</th>
            <th class="number">Duration</th>
            <th class="number">Records</th>
            <th>What happened</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="item in shown" :key="item.word">
            <td class="mono still">
              <RouterLink v-if="item.strand" :to="{ name: 'strand', params: { id: item.strand.id } }">{{ item.word }}</RouterLink><template v-else>{{
                item.word
              }}</template>
            </td>
            <td class="still" :class="{ soft: !item.strand }">
              <OutcomeGlyph v-if="item.strand" :outcome="item.strand.outcome" silent /> {{ words(groupOf(item)) }}
            </td>
            <template v-if="item.strand">
              <td class="still">{{ item.strand.flowLabel }}</td>
              <td class="mono still">{{ dayAndClock(item.strand.startedAt) }}</td>
              <td class="number still">{{ ms(item.strand.durationMs) }}</td>
              <td class="number">{{ count(item.strand.records) }}</td>
              <td>
                {{ item.strand.headline }}<span v-if="item.further > 0" class="soft"> and {{ count(item.further) }} more strands</span>
              </td>
            </template>
            <td v-else colspan="5" class="soft">{{ item.records ? `${item.kind}: records name it, none of them names a transaction` : '' }}</td>
          </tr>
        </tbody>
      </table>
    </template>
  </div>
</template>
<style scoped>
.groups {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  align-items: center;
  margin: 10px 0;
}
.groups button:not(.plain) {
  background: var(--paper);
  border: 1px solid var(--strong-seam);
  border-radius: 3px;
  padding: 2px 10px;
  font: inherit;
  color: inherit;
  cursor: pointer;
  min-height: 26px;
}
.groups button[aria-pressed='true'] {
  background: var(--indigo-wash);
  border-color: var(--indigo);
}
.still {
  white-space: nowrap;
}
</style>
