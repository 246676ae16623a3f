<script setup lang="ts">
import type { Outcome } from '@fadenweg/api';
import { OUTCOME_PATHS, OUTCOME_WORDS } from './outcomes.ts';
defineProps<{ outcome: Outcome; size?: number; silent?: boolean }>();
</script>
<template>
  <svg
    :width="size ?? 18"
    :height="size ?? 18"
    viewBox="0 0 18 18"
    :class="`outcome-${outcome}`"
    class="glyph"
    :role="silent ? undefined : 'img'"
    :aria-hidden="silent ? 'true' : undefined"
    :aria-label="silent ? undefined : OUTCOME_WORDS[outcome]"
  >
    <path :d="OUTCOME_PATHS[outcome]" fill="none" stroke="currentColor" stroke-width="2" stroke-linecap="round" stroke-linejoin="round" />
  </svg>
</template>
<style scoped>
.glyph {
  flex: none;
  display: inline-block;
  vertical-align: -4px;
}
</style>
