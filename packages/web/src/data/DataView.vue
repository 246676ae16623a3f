<script setup lang="ts">
import type { DataSet } from '@fadenweg/api';
import { computed } from 'vue';
import { useRouter } from 'vue-router';
import { api } from '../api/client.ts';
import { useRequest } from '../api/use-request.ts';
import ProblemNote from '../frame/ProblemNote.vue';
import SideSheet from '../frame/SideSheet.vue';
import { useAddressed } from '../frame/use-addressed.ts';
import { useChosenLine } from '../frame/use-chosen-line.ts';
import OutcomeGlyph from '../glyphs/OutcomeGlyph.vue';
import { useSummary } from '../stores/summary.ts';
import EmptyStrands from '../first/EmptyStrands.vue';
import { useAsked } from '../time/asked.ts';
import { count, dayAndClock } from '../time/format.ts';
import { DATA_KINDS, isFar, rowsBeside, whoWords } from './data-words.ts';
import TouchingRuns from './TouchingRuns.vue';

/** What runs touch: files, tables and feeds, a line each; and one of them, with who wrote and read it. */
const router = useRouter();
const store = useSummary();
const asked = useAsked();
const { text, adjust } = useAddressed();
const stamp = computed(() => `${store.summary?.strands} ${store.summary?.weaving}`);
const list = useRequest(
  () => (asked.value ? `${JSON.stringify(asked.value)} ${stamp.value}` : ''),
  async (signal) => (asked.value ? api.get('/data-sets', { query: asked.value }, signal) : null),
);
const wanted = computed(() => text('of').trim().toLowerCase());
const items = computed(() => (list.answer.value?.items ?? []).filter((one) => one.name.toLowerCase().includes(wanted.value)));
const keyOf = ({ name, environment }: DataSet): string => `${name}~${environment}`;
const { chosen, selected } = useChosenLine(items, keyOf, 'as', ({ lastWritten }) => {
  if (lastWritten) void router.push({ name: 'strand', params: { id: lastWritten.strand }, query: { tab: 'data' } });
});
const one = useRequest(
  () => (asked.value && selected.value ? `${chosen.value} ${JSON.stringify(asked.value)} ${stamp.value}` : ''),
  async (signal) => (asked.value && selected.value ? api.get('/data-sets/one', { query: { ...asked.value, name: selected.value.name, of: selected.value.environment } }, signal) : null),
); // prettier-ignore
/** Rows of the writes in order of time, for the course. */
const course = computed(() => (one.answer.value?.writes ?? []).filter((write) => write.rows !== null).slice(0, 60).reverse()); // prettier-ignore
const most = computed(() => Math.max(1, ...course.value.map((write) => write.rows!)));
</script>
<template>
  <main class="data">
    <EmptyStrands v-if="store.empty" />
    <template v-else>
      <section class="list" aria-labelledby="data-title">
        <header>
          <h1 id="data-title">What runs touch</h1>
          <p v-if="list.answer.value" class="soft facts" data-testid="sum">
            {{ count(items.length) }} {{ items.length === 1 ? 'file, table or feed' : 'files, tables and feeds' }} · <RouterLink to="/jobs">the runs themselves</RouterLink>
          </p>
          <label class="soft narrow"
            >of this name
            <input :value="text('of')" type="search" maxlength="200" autocomplete="off" @input="(event) => adjust({ of: (event.target as HTMLInputElement).value || undefined })"
          /></label>
        </header>
        <ProblemNote v-if="list.problem.value" :problem="list.problem.value" @again="list.again" />
        <p v-else-if="!list.answer.value" class="soft wait" role="status">Looking at what runs touched …</p>
        <p v-else-if="items.length === 0" class="soft wait">
          <template v-if="wanted">
            Nothing of this time is called so. <button type="button" class="link" @click="adjust({ of: undefined })">Show all</button>
          </template>
          <template v-else>
            No run of this time names a file that it reads or writes, or a table in a statement. Run events of OpenLineage tell it too, brought in under
            <RouterLink to="/sources">Sources</RouterLink>.
          </template>
        </p>
        <template v-else>
          <div ref="body" class="lines" role="listbox" aria-label="Files, tables and feeds" data-lines tabindex="0">
            <div
              v-for="set in items"
              :key="keyOf(set)"
              class="line"
              role="option"
              :aria-selected="selected !== null && keyOf(set) === keyOf(selected)"
              @click="adjust({ as: keyOf(set) })"
            >
              <span class="soft">{{ DATA_KINDS[set.kind] }}</span>
              <span class="what"
                ><b class="mono">{{ set.name }}</b> <span class="soft">{{ whoWords(set) }}</span></span
              >
              <span class="when"
                ><template v-if="set.lastWritten"
                  ><OutcomeGlyph :outcome="set.lastWritten.outcome" :size="14" /> {{ dayAndClock(set.lastWritten.at).slice(5, 16) }}</template
                ></span
              >
              <span :class="{ bad: isFar(set.lastWritten?.rows ?? null, set.usualRows) }">{{ rowsBeside(set.lastWritten, set.usualRows) }}</span>
              <span :class="{ bad: set.failed > 0 }">{{ set.failed > 0 ? `${count(set.failed)} failed` : '' }}</span>
            </div>
          </div>
          <div class="names soft" aria-hidden="true">
            <span>what</span><span>name, who writes and reads it</span><span>last written</span><span>rows</span><span>amiss</span>
          </div>
        </template>
      </section>
      <SideSheet :tabs="[{ name: 'one', label: 'Data' }]" tab="one">
        <p v-if="!selected" class="soft">Nothing is selected.</p>
        <ProblemNote v-else-if="one.problem.value" :problem="one.problem.value" @again="one.again" />
        <p v-else-if="!one.answer.value" class="soft" role="status">Looking at who touched it …</p>
        <article v-else :aria-label="one.answer.value.set.name">
          <h2 class="mono name">{{ one.answer.value.set.name }}</h2>
          <p>{{ whoWords(one.answer.value.set) }}.</p>
          <template v-if="course.length > 1">
            <h3>Rows written, latest last</h3>
            <ol class="course" aria-label="Rows of each write">
              <li v-for="write in course" :key="`${write.strand} ${write.at}`" :class="{ bad: write.failed || isFar(write.rows, one.answer.value.set.usualRows) }">
                <span class="soft">{{ dayAndClock(write.at).slice(5, 16) }}</span>
                <span class="bar" aria-hidden="true"><span :style="{ width: `${Math.max(1, (write.rows! / most) * 100)}%` }"></span></span>
                <span class="number">{{ count(write.rows!) }}</span>
              </li>
            </ol>
          </template>
          <h3>Written by</h3>
          <TouchingRuns v-if="one.answer.value.writes.length > 0" :runs="one.answer.value.writes.slice(0, 50)" />
          <p v-else class="soft">Nobody is seen to write it in this time.</p>
          <h3>Read by</h3>
          <TouchingRuns v-if="one.answer.value.reads.length > 0" :runs="one.answer.value.reads.slice(0, 50)" />
          <p v-else class="soft">Nobody is seen to read it in this time.</p>
          <p v-if="one.answer.value.cut || one.answer.value.writes.length > 50 || one.answer.value.reads.length > 50" class="soft">
            The latest 50 of each; a shorter time shows earlier ones.
          </p>
        </article>
      </SideSheet>
    </template>
  </main>
</template>
<style scoped src="../frame/list-beside.css"></style>
<style scoped>
.line,
.names {
  grid-template-columns: 48px minmax(0, 1fr) 112px 150px 72px;
}
.when {
  white-space: nowrap;
}
.bad {
  color: var(--madder);
}
.name {
  overflow-wrap: anywhere;
}
.narrow input {
  font: inherit;
  color: var(--ink);
  background: var(--paper);
  border: 1px solid var(--strong-seam);
  border-radius: 3px;
  padding: 2px 8px;
  width: 220px;
}
.course {
  list-style: none;
  margin: 4px 0 10px;
  padding: 0;
}
.course li {
  display: grid;
  grid-template-columns: 92px 1fr 64px;
  gap: 8px;
  align-items: center;
  line-height: 18px;
  font-size: 13px;
}
.bar span {
  display: block;
  height: 8px;
  background: var(--indigo);
}
.course .bad .bar span {
  background: var(--madder);
}
.number {
  text-align: right;
}
</style>
