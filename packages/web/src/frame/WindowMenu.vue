<script setup lang="ts">
import { computed, ref, watch } from 'vue';
import DropPanel from './DropPanel.vue';
import { useCommands } from '../keys/commands.ts';
import { clock, day, sameDay, ZONE } from '../time/format.ts';
import { PRESETS, useWindow } from '../time/window.ts';

const view = useWindow();
const open = ref(false);
const from = ref('');
const to = ref('');
const problem = ref('');
const label = computed(() => PRESETS.find((preset) => preset.name === view.text.value)?.label ?? 'Window');
const exact = computed(() => {
  const bounds = view.bounds.value;
  if (!bounds.from || !bounds.to) return '';
  const end = sameDay(bounds.from, bounds.to) ? clock(bounds.to, 0) : `${day(bounds.to)} ${clock(bounds.to, 0)}`;
  return `${day(bounds.from)} ${clock(bounds.from, 0)} – ${end}`;
});
watch(open, (now) => now && fill());
function fill(): void {
  const bounds = view.bounds.value;
  from.value = bounds.from ? `${day(bounds.from)}T${clock(bounds.from, 0)}` : '';
  to.value = bounds.to ? `${day(bounds.to)}T${clock(bounds.to, 0)}` : '';
  problem.value = '';
}
function choose(name: string): void {
  view.set(name);
  open.value = false;
}
function apply(): void {
  const begin = new Date(from.value);
  const end = new Date(to.value);
  if (Number.isNaN(begin.getTime()) || Number.isNaN(end.getTime())) problem.value = 'Give both times.';
  else if (end <= begin) problem.value = 'The end has to be after the begin.';
  else choose(`${begin.toISOString()}~${end.toISOString()}`);
}
useCommands('', [{ name: 'set the time window', keys: ['w'], run: () => (open.value = true) }]);
</script>
<template>
  <DropPanel v-model="open" label="Time window">
    <template #button>
      <span class="window"
        ><b>{{ label }}</b
        ><span v-if="exact" class="soft">{{ exact }}</span></span
      >
    </template>
    <div class="panel">
      <div class="presets">
        <button
          v-for="preset in PRESETS"
          :key="preset.name"
          type="button"
          :class="{ on: view.text.value === preset.name }"
          @click="choose(preset.name)"
        >
          {{ preset.label }}
        </button>
      </div>
      <form @submit.prevent="apply">
        <label>From <input v-model="from" type="datetime-local" step="1" /></label>
        <label>To <input v-model="to" type="datetime-local" step="1" /></label>
        <p class="soft">Times of {{ ZONE }}. Presets reach back from the end of the evidence.</p>
        <p v-if="problem" class="bad" role="alert">{{ problem }}</p>
        <v-btn type="submit" color="primary">Set window</v-btn>
      </form>
    </div>
  </DropPanel>
</template>
<style scoped>
.window {
  display: flex;
  flex-direction: column;
  align-items: flex-start;
  justify-content: center;
  background: none;
  border: 0;
  border-left: 1px solid var(--strong-seam);
  padding: 0 14px;
  color: var(--ink);
  font: inherit;
  line-height: 16px;
  cursor: pointer;
  white-space: nowrap;
}
.window span {
  font-size: 12px;
  font-variant-numeric: tabular-nums;
}
.panel {
  display: flex;
  gap: 16px;
}
.presets {
  display: flex;
  flex-direction: column;
  gap: 2px;
  border-right: 1px solid var(--seam);
  padding-right: 12px;
}
.presets button {
  text-align: left;
  background: none;
  border: 0;
  padding: 4px 10px;
  font: inherit;
  color: inherit;
  cursor: pointer;
  border-radius: 3px;
}
.presets button.on,
.presets button:hover {
  background: var(--indigo-wash);
  color: var(--indigo);
}
form {
  display: flex;
  flex-direction: column;
  gap: 8px;
  width: 250px;
}
label {
  display: grid;
  grid-template-columns: 46px 1fr;
  align-items: center;
}
input {
  background: var(--linen);
  color: var(--ink);
  border: 1px solid var(--strong-seam);
  border-radius: 3px;
  padding: 4px 6px;
  font: inherit;
}
p {
  margin: 0;
  font-size: 12px;
  line-height: 16px;
}
.bad {
  color: var(--madder);
}
</style>
