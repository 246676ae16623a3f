<script setup lang="ts">
import { computed } from 'vue';
import { useConnection } from '../stores/connection.ts';
import CoverageStrip from './CoverageStrip.vue';
import { useSummary } from '../stores/summary.ts';
import { count, dayAndClock } from '../time/format.ts';
import { useScope } from '../time/scope.ts';
const store = useSummary();
const connection = useConnection();
const scope = useScope();
const onlyDemo = computed(
  () => store.summary?.environments.filter((one) => scope.chosen.value.includes(one.name)).every((one) => one.demo) && store.summary.demo,
);
const running = computed(() => store.summary?.imports[0] ?? null);
/** All is read, and something else is waited for. */
const waits = computed(() => {
  const all = running.value?.waitsFor ?? [];
  return running.value?.state === 'reading' && all.every((one) => one.work !== null) ? (all[0]?.words ?? '') : '';
});
const left = computed(() => {
  const seconds = running.value?.secondsLeft;
  if (seconds === null || seconds === undefined) return '';
  return seconds > 90 ? ` · about ${Math.round(seconds / 60)} min left` : ` · about ${seconds} s left`;
});
</script>
<template>
  <footer class="foot">
    <span v-if="!connection.up" class="down" role="status">Not connected · asking again</span>
    <template v-if="store.summary">
      <span v-if="store.summary.sources === 0">Nothing loaded yet</span>
      <span v-else
        >{{ count(store.summary.records) }} records · {{ count(store.summary.strands) }} strands · {{ store.summary.sources }} sources<template
          v-if="store.summary.from && store.summary.to"
        >
          · {{ dayAndClock(store.summary.from) }} to {{ dayAndClock(store.summary.to) }}</template
        ></span
      >
      <CoverageStrip v-if="store.summary.sources > 0" />
      <span v-if="onlyDemo" class="demo">made-up demo data</span>
      <span v-if="running || store.summary.unread > 0" class="running" role="status"
        ><RouterLink to="/sources">{{
          running
            ? running.state === 'removing'
              ? 'taking an import out'
              : waits || `reading ${count(running.perSecond)}/s${left}`
            : `reading ${store.summary.unread === 1 ? 'a source' : `${store.summary.unread} sources`} again`
        }}</RouterLink></span
      >
      <span v-if="store.summary.workStopped > 0" class="down" role="status"
        ><RouterLink to="/sources?tab=work">{{
          store.summary.workStopped === 1 ? 'a piece of work stopped' : `${store.summary.workStopped} pieces of work stopped`
        }}</RouterLink></span
      >
      <span v-if="store.summary.weaving" class="running">weaving, {{ count(store.summary.weaving.behind) }} strands behind</span>
    </template>
    <span class="keys"><kbd>/</kbd> find <kbd>j</kbd><kbd>k</kbd> line <kbd>o</kbd> open <kbd>?</kbd> keys</span>
  </footer>
</template>
<style scoped>
.foot {
  height: 24px;
  display: flex;
  align-items: center;
  gap: 20px;
  padding: 0 14px;
  background: var(--paper);
  border-top: 1px solid var(--seam);
  font-size: 12px;
  color: var(--soft-ink);
  white-space: nowrap;
  overflow: auto hidden;
  scrollbar-width: none;
}
/* where there is no room for all of them, none is cut */
@media (max-width: 1100px) {
  .foot .keys {
    display: none;
  }
}
.keys {
  margin-left: auto;
  display: flex;
  align-items: center;
  gap: 4px;
}
.keys kbd {
  line-height: 14px;
  margin-left: 6px;
}
.keys kbd + kbd {
  margin-left: 0;
}
.demo {
  color: var(--walnut);
}
.down {
  color: var(--madder);
  font-weight: 700;
}
.running {
  color: var(--indigo);
}
</style>
