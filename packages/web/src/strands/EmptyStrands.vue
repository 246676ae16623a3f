<script setup lang="ts">
import { useSummary } from '../stores/summary.ts';
import { count } from '../time/format.ts';

/** What to do where nothing is loaded, or nothing in what is loaded names a transaction. */
const store = useSummary();
</script>
<template>
  <div v-if="store.empty" class="empty">
    <h1>Nothing is loaded yet</h1>
    <p>
      Bring in the logs of your systems: drop files or a whole folder on <RouterLink to="/sources">Sources</RouterLink>, or run
      <code class="mono">bin/fadenweg import PATH</code>.
    </p>
  </div>
  <div v-else class="empty">
    <h1>No strand yet</h1>
    <p>
      A strand is what belongs to one order, call or job run. None of the {{ count(store.summary?.records ?? 0) }} records names one by an identifier
      that is declared.
    </p>
    <p>
      <RouterLink to="/sources?tab=identifiers">Say how your transactions are named</RouterLink>: what looks like it in these records is suggested
      there, with one click to accept it. Until then <RouterLink to="/find">Find</RouterLink> searches all records.
    </p>
  </div>
</template>
<style scoped>
.empty {
  padding: 48px;
  max-width: 620px;
}
.empty p {
  margin-top: 8px;
}
</style>
