<script setup lang="ts">
import type { RoundsFlow } from '@fadenweg/api';
import { computed } from 'vue';
import { api } from '../api/client.ts';
import { useAttempt } from '../api/use-attempt.ts';

/** Which flows stand together in the cloth, under which name. */
const props = defineProps<{ flows: readonly RoundsFlow[] }>();
const emit = defineEmits<{ changed: [] }>();
const names = computed(() => [...new Set(props.flows.map((one) => one.group))].filter((one) => one !== '').sort());
const sorted = computed(() => [...props.flows].sort((a, b) => a.label.localeCompare(b.label)));
const { refused, attempt } = useAttempt();
async function put({ flow }: RoundsFlow, field: HTMLInputElement): Promise<void> {
  if (await attempt(() => api.put('/rounds/groups', { body: { flow, group: field.value.trim() } }))) emit('changed');
}
</script>
<template>
  <section class="groups" aria-labelledby="groups-title">
    <h2 id="groups-title">Groups of flows</h2>
    <p class="soft">Flows of one group stand beside each other, and fold into one column by a click on its name. An empty name takes a flow out.</p>
    <p v-if="refused" role="alert">{{ refused }}</p>
    <datalist id="group-names"><option v-for="name in names" :key="name" :value="name"></option></datalist>
    <ul>
      <li v-for="one in sorted" :key="one.flow">
        <label
          ><span>{{ one.label }}</span
          ><input
            class="input"
            :value="one.group"
            list="group-names"
            maxlength="40"
            pattern="[^,]*"
            placeholder="no group"
            @change="(event) => put(one, event.target as HTMLInputElement)"
        /></label>
      </li>
    </ul>
  </section>
</template>
<style scoped>
.groups {
  margin: 0 16px 8px;
  padding: 8px 12px;
  background: var(--paper);
  border: 1px solid var(--seam);
  max-height: 260px;
  overflow: auto;
}
p {
  margin: 0 0 6px;
}
ul {
  list-style: none;
  margin: 0;
  padding: 0;
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(330px, 1fr));
  gap: 4px 18px;
}
label {
  display: flex;
  align-items: center;
  justify-content: space-between;
  gap: 10px;
}
.input {
  width: 150px;
}
</style>
