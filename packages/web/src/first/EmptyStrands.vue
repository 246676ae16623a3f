<script setup lang="ts">
import DemoPart from '../sources/DemoPart.vue';
import { useSummary } from '../stores/summary.ts';
import { count } from '../time/format.ts';

/** What to do where nothing is loaded, or nothing in what is loaded names a transaction. */
const store = useSummary();
</script>
<template>
  <div v-if="store.empty" class="empty">
    <h1>Nothing is loaded yet</h1>
    <p>Three things lead from here to the first failed transaction; each takes a minute.</p>
    <ol class="things">
      <li>
        <h2>Bring in logs</h2>
        <p>
          Drop files, a folder or an archive on <RouterLink to="/sources">Sources</RouterLink>, have growing files
          <RouterLink to="/sources?tab=followed">followed</RouterLink>, or run <code class="mono">bin/fadenweg import PATH</code>. Logs of all systems
          that a transaction passes belong together; layouts, times and zones are read by themselves.
        </p>
      </li>
      <li>
        <h2>See how transactions are named</h2>
        <p>
          Order numbers, calls and job runs are found in what was read. What is not sure is asked under
          <RouterLink to="/sources?tab=identifiers">Identifiers</RouterLink>.
        </p>
      </li>
      <li>
        <h2>Open the first that failed</h2>
        <p>
          <RouterLink to="/strands?outcome=failed">Strands that failed</RouterLink> each say in one sentence where and why, with the record that
          proves it. <RouterLink to="/rounds">Rounds</RouterLink> tells what departs from the usual.
        </p>
      </li>
    </ol>
    <DemoPart class="demo" @changed="store.refresh" />
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
.things {
  padding-left: 22px;
  max-width: 68ch;
}
.things h2 {
  font-size: 15px;
  margin: 12px 0 2px;
}
.things p {
  margin: 0;
}
.empty .demo {
  margin: 18px 0 0;
}
.empty {
  padding: 48px;
  max-width: 620px;
}
.empty p {
  margin-top: 8px;
}
</style>
