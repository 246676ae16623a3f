<script setup lang="ts">
import type { ToldIn } from '@fadenweg/api';
import { count } from '../time/format.ts';

/** The same event as other sources tell it. */
defineProps<{ copies: readonly ToldIn[] }>();
</script>
<template>
  <section class="told" aria-label="Copies" data-testid="told-in">
    <h3>Also told in {{ copies.length === 1 ? 'another source' : `${count(copies.length)} other sources` }}</h3>
    <p class="soft">The same event. It counts once.</p>
    <details v-for="copy in copies" :key="copy.id">
      <summary>
        <span class="mono path">{{ copy.source.path }}</span>, line {{ copy.source.line }}
      </summary>
      <pre class="mono text" tabindex="0" :aria-label="`Original text in ${copy.source.path}`">{{ copy.raw.trimEnd() }}</pre>
      <p v-if="copy.rawCut" class="soft">The first 2 MB of the original text.</p>
      <p>
        <RouterLink :to="{ name: 'original', params: { id: copy.source.id }, query: { line: copy.source.line } }">the original file there</RouterLink>
      </p>
    </details>
  </section>
</template>
<style scoped>
.told {
  margin: 0 0 10px;
}
h3 {
  font-size: 13px;
  margin: 8px 0 0;
}
p {
  margin: 0 0 4px;
}
summary {
  cursor: pointer;
  line-height: 24px;
  overflow-wrap: anywhere;
}
.text {
  white-space: pre-wrap;
  overflow-wrap: anywhere;
  background: var(--linen);
  border: 1px solid var(--seam);
  padding: 6px 8px;
  margin: 0 0 4px;
  max-height: 200px;
  overflow: auto;
  line-height: 18px;
  font-size: 11.5px;
  unicode-bidi: plaintext;
}
</style>
