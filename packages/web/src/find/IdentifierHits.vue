<script setup lang="ts">
import { computed, onScopeDispose, ref, watch } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import { api } from '../api/client.ts';
import { useRequest } from '../api/use-request.ts';
import ProblemNote from '../frame/ProblemNote.vue';
import ListedHits from './ListedHits.vue';
import OutcomeGlyph from '../glyphs/OutcomeGlyph.vue';
import { OUTCOME_WORDS } from '../glyphs/outcomes.ts';
import { ms } from '../strands/duration-text.ts';
import { useSummary } from '../stores/summary.ts';
import { count, dayAndClock } from '../time/format.ts';

const route = useRoute();
const text = computed(() => String(route.query.text ?? ''));
const { answer, problem, loading, again } = useRequest(text, async (signal) =>
  text.value === '' ? null : api.get('/search', { query: { text: text.value } }, signal),
);
const hits = computed(() => answer.value?.hits ?? []);
const router = useRouter();
const store = useSummary();
/** Records that have just been read are woven a moment later: it is asked again until they are, and for a moment where nothing seems to be under way. */
const AGAIN = 1000;
const MOMENTS = 4;
const asked = ref(0);
const unwoven = computed(() => hits.value.some((hit) => hit.strands.length === 0 && hit.role !== 'shared'));
const busy = computed(() => !!store.summary && (store.summary.imports.length > 0 || store.summary.unread > 0 || store.summary.weaving !== null));
const waiting = computed(() => unwoven.value && (busy.value || asked.value < MOMENTS));
watch(text, () => {
  asked.value = 0;
});
const timer = setInterval(() => {
  if (!waiting.value || loading.value) return;
  asked.value++;
  void again();
}, AGAIN);
onScopeDispose(() => clearInterval(timer));
watch(answer, (now) => {
  const [only, ...others] = now?.hits ?? [];
  const [strand, ...more] = only?.strands ?? [];
  if (asked.value > 0 && strand && others.length + more.length === 0) void router.replace({ name: 'strand', params: { id: strand.id } });
});
const ROLE = { business: 'names one transaction', link: 'ties records', shared: 'shared by many' } as const;
</script>
<template>
  <main class="find">
    <ProblemNote v-if="problem" :problem="problem" @again="again" />
    <p v-else-if="loading && !answer" class="soft" role="status">Looking…</p>
    <ListedHits v-else-if="answer?.list" :text="text" />
    <template v-else-if="answer && hits.length === 0">
      <h1>Nothing found</h1>
      <p class="asked mono">{{ text.length > 400 ? `${text.slice(0, 400)}…` : text }}</p>
      <p v-if="answer.looked.length">
        Looked for
        <template v-for="(one, index) in answer.looked" :key="one.kind + one.value"
          ><template v-if="index">, </template>{{ one.kind }}
          <span class="mono">{{ one.value.length > 60 ? `${one.value.slice(0, 60)}…` : one.value }}</span></template
        >. No record names any of them.
      </p>
      <p v-else>There is no identifier of a known kind in this text.</p>
      <ul>
        <li>Is the log that should name it loaded? See <RouterLink to="/sources">Sources</RouterLink> for what is there, and from when to when.</li>
        <li>
          Is its kind declared? Under <RouterLink to="/sources?tab=identifiers">Identifiers</RouterLink> you can say what your order numbers look
          like.
        </li>
      </ul>
    </template>
    <template v-else-if="answer">
      <h1>{{ hits.length === 1 ? 'One identifier' : `${hits.length} identifiers` }} in this text</h1>
      <section v-for="hit in hits" :key="hit.kind + hit.value">
        <h2>
          {{ hit.label }} <span class="mono">{{ hit.value }}</span> <span class="soft role">{{ ROLE[hit.role] }}</span>
        </h2>
        <p v-if="hit.strands.length === 0 && waiting" class="soft" role="status">
          Records name it; the strand that they belong to is still being woven…
        </p>
        <p v-else-if="hit.strands.length === 0" class="soft">Records name it, but they belong to no strand: nothing in them names a transaction.</p>
        <table v-else class="plain-table">
          <thead>
            <tr>
              <th>Outcome</th>
              <th>Identifier</th>
              <th>Flow</th>
              <th>Begin</th>
              <th class="number">Duration</th>
              <th class="number">Records</th>
              <th>What happened</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="strand in hit.strands" :key="strand.id">
              <td class="still"><OutcomeGlyph :outcome="strand.outcome" silent /> {{ OUTCOME_WORDS[strand.outcome] }}</td>
              <td class="mono still">
                <RouterLink :to="{ name: 'strand', params: { id: strand.id } }">{{ strand.name }}</RouterLink>
              </td>
              <td class="still">{{ strand.flowLabel }}</td>
              <td class="mono still">{{ dayAndClock(strand.startedAt, 3) }}</td>
              <td class="number still">{{ ms(strand.durationMs) }}</td>
              <td class="number">{{ count(strand.records) }}</td>
              <td>
                <template v-if="strand.headline">{{ strand.headline }}</template>
                <span v-else class="soft">{{ strand.parties.map((party) => `${party.kind} ${party.value}`).join(' · ') }}</span>
              </td>
            </tr>
          </tbody>
        </table>
        <p v-if="hit.more">
          <RouterLink :to="{ name: 'strands', query: { identifier: hit.value, w: 'all' } }">All strands of {{ hit.value }}</RouterLink
          >, of which the latest {{ hit.strands.length }} are shown.
        </p>
      </section>
    </template>
  </main>
</template>
<style scoped>
.find {
  padding: 16px 20px;
  overflow: auto;
  box-sizing: border-box;
}
section {
  margin-top: 18px;
}
h2 {
  margin-bottom: 6px;
}
.role {
  font-weight: 400;
  margin-left: 8px;
}
.asked {
  overflow-wrap: anywhere;
  background: var(--paper);
  padding: 6px 10px;
  border: 1px solid var(--seam);
}
.still {
  white-space: nowrap;
}
</style>
