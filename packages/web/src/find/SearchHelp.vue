<script setup lang="ts">
import { printValue } from '@fadenweg/core/search';
import { computed } from 'vue';
import { useSummary } from '../stores/summary.ts';

/** How a search is written, by examples that run on what is loaded. */
const emit = defineEmits<{ search: [q: string] }>();
const store = useSummary();
const component = computed(() => printValue(store.summary?.components.at(-1) ?? 'order-desk'));
const examples = computed(() => [
  { q: 'timeout', what: 'the word is in the message, upper and lower case alike' },
  { q: 'lock timeout', what: 'both words, in any order' },
  { q: "'lock timeout'", what: 'the words as they stand' },
  { q: 'where level >= warning', what: 'a condition; levels are ordered' },
  { q: `failed where component = ${component.value}`, what: 'words, then a condition' },
  { q: 'where took > 2s and not level in (debug, trace)', what: 'durations: 250ms, 2s, 5min' },
  { q: 'where outcome in (failed, stalled) and flow is not null', what: 'how the strand ended that the record belongs to' },
  { q: 'where host like app-%', what: '% stands for any text, _ for one character' },
  { q: "where message matches 'pid [0-9]+'", what: 'a pattern (RE2)' },
]);
</script>
<template>
  <section class="help" aria-labelledby="help-title">
    <h2 id="help-title">How a search is written</h2>
    <p class="soft">
      Words first, then, if wanted, <span class="mono">where</span> and a condition as in SQL. Fields: time, level, component, host, environment,
      source, logger, message, shape, took, flow, outcome, any parsed field, any kind of identifier.
    </p>
    <dl>
      <template v-for="one in examples" :key="one.q">
        <dt>
          <button type="button" class="link" @click="emit('search', one.q)">
            <span class="mono">{{ one.q }}</span>
          </button>
        </dt>
        <dd class="soft">{{ one.what }}</dd>
      </template>
    </dl>
  </section>
</template>
<style scoped>
.help {
  padding: 16px 20px;
  overflow: auto;
}
dl {
  display: grid;
  grid-template-columns: max-content 1fr;
  gap: 6px 24px;
  margin: 12px 0 0;
}
dd {
  margin: 0;
}
.link {
  text-align: left;
}
</style>
