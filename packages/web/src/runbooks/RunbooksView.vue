<script setup lang="ts">
import type { RunbookInfo } from '@fadenweg/api';
import type { Runbook } from '@fadenweg/core/runbooks';
import { computed, ref } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import { api } from '../api/client.ts';
import { jsonOf } from '../api/json-of.ts';
import { useAttempt } from '../api/use-attempt.ts';
import { useRequest } from '../api/use-request.ts';
import ProblemNote from '../frame/ProblemNote.vue';
import { useSaid } from '../share/use-share.ts';
import { copyOf, emptyRunbook } from './empty.ts';
import RunbookEditor from './RunbookEditor.vue';
import RunbookRun from './RunbookRun.vue';

/** Runbooks: those that come with the application and one's own, run, written, brought in and given away. */
type Info = RunbookInfo<Runbook>;
const route = useRoute();
const router = useRouter();
const said = useSaid();
const { answer, problem, again } = useRequest([], (signal) => api.get('/runbooks', {}, signal));
const all = computed(() => answer.value?.items ?? []);
const id = computed(() => (typeof route.query.book === 'string' ? route.query.book : ''));
const info = computed(() => all.value.find((one) => one.id === id.value) ?? (id.value === '' ? all.value[0] : undefined) ?? null);
const writing = computed(() => (route.query.write === 'new' || route.query.write === 'change' ? route.query.write : null));
const draft = ref<Runbook>(emptyRunbook());
/** Other runbooks have other blanks. */
const go = (book: string | undefined, write?: 'new' | 'change'): void => {
  bad.value = '';
  const kept = Object.fromEntries(Object.entries(route.query).filter(([name]) => name === 'w' || name === 'e'));
  void router.push({ query: { ...kept, book, write } });
};
function writeNew(from: Runbook | null): void {
  draft.value = from ? { ...copyOf(from), title: `${from.title} (copy)`, name: `${from.name.slice(0, 34)}-copy` } : emptyRunbook();
  go(id.value || undefined, 'new');
}
function writeOver(from: Runbook): void {
  draft.value = copyOf(from);
  go(info.value?.id, 'change');
}
const { attempt, refused: bad } = useAttempt();
const keep = (runbook: Runbook): Promise<boolean> =>
  attempt(async () => {
    const kept = writing.value === 'change' && info.value && !info.value.supplied
      ? await api.put('/runbooks/{id}', { params: { id: info.value.id }, body: runbook })
      : await api.post('/runbooks', { body: runbook }); // prettier-ignore
    await again();
    go(kept.id);
  });
const gone = ref<Runbook | null>(null);
const forget = (one: Info): Promise<boolean> =>
  attempt(async () => {
    await api.delete('/runbooks/{id}', { params: { id: one.id } });
    gone.value = one.runbook;
    await again();
    go(undefined);
  });
async function undo(): Promise<void> {
  if (!gone.value) return;
  await keep(gone.value);
  gone.value = null;
}
function give({ runbook }: Info): void {
  const url = URL.createObjectURL(new Blob([JSON.stringify(runbook, null, 2)], { type: 'application/json' }));
  const link = Object.assign(document.createElement('a'), { href: url, download: `${runbook.name}.runbook.json` });
  link.click();
  URL.revokeObjectURL(url);
}
async function take(event: Event): Promise<void> {
  const input = event.target as HTMLInputElement;
  const file = input.files?.[0];
  input.value = '';
  if (!file) return;
  await attempt(async () => {
    const kept = await api.post('/runbooks', { body: await jsonOf<Runbook>(file) });
    await again();
    go(kept.id);
    said.say(`Brought in: ${kept.runbook.title}`);
  });
}
</script>
<template>
  <main class="runbooks">
    <aside class="list" aria-label="Runbooks">
      <h1>Runbooks</h1>
      <ProblemNote v-if="problem" :problem="problem" @again="again" />
      <ul>
        <li v-for="one in all" :key="one.id">
          <button
            type="button"
            class="book"
            :class="{ on: one.id === info?.id }"
            :aria-current="one.id === info?.id ? 'true' : undefined"
            @click="go(one.id)"
          >
            {{ one.runbook.title }}<span v-if="!one.supplied" class="soft"> · {{ one.owner }}</span>
          </button>
        </li>
      </ul>
      <p class="acts">
        <button type="button" class="link" @click="writeNew(null)">write one</button>
        <label class="link"
          >bring one in<input type="file" accept=".json,application/json" class="visually-hidden" data-testid="runbook-file" @change="take"
        /></label>
      </p>
      <p v-if="gone" role="status">“{{ gone.title }}” is forgotten. <button type="button" class="link" @click="undo">undo</button></p>
      <p v-if="bad && !writing" class="bad" role="alert">{{ bad }}</p>
    </aside>
    <section class="sheet">
      <RunbookEditor v-if="writing" :runbook="draft" :problem="bad" @save="keep" @cancel="go(info?.id)" />
      <template v-else-if="info">
        <div class="top">
          <h2>{{ info.runbook.title }}</h2>
          <span class="room"></span>
          <button v-if="!info.supplied" type="button" class="link" @click="writeOver(info.runbook)">change</button>
          <button type="button" class="link" @click="writeNew(info.runbook)">copy and change</button>
          <button type="button" class="link" @click="give(info)">take along</button>
          <button v-if="!info.supplied" type="button" class="link" @click="forget(info)">forget</button>
        </div>
        <RunbookRun :key="info.id" :info="info" />
      </template>
      <p v-else-if="answer" class="soft">There is no such runbook. Choose one on the left.</p>
    </section>
  </main>
</template>
<style scoped>
.runbooks {
  display: flex;
}
.list {
  width: 290px;
  flex: none;
  overflow: auto;
  border-right: 1px solid var(--seam);
  background: var(--paper);
  padding: 12px 0;
  box-sizing: border-box;
}
.list h1,
.list p {
  padding: 0 16px;
}
.list h1 {
  margin: 0 0 8px;
}
.list ul {
  list-style: none;
  margin: 0;
  padding: 0;
}
.book {
  display: block;
  width: 100%;
  text-align: left;
  background: none;
  border: 0;
  border-left: 3px solid transparent;
  padding: 6px 16px 6px 13px;
  color: var(--ink);
  cursor: pointer;
  font: inherit;
}
.book:hover {
  background: var(--linen);
}
.book.on {
  color: var(--indigo);
  font-weight: 700;
  border-left-color: var(--indigo);
  background: var(--indigo-wash);
}
.acts {
  display: flex;
  gap: 14px;
}
.bad {
  color: var(--madder);
  overflow-wrap: anywhere;
}
.sheet {
  flex: 1;
  min-width: 0;
  overflow: auto;
  padding: 14px 20px;
}
.top {
  display: flex;
  flex-wrap: wrap;
  gap: 4px 14px;
  align-items: baseline;
}
.top h2 {
  margin: 0;
}
.room {
  flex: 1;
}
</style>
