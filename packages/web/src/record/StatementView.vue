<script setup lang="ts">
import type { Listed } from '@fadenweg/core/structure';
import { computed, ref, watch } from 'vue';
import { useSaid } from '../share/use-share.ts';
import { statementWith } from './statement.ts';

/** A statement for a database: laid out, its parameters beside it or in it. */
const props = defineProps<{ statement: string; parameters: readonly Listed[] }>();
const said = useSaid();
const filled = ref(props.parameters.length > 0);
const laidOut = ref('');
const text = computed(() => (filled.value ? statementWith(props.statement, props.parameters) : props.statement));
watch(
  text,
  async (now) => {
    const { layOut } = await import('./lay-out-statement.ts');
    if (now === text.value) laidOut.value = layOut(now);
  },
  { immediate: true },
);
async function copy(): Promise<void> {
  await navigator.clipboard.writeText(laidOut.value || text.value);
  said.say('Copied the statement');
}
</script>
<template>
  <div class="statement" data-testid="statement">
    <p class="soft bar">
      <span>SQL</span>
      <button v-if="parameters.length > 0" type="button" class="link" :aria-pressed="filled" @click="filled = !filled">
        {{ filled ? 'as it was prepared' : 'with its parameters' }}
      </button>
      <button type="button" class="link" @click="copy">copy</button>
    </p>
    <pre class="mono" tabindex="0" aria-label="Statement">{{ laidOut || text }}</pre>
    <p v-if="parameters.length > 0" class="mono soft parameters">
      <span v-for="one in parameters" :key="one.name">{{ one.name }} = {{ one.value }}</span>
    </p>
  </div>
</template>
<style scoped>
.statement {
  margin: 6px 0;
}
.bar,
.parameters {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 12px;
  margin: 0 0 3px;
}
pre {
  white-space: pre-wrap;
  overflow-wrap: anywhere;
  background: var(--linen);
  border: 1px solid var(--seam);
  padding: 6px 8px;
  margin: 0;
  max-height: 360px;
  overflow: auto;
  line-height: 18px;
}
.parameters {
  margin: 3px 0 0;
}
</style>
