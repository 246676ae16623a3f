<script setup lang="ts">
import type { IdentifierKind, Page } from '@fadenweg/api';
import { reactive, ref } from 'vue';
import { api, ApiError } from '../api/client.ts';
import { useRequest } from '../api/use-request.ts';
import ProblemNote from '../frame/ProblemNote.vue';
const emit = defineEmits<{ changed: [] }>();
const { answer, problem, again } = useRequest([], () => api.get<Page<IdentifierKind>>('/identifier-kinds'));
const ROLES = { business: 'names one transaction', link: 'ties records', shared: 'shared by many' } as const;
const values = reactive({ label: '', role: 'business' as IdentifierKind['role'], pattern: '', fields: '' });
const bad = ref('');
const said = ref('');
async function add(): Promise<void> {
  bad.value = said.value = '';
  const name = values.label
    .trim()
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^-|-$/g, '');
  try {
    const kind = {
      name,
      label: values.label.trim(),
      role: values.role,
      patterns: values.pattern.trim() === '' ? [] : [values.pattern.trim()],
      fields: values.fields
        .split(',')
        .map((field) => field.trim())
        .filter(Boolean),
    };
    const { sourcesReadAgain } = await api.post<{ sourcesReadAgain: number }>('/identifier-kinds', kind);
    said.value = `“${kind.label}” is declared. ${sourcesReadAgain} ${sourcesReadAgain === 1 ? 'source is' : 'sources are'} read again in the background.`;
    Object.assign(values, { label: '', pattern: '', fields: '' });
    void again();
    emit('changed');
  } catch (error) {
    bad.value = error instanceof ApiError ? `${error.problem.detail} ${error.problem.action ?? ''}` : (error as Error).message;
  }
}
</script>
<template>
  <div class="kinds">
    <ProblemNote v-if="problem" :problem="problem" @again="again" />
    <table v-else-if="answer" class="plain-table">
      <thead>
        <tr>
          <th>Identifier</th>
          <th>Role</th>
          <th>Pattern</th>
          <th>Fields</th>
          <th>Used again</th>
          <th>From</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="kind in answer.items" :key="kind.name">
          <td>{{ kind.label }}</td>
          <td>{{ ROLES[kind.role] }}</td>
          <td class="mono">{{ kind.patterns.join('  ') }}</td>
          <td class="mono">{{ kind.fields.join(', ') }}</td>
          <td>{{ kind.leaseMs === null ? 'never' : `after ${kind.leaseMs / 60000} min` }}</td>
          <td class="soft">{{ kind.supplied ? 'supplied' : 'declared' }}</td>
        </tr>
      </tbody>
    </table>
    <form class="add" @submit.prevent="add">
      <h2>Declare your own</h2>
      <p class="soft">What does the number look like by which people ask? Give an example’s pattern, or the name of the field that holds it.</p>
      <label>Name <input v-model="values.label" required maxlength="40" placeholder="booking" /></label>
      <label
        >Role
        <select v-model="values.role">
          <option v-for="(words, role) in ROLES" :key="role" :value="role">{{ role }}: {{ words }}</option>
        </select></label
      >
      <label>Pattern <input v-model="values.pattern" class="mono" maxlength="300" placeholder="BK-\d{6}" /></label
      ><label>Fields <input v-model="values.fields" class="mono" maxlength="300" placeholder="bookingId, booking" /></label>
      <p v-if="bad" class="bad" role="alert">{{ bad }}</p>
      <p v-if="said" role="status">{{ said }}</p>
      <v-btn type="submit" color="primary" class="button">Declare</v-btn>
    </form>
  </div>
</template>
<style scoped>
.kinds {
  padding-bottom: 24px;
}
td:first-child,
th:first-child {
  padding-left: 20px;
}
td.mono {
  overflow-wrap: anywhere;
  max-width: 380px;
  line-height: 18px;
}
.add {
  margin: 18px 20px;
  padding: 12px 16px;
  border: 1px solid var(--seam);
  background: var(--paper);
  border-radius: 3px;
  display: grid;
  gap: 8px;
  max-width: 560px;
}
label {
  display: grid;
  grid-template-columns: 80px 1fr;
  align-items: center;
}
input,
select {
  font: inherit;
  color: var(--ink);
  background: var(--linen);
  border: 1px solid var(--strong-seam);
  border-radius: 3px;
  padding: 3px 6px;
}
input.mono {
  font-family: 'JetBrains Mono', monospace;
  font-size: 12.5px;
}
p {
  margin: 0;
}
.bad {
  color: var(--madder);
}
.button {
  justify-self: start;
}
</style>
