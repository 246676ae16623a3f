<script setup lang="ts">
import type { LevelName } from '@fadenweg/api';
import { computed } from 'vue';
const props = defineProps<{ level: LevelName }>();
const path = computed(() => {
  switch (props.level) {
    case 'fatal':
    case 'error':
      return 'M3 4 C6 5 8 9 11 10 M3 10 C6 9 8 5 11 4';
    case 'warning':
      return 'M7 3 L12 11.5 H2 Z';
    default:
      return '';
  }
});
const tone = computed(() => (props.level === 'warning' ? 'var(--weld)' : 'var(--madder)'));
</script>
<template>
  <svg v-if="path" width="14" height="14" viewBox="0 0 14 14" role="img" :aria-label="level" class="glyph">
    <path :d="path" fill="none" :stroke="tone" stroke-width="1.8" stroke-linecap="round" stroke-linejoin="round" />
  </svg>
</template>
<style scoped>
.glyph {
  flex: none;
  vertical-align: -2px;
}
</style>
