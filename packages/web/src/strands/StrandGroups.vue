<script setup lang="ts">
import type { Outcome, StrandGroup, StrandGrouping } from '@fadenweg/api';
import { computed } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import { api } from '../api/client.ts';
import { useRequest } from '../api/use-request.ts';
import ProblemNote from '../frame/ProblemNote.vue';
import OutcomeGlyph from '../glyphs/OutcomeGlyph.vue';
import { OUTCOME_WORDS, OUTCOMES } from '../glyphs/outcomes.ts';
import { count, dayAndClock } from '../time/format.ts';
import { ms } from './duration-text.ts';
import type { StrandsQuery } from './use-strands.ts';

/** Strands that have something in common, the largest group first; a group opens as the list narrowed to it. */
const props = defineProps<{ asked: StrandsQuery; by: StrandGrouping }>();
const route = useRoute();
const router = useRouter();
const groups = useRequest([() => JSON.stringify(props.asked), () => props.by], () => {
  const { sort: _sort, ...filter } = props.asked;
  return api.get('/strands/groups', { query: { ...filter, by: props.by } });
});
const rows = computed(() => groups.answer.value?.items ?? []);
const HEADS: Record<StrandGrouping, string> = { flow: 'Flow', party: 'Party', 'failed-in': 'Gave up in', finding: 'First finding' };
const FILTERS: Record<StrandGrouping, string> = { flow: 'flow', party: 'identifier', 'failed-in': 'failedIn', finding: 'finding' };
const shown = (group: StrandGroup): Outcome[] => OUTCOMES.filter((outcome) => (group.outcomes[outcome] ?? 0) > 0);
const open = (group: StrandGroup, outcome?: Outcome): void =>
  void router.push({ query: { ...route.query, by: undefined, [FILTERS[props.by]]: group.key, ...(outcome ? { outcome } : {}) } });
const most = computed(() => Math.max(1, ...rows.value.map((row) => row.strands)));
</script>
<template>
  <ProblemNote v-if="groups.problem.value" :problem="groups.problem.value" @again="groups.again" />
  <div v-else class="groups" tabindex="0" role="region" aria-label="Groups of strands">
    <p v-if="groups.answer.value && rows.length === 0" class="nothing">
      {{ by === 'failed-in' || by === 'finding' ? 'Nothing gave up among the strands in this window.' : 'No strand in this window fits.' }}
    </p>
    <table v-else class="plain-table">
      <thead>
        <tr>
          <th>{{ HEADS[by] }}</th>
          <th class="number">Strands</th>
          <th class="share"><span class="visually-hidden">Size</span></th>
          <th>Ended</th>
          <th class="number">Half within</th>
          <th class="number">95 % within</th>
          <th>Latest</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="group in rows" :key="group.kind + group.key">
          <td>
            <button type="button" class="link name" @click="open(group)">{{ group.label }}</button><span v-if="group.kind" class="soft kind">
              {{ group.kind }}</span
            >
            <RouterLink v-if="by === 'flow' && group.key !== 'none'" :to="{ name: 'usual', params: { name: group.key } }" class="kind soft"
              >the usual</RouterLink
            >
          </td>
          <td class="number">{{ count(group.strands) }}</td>
          <td class="share"><span :style="{ width: `${Math.max(1, (group.strands / most) * 100)}%` }"></span></td>
          <td>
            <button
              v-for="outcome in shown(group)"
              :key="outcome"
              type="button"
              class="ended"
              :title="`${OUTCOME_WORDS[outcome]}: show these`"
              @click="open(group, outcome)"
            >
              <OutcomeGlyph :outcome="outcome" :size="16" silent /> {{ OUTCOME_WORDS[outcome] }} {{ count(group.outcomes[outcome]!) }}
            </button>
          </td>
          <td class="number">{{ ms(group.p50Ms) }}</td>
          <td class="number">{{ ms(group.p95Ms) }}</td>
          <td class="mono when">{{ dayAndClock(group.lastStartedAt).slice(5) }}</td>
        </tr>
      </tbody>
    </table>
  </div>
</template>
<style scoped>
.name {
  text-align: left;
  white-space: normal;
  overflow-wrap: anywhere;
}
.groups {
  flex: 1;
  min-height: 0;
  overflow: auto;
}
.nothing {
  padding: 32px 16px;
  margin: 0;
}
.kind {
  margin-left: 8px;
  font-size: 12px;
}
.share {
  width: 130px;
}
.share span:not(.visually-hidden) {
  display: block;
  height: 8px;
  background: var(--indigo);
}
.ended {
  background: none;
  border: 0;
  padding: 0;
  margin-right: 14px;
  font: inherit;
  color: inherit;
  cursor: pointer;
  white-space: nowrap;
}
.ended:hover {
  text-decoration: underline;
  text-underline-offset: 3px;
}
.when {
  white-space: nowrap;
}
td:first-child,
th:first-child {
  padding-left: 16px;
}
</style>
