<script setup lang="ts">
import type { IdentifierKind, KindEvidence } from '@fadenweg/api';
import { reactive } from 'vue';
import { count } from '../time/format.ts';
import RoleSelect from './RoleSelect.vue';

/** Links that nobody declared but the data show: they tie already, until somebody confirms them, gives them another role or takes them away. */
type Discovered = IdentifierKind & { discovered: KindEvidence };
defineProps<{ kinds: readonly Discovered[] }>();
const emit = defineEmits<{ confirm: [kind: IdentifierKind]; remove: [kind: IdentifierKind] }>();
const roles = reactive(new Map<string, IdentifierKind['role']>());
const roleOf = (kind: Discovered): IdentifierKind['role'] => roles.get(kind.name) ?? kind.role;
</script>
<template>
  <section aria-labelledby="discovered">
    <h2 id="discovered">Discovered in the data</h2>
    <p class="soft">
      Nobody declared these, but their values stand beside one transaction each and bring in records that name nothing else. They tie already.
    </p>
    <table class="plain-table">
      <thead>
        <tr>
          <th>Identifier</th>
          <th>Found by</th>
          <th>For example</th>
          <th class="number">Values</th>
          <th class="number">Records each</th>
          <th class="number">Beside one alone</th>
          <th class="number">Bring in more</th>
          <th>Role</th>
          <th>Action</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="kind in kinds" :key="kind.name">
          <td>
            {{ kind.label }}<span v-if="kind.environments" class="soft"> in {{ kind.environments.join(', ') }}</span>
          </td>
          <td class="mono">{{ kind.patterns.length ? kind.patterns.join(' ') : `field ${kind.fields.join(', ')}` }}</td>
          <td class="mono">{{ kind.discovered.examples.slice(0, 2).join('  ') }}</td>
          <td class="number">{{ count(kind.discovered.values) }}</td>
          <td class="number">{{ kind.discovered.recordsPerValue.toFixed(1) }}</td>
          <td class="number">{{ (Math.floor(kind.discovered.single * 1000) / 10).toFixed(1) }} %</td>
          <td class="number">{{ count(kind.discovered.free) }}</td>
          <td>
            <RoleSelect :label="kind.label" :model-value="roleOf(kind)" @update:model-value="(role) => roles.set(kind.name, role)" />
          </td>
          <td class="acts">
            <v-btn variant="outlined" size="small" @click="emit('confirm', { ...kind, role: roleOf(kind) })">Confirm</v-btn>
            <button type="button" class="link" @click="emit('remove', kind)">Take away</button>
          </td>
        </tr>
      </tbody>
    </table>
  </section>
</template>
<style scoped>
section {
  padding: 12px 20px 0;
}
h2,
p {
  margin: 0 0 6px;
}
.acts {
  white-space: nowrap;
}
.acts .link {
  margin-left: 10px;
}
</style>
