<script setup lang="ts">
import type { SourceInfo } from '@fadenweg/api';
import { FORMATS } from '@fadenweg/core';
import { reactive, ref } from 'vue';
import { api, ApiError } from '../api/client.ts';
const props = defineProps<{ source: SourceInfo }>();
const emit = defineEmits<{ changed: []; close: [] }>();
const zones = Intl.supportedValuesOf('timeZone');
const values = reactive({
  format: props.source.format,
  zone: props.source.zone,
  component: props.source.component,
  host: props.source.host,
  environment: props.source.environment,
});
const problem = ref('');
const said = ref('');
async function save(): Promise<void> {
  problem.value = said.value = '';
  const change = Object.fromEntries(Object.entries(values).filter(([name, value]) => value !== props.source[name as keyof typeof values]));
  if (Object.keys(change).length === 0) {
    said.value = 'Nothing was changed.';
    return;
  }
  try {
    await api.put(`/sources/${props.source.id}`, change);
    said.value = 'Saved. The source is read again from its kept bytes.';
    emit('changed');
  } catch (error) {
    problem.value = error instanceof ApiError ? `${error.problem.detail} ${error.problem.action ?? ''}` : (error as Error).message;
  }
}
</script>
<template>
  <aside class="form" aria-label="How this source is read">
    <h2>How it is read</h2>
    <p class="mono soft path">{{ source.path }}</p>
    <form @submit.prevent="save">
      <label>Zone <input v-model="values.zone" list="zones" /></label
      ><datalist id="zones"><option v-for="zone in zones" :key="zone" :value="zone" /></datalist>
      <label
        >Format
        <select v-model="values.format">
          <option v-for="format in FORMATS" :key="format">{{ format }}</option>
        </select></label
      >
      <label>Component <input v-model="values.component" maxlength="60" /></label><label>Host <input v-model="values.host" maxlength="80" /></label
      ><label>Environment <input v-model="values.environment" maxlength="60" /></label>
      <p v-if="problem" class="bad" role="alert">{{ problem }}</p>
      <p v-if="said" role="status">{{ said }}</p>
      <div class="buttons"><v-btn type="submit" color="primary">Save</v-btn><v-btn variant="text" @click="emit('close')">Close</v-btn></div>
    </form>
  </aside>
</template>
<style scoped>
.form {
  width: 320px;
  flex: none;
  background: var(--paper);
  border-left: 1px solid var(--seam);
  padding: 14px 18px;
}
.path {
  overflow-wrap: anywhere;
  margin: 2px 0 10px;
}
form {
  display: grid;
  gap: 8px;
}
label {
  display: grid;
  grid-template-columns: 96px 1fr;
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
  min-width: 0;
}
.bad {
  color: var(--madder);
}
p {
  margin: 0;
}
.buttons {
  display: flex;
  gap: 8px;
}
</style>
