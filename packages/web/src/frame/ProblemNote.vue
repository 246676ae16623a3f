<script setup lang="ts">
import type { Problem } from '@fadenweg/api';
defineProps<{ problem: Problem }>();
defineEmits<{ again: [] }>();
</script>
<template>
  <div class="problem" role="alert">
    <h2>{{ problem.title }}</h2>
    <p>
      {{ problem.detail }}<template v-if="problem.action"> {{ problem.action }}</template>
    </p>
    <button type="button" class="link" @click="$emit('again')">Try again</button>
  </div>
</template>
<style scoped>
.problem {
  margin: 24px;
  padding: 12px 16px;
  border-left: 3px solid var(--madder);
  background: var(--madder-wash);
  max-width: 640px;
}
.problem p {
  margin: 4px 0 8px;
  overflow-wrap: anywhere;
}
</style>
