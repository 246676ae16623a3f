<script setup lang="ts">
import { useSaid } from './use-share.ts';
const said = useSaid();
</script>
<template>
  <p class="note" role="status" aria-live="polite">
    <span v-if="said.text">{{ said.text }}</span>
  </p>
</template>
<style scoped>
.note {
  position: fixed;
  bottom: 34px;
  left: 50%;
  transform: translateX(-50%);
  margin: 0;
  z-index: 40;
  pointer-events: none;
}
.note span {
  background: var(--ink);
  color: var(--linen);
  padding: 6px 14px;
  border-radius: 3px;
}
</style>
