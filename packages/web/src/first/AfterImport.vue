<script setup lang="ts">
import type { ImportInfo, SourceInfo } from '@fadenweg/api';
import { useLocalStorage } from '@vueuse/core';
import { computed } from 'vue';
import { api } from '../api/client.ts';
import { useRequest } from '../api/use-request.ts';
import OutcomeGlyph from '../glyphs/OutcomeGlyph.vue';
import { useSummary } from '../stores/summary.ts';
import { count, dayAndClock } from '../time/format.ts';

/** What one’s own import came to, and where to go from there: what was read, what is guessed and may be asked, how transactions are named, what failed first. */
const props = defineProps<{ latest: ImportInfo; sources: readonly SourceInfo[] }>();
const store = useSummary();
const left = useLocalStorage('fadenweg.led', 0);
const shown = computed(() => props.latest.id > left.value);
const own = computed(() => props.sources.filter((one) => one.importId === props.latest.id));
const guessed = computed(() => own.value.filter((one) => one.zoneBy === 'guessed' || one.zoneBy === 'given').length);
const withoutTime = computed(() => props.latest.records - props.latest.understood);
const environment = computed(() => props.latest.environment);
/** What is asked is asked anew when more was read or woven. */
const state = computed(() => `${props.latest.id} ${store.summary?.records} ${store.summary?.strands} ${store.summary?.still}`);
const kinds = useRequest(state, (signal) => api.get('/identifier-kinds', {}, signal));
const named = computed(() => (kinds.answer.value?.items ?? []).filter((one) => one.role === 'business' && !one.supplied));
const names = computed(() => {
  const labels = named.value.map((one) => one.label);
  if (labels.length === 0) return 'identifiers that come with the application';
  return labels.length > 4 ? `${labels.slice(0, 4).join(', ')} and ${labels.length - 4} more` : labels.join(', ');
});
const counts = useRequest(state, (signal) => api.get('/strands/counts', { query: { environment: environment.value } }, signal));
const strands = computed(() => counts.answer.value?.items.reduce((sum, one) => sum + one.count, 0) ?? null);
const found = useRequest([state, strands], async (signal) => {
  if (!strands.value) return null;
  for (const outcome of ['failed', 'stalled', 'slow'] as const) {
    const { items } = await api.get('/strands', { query: { environment: environment.value, outcome, sort: 'started', limit: 1 } }, signal);
    if (items[0]) return items[0];
  }
  return null;
});
/** Where nothing of it became a strand: what looks like the name of a transaction. */
const suggested = useRequest([state, strands], async (signal) => (strands.value === 0 ? api.get('/identifier-kinds/suggestions', {}, signal) : null));
const best = computed(() => suggested.answer.value?.best ?? null);
const likely = computed(() => suggested.answer.value?.items.find((one) => one.role === 'business') ?? null);
</script>
<template>
  <section v-if="shown && own.length > 0" class="led" aria-labelledby="led-title">
    <header>
      <h2 id="led-title">What came in, and where to go from here</h2>
      <button type="button" class="link" @click="left = latest.id">put away</button>
    </header>
    <dl>
      <dt>Read</dt>
      <dd>
        {{ count(latest.records) }} records of {{ count(own.length) }} {{ own.length === 1 ? 'source' : 'sources'
        }}<template v-if="withoutTime > 0">, {{ count(withoutTime) }} of them kept as text that is not understood</template
        ><template v-if="latest.keptWhole > 0">, {{ count(latest.keptWhole) }} lines whole</template>.
        <RouterLink :to="{ name: 'find', query: { e: environment } }">Read them as one</RouterLink>
        <template v-if="latest.errors.length > 0">
          · <RouterLink to="/sources?tab=imports">{{ count(latest.errors.length) }} files could not be read</RouterLink></template
        >
      </dd>
      <dt>Guessed</dt>
      <dd>
        <template v-if="guessed > 0"
          >the zone of {{ count(guessed) }} {{ guessed === 1 ? 'source' : 'sources' }}: their times state none. Where it is wrong, say so at the
          source below; it is read again.</template
        >
        <template v-else>nothing: the times state their zone, or it was given.</template>
      </dd>
      <dt>Named by</dt>
      <dd>
        <template v-if="strands === 0">
          nothing that is declared.
          <template v-if="best"
            >The best set, {{ best.kinds.map((one) => one.label).join(', ') }}, makes {{ count(best.transactions) }} strands of
            {{ Math.round(100 * best.share) }} % of the records. </template
          ><template v-else-if="likely"
            >{{ count(likely.values) }} values such as <span class="mono">{{ likely.examples[0] }}</span> look like it. </template
          ><RouterLink to="/sources?tab=identifiers">See what looks like one</RouterLink>
        </template>
        <template v-else>
          {{ names }}: <RouterLink :to="{ name: 'strands', query: { e: environment } }">{{ count(strands ?? 0) }} strands</RouterLink> ·
          <RouterLink to="/sources?tab=identifiers">see how</RouterLink>
        </template>
      </dd>
      <dt>First</dt>
      <dd>
        <template v-if="found.answer.value">
          <OutcomeGlyph :outcome="found.answer.value.outcome" />
          <RouterLink class="strand" :to="{ name: 'strand', params: { id: found.answer.value.id } }">{{ found.answer.value.name }}</RouterLink>
          <span class="soft"> {{ dayAndClock(found.answer.value.startedAt) }}</span> {{ found.answer.value.headline }}
        </template>
        <template v-else-if="!store.summary?.still">it is still being read and woven…</template>
        <template v-else-if="strands === 0">once transactions are named, the first that failed stands here.</template>
        <template v-else>nothing failed, stalled or was slow.</template>
      </dd>
    </dl>
  </section>
</template>
<style scoped>
.led {
  margin: 0 20px 8px;
  padding: 8px 14px 10px;
  border: 1px solid var(--strong-seam);
  border-left: 3px solid var(--indigo);
}
header {
  display: flex;
  justify-content: space-between;
  align-items: baseline;
}
h2 {
  font-size: 15px;
  margin: 0 0 4px;
}
dl {
  display: grid;
  grid-template-columns: max-content minmax(0, 1fr);
  gap: 2px 14px;
  margin: 0;
}
dt {
  color: var(--soft-ink);
}
dd {
  margin: 0;
  overflow-wrap: anywhere;
}
.strand {
  font-weight: 600;
}
button.link {
  min-height: 24px;
}
</style>
