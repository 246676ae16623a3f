<script setup lang="ts">
import { computed } from 'vue';
import { useRoute, useRouter } from 'vue-router';

/** Whether what is shown goes on with what comes in. Where there is nothing to go on, it leads to all that comes in. */
const route = useRoute();
const router = useRouter();
const on = computed(() => route.query.live === '1');
const here = computed(() => route.name === 'find' || route.name === 'strand' || route.name === 'strands');
function turn(): void {
  if (here.value)
    void router.replace({ query: { ...route.query, live: on.value ? undefined : '1', ...(route.name === 'find' ? { text: undefined } : {}) } });
  else void router.push({ name: 'find', query: { e: route.query.e, live: '1' } });
}
</script>
<template>
  <button type="button" class="switch" :class="{ on }" :aria-pressed="on" title="Go on with what comes in" @click="turn">
    <span class="dot" aria-hidden="true"></span>Live
  </button>
</template>
<style scoped>
.switch {
  display: inline-flex;
  align-items: center;
  gap: 7px;
  margin-left: 8px;
  padding: 4px 10px;
  border: 1px solid transparent;
  border-radius: 2px;
  background: none;
  color: var(--soft-ink);
  cursor: pointer;
  white-space: nowrap;
}
.switch:hover {
  border-color: var(--seam);
}
.on {
  color: var(--indigo);
  font-weight: 700;
  border-color: var(--indigo);
}
.dot {
  width: 14px;
  border-top: 3px dotted currentColor;
}
.on .dot {
  border-top-style: solid;
}
</style>
