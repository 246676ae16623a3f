<script setup lang="ts">
import type { BestKinds, KindSuggestion, Role } from '@fadenweg/api';
import { reactive } from 'vue';
import { api } from '../api/client.ts';
import { useRequest } from '../api/use-request.ts';
import ProblemNote from '../frame/ProblemNote.vue';
import { count } from '../time/format.ts';
import BestKindsNote from './BestKindsNote.vue';
import RoleSelect from './RoleSelect.vue';

const emit = defineEmits<{ accept: [suggestion: KindSuggestion, role: Role]; acceptBest: [best: BestKinds] }>();
const { answer, problem, loading, again } = useRequest([], () => api.get('/identifier-kinds/suggestions'));
const roles = reactive(new Map<string, Role>());
const roleOf = (one: KindSuggestion): Role => roles.get(one.name) ?? one.role;
defineExpose({ again });
</script>
<template>
  <section aria-labelledby="suggested">
    <h2 id="suggested">Suggested from the data <span v-if="loading" class="soft" role="status">looking through the records…</span></h2>
    <ProblemNote v-if="problem" :problem="problem" @again="again" />
    <p v-else-if="answer && answer.items.length === 0 && !answer.best" class="soft">
      Nothing that recurs looks like an identifier which is not declared. Bring in the logs of more components, or declare one below.
    </p>
    <BestKindsNote v-if="answer?.best && !loading" :best="answer.best" @accept="emit('acceptBest', answer.best)" />
    <table v-if="answer && answer.items.length > 0" class="plain-table">
      <thead>
        <tr>
          <th>Identifier</th>
          <th>Found by</th>
          <th>For example</th>
          <th class="number">Values</th>
          <th class="number">Records each</th>
          <th>Components</th>
          <th class="number">In several</th>
          <th class="number">Joins</th>
          <th>Role</th>
          <th>Action</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="one in answer.items" :key="one.name">
          <td>{{ one.label }}</td>
          <td class="mono">{{ one.patterns.length ? one.patterns.join(' ') : one.fields.join(', ') }}</td>
          <td class="mono">{{ one.examples.slice(0, 2).join('  ') }}</td>
          <td class="number">{{ count(one.values) }}</td>
          <td class="number">{{ one.recordsPerValue.toFixed(1) }}</td>
          <td>
            {{ one.components.slice(0, 4).join(', ') }}<template v-if="one.components.length > 4"> and {{ one.components.length - 4 }} more</template>
          </td>
          <td class="number">{{ Math.round(one.across * 100) }} %</td>
          <td class="number">{{ one.joins === null ? '–' : one.joins.toFixed(1) }}</td>
          <td>
            <RoleSelect :label="one.label" :model-value="roleOf(one)" @update:model-value="(role) => roles.set(one.name, role)" />
          </td>
          <td><v-btn variant="outlined" size="small" @click="emit('accept', one, roleOf(one))">Accept</v-btn></td>
        </tr>
      </tbody>
    </table>
    <p v-if="answer && answer.items.length" class="soft">
      Looked at stretches of the data. “In several”: share of the values that more than one component names. “Joins”: declared numbers of transactions
      that a value stands beside, in the mean.
    </p>
  </section>
</template>
<style scoped>
h2,
p {
  padding: 12px 20px 4px;
  margin: 0;
}
h2 span {
  font-weight: 400;
  margin-left: 12px;
}
td:first-child,
th:first-child {
  padding-left: 20px;
}
td.mono {
  overflow-wrap: anywhere;
  max-width: 260px;
  line-height: 18px;
}
</style>
