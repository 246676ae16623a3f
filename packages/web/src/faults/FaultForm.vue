<script setup lang="ts">
import type { FaultBody, FaultDetail } from '@fadenweg/api';
import { computed, ref, watch } from 'vue';
import { api } from '../api/client.ts';
import { useAttempt } from '../api/use-attempt.ts';

/** What is said of a fault: in hand, mended, tolerated, or new again. */
const props = defineProps<{ fault: FaultDetail }>();
const emit = defineEmits<{ said: [] }>();
const STATES: [FaultBody['state'], string][] = [['in-hand', 'in hand'], ['mended', 'mended'], ['tolerated', 'tolerated'], ['new', 'new again']]; // prettier-ignore
const state = ref<FaultBody['state']>('in-hand');
const owner = ref('');
const note = ref('');
const ticket = ref('');
const version = ref('');
const until = ref('');
watch(
  () => props.fault.id,
  () => {
    const last = props.fault.history[0];
    state.value = last && last.state !== 'new' ? last.state : 'in-hand';
    owner.value = last?.owner ?? '';
    ticket.value = last?.ticket ?? '';
    note.value = version.value = until.value = '';
  },
  { immediate: true },
);
const { attempt, refused, busy } = useAttempt();
const versions = computed(() => [...new Set(props.fault.versions.map((one) => one.version))]);
async function say(): Promise<void> {
  const body: FaultBody = {
    state: state.value,
    owner: owner.value,
    note: note.value,
    ticket: ticket.value,
    version: state.value === 'mended' ? version.value : '',
    until: state.value === 'tolerated' && until.value !== '' ? new Date(`${until.value}T23:59:59`).toISOString() : null,
  };
  if (await attempt(() => api.post('/faults/{id}/said', { params: { id: props.fault.id }, body }))) emit('said');
}
async function takeBack(): Promise<void> {
  if (await attempt(() => api.delete('/faults/{id}/said', { params: { id: props.fault.id } }))) emit('said');
}
</script>
<template>
  <form class="form" @submit.prevent="say">
    <div class="row" role="radiogroup" aria-label="What is said of it">
      <label v-for="[name, label] in STATES" :key="name"><input v-model="state" type="radio" :value="name" /> {{ label }}</label>
    </div>
    <label v-if="state === 'mended'"
      >In version; empty: since now<input v-model="version" class="input" list="fault-versions" maxlength="100" />
      <datalist id="fault-versions"><option v-for="one in versions" :key="one" :value="one"></option></datalist
    ></label>
    <label v-if="state === 'tolerated'">Until the end of; empty: for good<input v-model="until" type="date" class="input" /></label>
    <label v-if="state !== 'new'">By whom<input v-model="owner" class="input" maxlength="100" /></label>
    <label
      >{{ state === 'tolerated' ? 'Because' : 'Remark' }}<input v-model="note" class="input" maxlength="2000" :required="state === 'tolerated'"
    /></label>
    <label v-if="state !== 'new'">Ticket<input v-model="ticket" class="input" maxlength="200" /></label>
    <p v-if="refused" role="alert">{{ refused }}</p>
    <div class="row">
      <v-btn type="submit" variant="outlined" size="small" :disabled="busy">Say so</v-btn>
      <button v-if="fault.history.length > 0" type="button" class="link" :disabled="busy" @click="takeBack">take back the last</button>
    </div>
  </form>
</template>
<style scoped>
.form {
  display: grid;
  gap: 6px;
  padding: 4px 0 10px;
}
.row {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 4px 14px;
}
.input {
  display: block;
  width: 100%;
  box-sizing: border-box;
}
</style>
