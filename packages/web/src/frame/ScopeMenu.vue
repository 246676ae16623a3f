<script setup lang="ts">
import { ref } from 'vue';
import DropPanel from './DropPanel.vue';
import { useScope } from '../time/scope.ts';
import { count } from '../time/format.ts';

const scope = useScope();
const open = ref(false);
function toggle(name: string): void {
  const now = scope.chosen.value;
  scope.set(now.includes(name) ? now.filter((one) => one !== name) : [...now, name]);
}
</script>
<template>
  <DropPanel v-if="scope.choices.value.length > 1" v-model="open" label="Environments">
    <template #button>
      <span class="scope"
        ><b>Environment</b><span class="soft cutting">{{ scope.chosen.value.join(', ') }}</span></span
      >
    </template>
    <fieldset>
      <legend class="soft">What is looked at</legend>
      <label v-for="one in scope.choices.value" :key="one.name">
        <input type="checkbox" :checked="scope.chosen.value.includes(one.name)" @change="toggle(one.name)" />
        {{ one.name }} <span v-if="one.demo" class="demo">made up</span> <span class="soft number">{{ count(one.records) }} records</span>
      </label>
    </fieldset>
  </DropPanel>
</template>
<style scoped>
.scope {
  display: flex;
  flex-direction: column;
  align-items: flex-start;
  border-left: 1px solid var(--strong-seam);
  padding: 0 14px;
  line-height: 16px;
  cursor: pointer;
  white-space: nowrap;
}
.scope span {
  font-size: 12px;
  max-width: 160px;
  overflow: hidden;
  text-overflow: ellipsis;
}
fieldset {
  border: 0;
  margin: 0;
  padding: 0;
  display: grid;
  gap: 6px;
}
legend {
  padding: 0 0 4px;
}
label {
  display: flex;
  gap: 8px;
  align-items: center;
}
.demo {
  color: var(--walnut);
}
.number {
  margin-left: auto;
  padding-left: 24px;
}
</style>
