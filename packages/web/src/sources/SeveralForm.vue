<script setup lang="ts">
import type { SourceChange, SourceInfo } from '@fadenweg/api';
import { FORMATS } from '@fadenweg/core/reading';
import { computed, reactive, ref } from 'vue';
import { api } from '../api/client.ts';
import { useAttempt } from '../api/use-attempt.ts';
import { count } from '../time/format.ts';

/** How several sources are read: what is left open stays as it is in each of them. */
const props = defineProps<{ sources: SourceInfo[] }>();
const emit = defineEmits<{ changed: []; close: [] }>();
const zones = Intl.supportedValuesOf('timeZone');
const values = reactive({ zone: '', format: '', timeLayout: '', component: '', host: '', environment: '' });
const said = ref('');
const { attempt, refused, busy } = useAttempt();
/** What all of them have in common is shown where nothing is given. */
const common = (of: (source: SourceInfo) => string): string => {
  const all = new Set(props.sources.map(of));
  return all.size === 1 ? [...all][0]! : `${all.size} different ones`;
};
const now = computed(() => ({
  zone: common((one) => (one.zoneBy === 'stated' ? 'as written' : one.zone)),
  component: common((one) => one.component),
  host: common((one) => one.host || '–'),
  environment: common((one) => one.environment),
  format: common((one) => one.format),
}));
function save(): void {
  const change = Object.fromEntries(
    Object.entries(values).flatMap(([name, value]) => (value.trim() === '' ? [] : [[name, value.trim()]])),
  ) as SourceChange;
  said.value = '';
  if (Object.keys(change).length === 0) said.value = 'Nothing was changed.';
  else
    void attempt(async () => {
      await api.put('/sources', { body: { ids: props.sources.map((one) => one.id), ...change } });
      said.value = `Saved. ${count(props.sources.length)} sources are read again from their kept bytes.`;
      emit('changed');
    });
}
</script>
<template>
  <aside class="form" aria-label="How these sources are read">
    <h2>How {{ count(sources.length) }} sources are read</h2>
    <p class="soft">What is left open stays as it is in each of them.</p>
    <form @submit.prevent="save">
      <label>Zone <input v-model="values.zone" class="input" list="zones-of-several" :placeholder="now.zone" maxlength="60" /></label
      ><datalist id="zones-of-several"><option v-for="zone in zones" :key="zone" :value="zone" /></datalist>
      <label
        >Format
        <select v-model="values.format" class="input">
          <option value="">{{ now.format }}</option>
          <option v-for="format in FORMATS" :key="format" :value="format">{{ format }}</option>
        </select></label
      >
      <label>Times <input v-model="values.timeLayout" class="input mono" placeholder="as they are read now" maxlength="80" /></label>
      <label>Component <input v-model="values.component" class="input" :placeholder="now.component" maxlength="60" /></label
      ><label>Host <input v-model="values.host" class="input" :placeholder="now.host" maxlength="80" /></label
      ><label>Environment <input v-model="values.environment" class="input" :placeholder="now.environment" maxlength="60" /></label>
      <p v-if="refused" class="bad" role="alert">{{ refused }}</p>
      <p v-if="said" role="status">{{ said }}</p>
      <div class="buttons">
        <v-btn type="submit" color="primary" :disabled="busy">Save</v-btn><v-btn variant="text" @click="emit('close')">Close</v-btn>
      </div>
    </form>
  </aside>
</template>
<style scoped src="./form.css"></style>
