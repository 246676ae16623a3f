<script setup lang="ts">
import type { SearchProblem } from '@fadenweg/core/search';
import { computed } from 'vue';

/** What is wrong with a search, at its place, and what would do. */
const props = defineProps<{ text: string; problem: SearchProblem }>();
const emit = defineEmits<{ propose: [] }>();
const end = computed(() => Math.max(props.problem.to, props.problem.from + 1));
</script>
<template>
  <p class="bad wrong" role="alert">
    <span class="mono"
      >{{ text.slice(0, problem.from) }}<mark>{{ text.slice(problem.from, end) || ' ' }}</mark
      >{{ text.slice(end) }}</span
    ><br />
    Character {{ problem.from + 1 }}: {{ problem.message }}.
    <button v-if="problem.proposal" type="button" class="link" @click="emit('propose')">
      Use <span class="mono">{{ problem.proposal }}</span>
    </button>
  </p>
</template>
<style scoped>
.wrong {
  margin: 0;
  padding: 8px 16px;
  background: var(--paper);
  border-bottom: 1px solid var(--seam);
}
mark {
  background: var(--madder-wash);
  color: inherit;
  text-decoration: underline wavy var(--madder);
}
</style>
