<script setup lang="ts">
import type { BestKinds, Flow, IdentifierKind, KindSuggestion } from '@fadenweg/api';
import { computed, reactive, ref } from 'vue';
import { api } from '../api/client.ts';
import { useAttempt } from '../api/use-attempt.ts';
import { useRequest } from '../api/use-request.ts';
import ProblemNote from '../frame/ProblemNote.vue';
import { count } from '../time/format.ts';
import KindsDiscovered from './KindsDiscovered.vue';
import KindSuggestions from './KindSuggestions.vue';
import { ROLES } from './roles.ts';

const emit = defineEmits<{ changed: [] }>();
const { answer, problem, again } = useRequest([], () => api.get('/identifier-kinds'));
const flows = useRequest([], () => api.get('/flows'));
/** It names transactions, and nobody has declared what they are: they are judged by themselves, by nothing usual. */
const unfollowedKind = (kind: IdentifierKind): boolean =>
  kind.role === 'business' && flows.answer.value !== null && !flows.answer.value.items.some((flow) => flow.kind === kind.name);
const values = reactive({ label: '', role: 'business' as IdentifierKind['role'], pattern: '', fields: '' });
const said = ref('');
const suggestions = ref<InstanceType<typeof KindSuggestions> | null>(null);

type Declared = Pick<IdentifierKind, 'name' | 'label' | 'role' | 'patterns' | 'fields'>;
const readAgain = (count: number): string =>
  count === 0 ? 'Nothing has to be read again.' : `${count} ${count === 1 ? 'file is' : 'files are'} read again in the background.`;

const { attempt: change, refused: bad } = useAttempt();
const attempt = (act: () => Promise<string>): Promise<boolean> =>
  change(async () => {
    said.value = '';
    said.value = await act();
    void again();
    void flows.again();
    emit('changed');
  });
const declare = (kind: Declared): Promise<boolean> =>
  attempt(async () => {
    const { sourcesReadAgain } = await api.post('/identifier-kinds', { body: kind });
    const judged = kind.role === 'business' && (await followed(kind)) ? ' What is usual for it is learned once 30 have gone well.' : '';
    return `“${kind.label}” is declared. ${readAgain(sourcesReadAgain)}${judged}`;
  });
const flowsOf = async (kind: string): Promise<Flow[]> => (await api.get('/flows')).items.filter((flow) => flow.kind === kind);
/** What it names is a flow of its own, so that it is compared with what is usual, unless somebody has declared otherwise. */
async function followed({ name, label }: Declared): Promise<boolean> {
  if ((await flowsOf(name)).length > 0) return false;
  await api.put('/flows/{name}', { params: { name }, body: { name, label, kind: name, prefix: '', patienceMs: null, expects: [] } });
  return true;
}
/** Its flow goes with it, unless somebody has declared expectations. */
async function unfollowed(kind: IdentifierKind): Promise<void> {
  for (const { name, prefix, patienceMs, expects, must = [], path = [], longestMs = null } of await flowsOf(kind.name)) {
    const plain = prefix === '' && patienceMs === null && longestMs === null && [...expects, ...must, ...path].length === 0;
    if (plain) await api.delete('/flows/{name}', { params: { name } });
  }
}
const discovered = computed(() =>
  (answer.value?.items ?? []).flatMap((kind) => (kind.discovered && !kind.guarded ? [{ ...kind, discovered: kind.discovered }] : [])),
);
/** What the guard has changed stands first: somebody should know. */
const declared = computed(() =>
  (answer.value?.items ?? []).filter((kind) => !kind.discovered || kind.guarded).sort((a, b) => Number(!!b.guarded) - Number(!!a.guarded)),
);
const confirm = (kind: IdentifierKind): Promise<boolean> =>
  attempt(async () => {
    const { sourcesReadAgain } = await api.put('/identifier-kinds/{name}', { params: { name: kind.name }, body: kind });
    return `“${kind.label}” is confirmed. ${readAgain(sourcesReadAgain)}`;
  });
const compare = (kind: IdentifierKind): Promise<boolean> =>
  attempt(async () => {
    await followed(kind);
    return `Strands of “${kind.label}” are compared with what is usual, once 30 have gone well.`;
  });
const setOnce = (kind: IdentifierKind, once: boolean): Promise<boolean> =>
  attempt(async () => {
    await api.put('/identifier-kinds/{name}', { params: { name: kind.name }, body: { ...kind, once } });
    return once ? `A second strand with one “${kind.label}” is doubled.` : `Strands may have a “${kind.label}” in common.`;
  });
const letTie = (kind: IdentifierKind): Promise<boolean> =>
  attempt(async () => {
    const { sourcesReadAgain } = await api.put('/identifier-kinds/{name}', { params: { name: kind.name }, body: { ...kind, role: 'link' } });
    return `“${kind.label}” ties again. ${readAgain(sourcesReadAgain)}`;
  });
const remove = (kind: IdentifierKind): Promise<boolean> =>
  attempt(async () => {
    const { sourcesReadAgain } = await api.delete('/identifier-kinds/{name}', { params: { name: kind.name } });
    await unfollowed(kind);
    return `“${kind.label}” is no identifier any more. ${readAgain(sourcesReadAgain)}`;
  });
