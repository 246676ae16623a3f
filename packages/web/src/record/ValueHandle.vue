<script setup lang="ts">
import { ref } from 'vue';
import DropPanel from '../frame/DropPanel.vue';
import ValueActions from './ValueActions.vue';

/** A value that can be taken in hand. */
defineProps<{
  field: string;
  value: string;
  /** It names something: the strands that it belongs to can be followed. */
  identifier?: boolean;
  /** It names a party. */
  party?: boolean;
}>();
const open = ref(false);
</script>
<template>
  <DropPanel v-model="open" :label="`${field}: what to do with this value`">
    <template #button>
      <span class="handle mono">{{ value }}</span>
    </template>
    <ValueActions :field="field" :value="value" :identifier="identifier" :party="party" @done="open = false" />
  </DropPanel>
</template>
<style scoped>
.handle {
  cursor: pointer;
  text-align: left;
  overflow-wrap: anywhere;
  text-decoration: underline;
  text-decoration-color: transparent;
  text-underline-offset: 3px;
  display: inline-block;
  line-height: 18px;
  padding: 3px 0;
}
.handle:hover {
  text-decoration-color: var(--indigo);
}
</style>
