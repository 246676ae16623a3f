<script setup lang="ts">
import { computed } from 'vue';
import { api } from '../api/client.ts';
import { useAttempt } from '../api/use-attempt.ts';
import { useSummary } from '../stores/summary.ts';

const emit = defineEmits<{ changed: [] }>();
const store = useSummary();
const { attempt: change, busy, refused: problem } = useAttempt(() => emit('changed'));
const shown = computed(() => store.summary?.demo || store.summary?.demoAtHand);
</script>
<template>
  <p v-if="shown" class="demo">
    <template v-if="store.summary?.demo">
      <span class="tag">demo</span> Made-up data of a lens laboratory are loaded, as an environment of their own.
      <button type="button" class="link" :disabled="busy" @click="change(() => api.delete('/demo'))">Remove them</button>
    </template>
    <template v-else>
      Nothing at hand to try with?
      <button type="button" class="link" :disabled="busy" @click="change(() => api.post('/demo'))">Load made-up data</button> of a lens laboratory;
      they never mix with yours and go away with one click.
    </template>
    <span v-if="busy" role="status" class="soft"> a moment…</span>
    <span v-if="problem" class="bad" role="alert"> {{ problem }}</span>
  </p>
</template>
<style scoped>
.demo {
  margin: 0 20px 6px;
  color: var(--soft-ink);
}
</style>