async function add(): Promise<void> {
  const label = values.label.trim();
  const name = label
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, '-')
    .replace(/^-|-$/g, '');
  const fields = values.fields.split(',').map((field) => field.trim()).filter(Boolean); // prettier-ignore
  const done = await declare({ name, label, role: values.role, patterns: values.pattern.trim() === '' ? [] : [values.pattern.trim()], fields });
  if (done) Object.assign(values, { label: '', pattern: '', fields: '' });
}
async function accept(one: KindSuggestion, role: IdentifierKind['role']): Promise<void> {
  const { name, label, patterns, fields } = one;
  if (await declare({ name, label, role, patterns, fields })) suggestions.value?.again();
}
/** The whole set at once, each kind of what people ask by with its flow. */
async function acceptBest({ kinds }: BestKinds): Promise<void> {
  const done = await attempt(async () => {
    let again = 0;
    for (const kind of kinds) {
      const { sourcesReadAgain } = await api.post('/identifier-kinds', { body: kind });
      again = Math.max(again, sourcesReadAgain);
      if (kind.role === 'business') await followed(kind);
    }
    return `${kinds.map((kind) => `“${kind.label}”`).join(', ')} ${kinds.length === 1 ? 'is' : 'are'} declared. ${readAgain(again)} What is usual is learned once 30 have gone well.`;
  });
  if (done) suggestions.value?.again();
}
</script>
<template>
  <div class="kinds">
    <p v-if="bad" class="bad said" role="alert">{{ bad }}</p>
    <p v-if="said" class="said" role="status">{{ said }}</p>
    <KindsDiscovered v-if="discovered.length > 0" :kinds="discovered" @confirm="confirm" @remove="remove" />
    <KindSuggestions ref="suggestions" @accept="accept" @accept-best="acceptBest" />
    <ProblemNote v-if="problem" :problem="problem" @again="again" />
    <table v-else-if="answer" class="plain-table">
      <caption>
        Declared identifiers
      </caption>
      <thead>
        <tr>
          <th>Identifier</th>
          <th>Role</th>
          <th>Pattern</th>
          <th>Fields</th>
          <th>Used again</th>
          <th>From</th>
          <th>Action</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="kind in declared" :key="kind.name">
          <td>{{ kind.label }}</td>
          <td>
            {{ ROLES[kind.role] }}
            <p v-if="kind.guarded" class="guard">
              It was to tie, but {{ count(kind.guarded.joining) }} of {{ count(kind.guarded.values) }} values stand beside several transactions,
              <span class="mono">{{ kind.guarded.worst }}</span> beside {{ count(kind.guarded.worstCount) }}. So it ties no more.
              <button type="button" class="link" @click="letTie(kind)">Let it tie all the same</button>
            </p>
            <p v-else-if="kind.role === 'shared' && !kind.supplied" class="soft guard">
              {{ kind.once ? 'A second strand with one value is doubled.' : '' }}
              <button type="button" class="link" @click="setOnce(kind, !kind.once)">
                {{ kind.once ? 'Many may have it' : 'Each value once: a second strand is doubled' }}
              </button>
            </p>
            <p v-else-if="unfollowedKind(kind)" class="soft guard">
              Its strands are compared with nothing usual.
              <button type="button" class="link" @click="compare(kind)">Compare them</button>
            </p>
            <p v-else-if="kind.trusted" class="soft guard">Ties although it joins several transactions: somebody wanted it so.</p>
          </td>
          <td class="mono">{{ kind.patterns.join('  ') }}</td>
          <td class="mono">{{ kind.fields.join(', ') }}</td>
          <td>{{ kind.leaseMs === null ? 'never' : `after ${kind.leaseMs / 60000} min` }}</td>
          <td class="soft">{{ kind.supplied ? 'supplied' : 'declared' }}</td>
          <td><button v-if="!kind.supplied" type="button" class="link" @click="remove(kind)">Take away</button></td>
        </tr>
      </tbody>
    </table>
    <form class="add" @submit.prevent="add">
      <h2>Declare your own</h2>
      <p class="soft">What does the number look like by which people ask? Give an example’s pattern, or the name of the field that holds it.</p>
      <label>Name <input v-model="values.label" class="input" required maxlength="40" placeholder="booking" /></label>
      <label
        >Role
        <select v-model="values.role" class="input">
          <option v-for="(words, role) in ROLES" :key="role" :value="role">{{ role }}: {{ words }}</option>
        </select></label
      >
      <label>Pattern <input v-model="values.pattern" class="input mono" maxlength="300" placeholder="BK-\d{6}" /></label
      ><label>Fields <input v-model="values.fields" class="input mono" maxlength="300" placeholder="bookingId, booking" /></label>
      <v-btn type="submit" color="primary" class="button">Declare</v-btn>
    </form>
  </div>
</template>
<style scoped>
.kinds {
  padding-bottom: 24px;
}
caption {
  text-align: left;
  font-weight: 700;
  padding: 14px 20px 2px;
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
p {
  margin: 0;
}

.guard {
  max-width: 360px;
  line-height: 18px;
  padding: 2px 0 4px;
}
.said {
  padding: 10px 20px 0;
}
.button {
  justify-self: start;
}
</style>
