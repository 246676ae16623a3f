<script setup lang="ts">
import type { SavedSearch } from '@fadenweg/api';
import { computed, ref } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import { api } from '../api/client.ts';
import { useAttempt } from '../api/use-attempt.ts';
import { useRequest } from '../api/use-request.ts';
import DropPanel from '../frame/DropPanel.vue';

/** Searches kept under a name: supplied ones, one's own, and those that others share. */
const route = useRoute();
const router = useRouter();
const open = ref(false);
/** What of the address a saved search restores; the window only where it is exact or asked for. */
const KEPT = ['q', 'order', 'rank', 'show', 'quiet', 'src', 'off', 'cols', 'view', 'mark'];
const { answer, again, problem } = useRequest([open], (signal) =>
  open.value ? api.get('/saved', { query: { what: 'search' } }, signal) : Promise.resolve(null),
);
const searches = computed(() => (answer.value?.items ?? []).filter((one) => one.what === 'search'));
const own = computed(() => searches.value.filter((one) => !one.supplied));
const supplied = computed(() => searches.value.filter((one) => one.supplied));
const name = ref('');
const about = ref('');
const shared = ref(false);
const withWindow = ref(false);
const renamed = ref<number | null>(null);
const newName = ref('');
const forgotten = ref<SavedSearch | null>(null);

function go(one: SavedSearch): void {
  open.value = false;
  const { e, w } = route.query;
  void router.push({ name: 'find', query: { e, w, ...one.body.address } });
}
const { attempt: tried, refused: failed } = useAttempt();
/** Does it, and shows what there is then. */
const attempt = (act: () => Promise<unknown>): Promise<boolean> => tried(() => act().then(again));
const here = computed(() => {
  const address: Record<string, string> = {};
  for (const key of [...KEPT, ...(withWindow.value ? ['w', 'e'] : [])]) {
    const value = route.query[key];
    if (typeof value === 'string' && value !== '') address[key] = value;
  }
  return address;
});
async function keep(): Promise<void> {
  const body: SavedSearch['body'] = { about: about.value, address: here.value };
  if (await attempt(() => api.post('/saved', { body: { what: 'search', name: name.value.trim(), shared: shared.value, body } }))) {
    name.value = '';
    about.value = '';
  }
}
const put = (one: SavedSearch, more: Partial<SavedSearch>): Promise<boolean> => {
  const { what, name: old, shared: was, body } = one;
  return attempt(() => api.put('/saved/{id}', { params: { id: one.id }, body: { what, name: old, shared: was, body, ...more } }));
};
async function rename(one: SavedSearch): Promise<void> {
  if (await put(one, { name: newName.value.trim() })) renamed.value = null;
}
const copy = ({ what, name: old, body }: SavedSearch): Promise<boolean> =>
  attempt(() => api.post('/saved', { body: { what, name: `${old} (copy)`.slice(0, 80), shared: false, body } }));
async function forget(one: SavedSearch): Promise<void> {
  if (await attempt(() => api.delete('/saved/{id}', { params: { id: one.id } }))) forgotten.value = one;
}
async function undo(): Promise<void> {
  const one = forgotten.value;
  if (one && (await attempt(() => api.post('/saved', { body: { what: one.what, name: one.name, shared: one.shared, body: one.body } }))))
    forgotten.value = null;
}
</script>
<template>
  <DropPanel v-model="open" label="Saved searches">
    <template #button><span class="link">saved</span></template>
    <div class="panel">
      <p v-if="problem" class="bad" role="alert">{{ problem.title }}</p>
      <section v-if="own.length">
        <h2>Saved</h2>
        <ul>
          <li v-for="one in own" :key="one.id">
            <form v-if="renamed === one.id" @submit.prevent="rename(one)">
              <input v-model="newName" class="input" maxlength="80" required aria-label="New name" />
              <button type="submit" class="link">rename</button>
              <button type="button" class="link soft" @click="renamed = null">cancel</button>
            </form>
            <template v-else>
              <button type="button" class="name" @click="go(one)">{{ one.name }}</button>
              <span class="acts soft">
                <button type="button" class="link" @click="((renamed = one.id), (newName = one.name))">rename</button>
                <button type="button" class="link" @click="copy(one)">copy</button>
                <button type="button" class="link" :aria-pressed="one.shared" @click="put(one, { shared: !one.shared })">
                  {{ one.shared ? 'shared' : 'share' }}
                </button>
                <button type="button" class="link" :aria-label="`Forget ${one.name}`" @click="forget(one)">forget</button>
              </span>
            </template>
            <p v-if="one.body.about" class="soft">{{ one.body.about }}</p>
          </li>
        </ul>
      </section>
      <p v-if="forgotten" role="status">“{{ forgotten.name }}” is gone. <button type="button" class="link" @click="undo">undo</button></p>
      <section v-if="supplied.length">
        <h2>Supplied</h2>
        <ul>
          <li v-for="one in supplied" :key="one.id">
            <button type="button" class="name" @click="go(one)">{{ one.name }}</button>
            <span class="acts soft"><button type="button" class="link" @click="copy(one)">copy</button></span>
            <p v-if="one.body.about" class="soft">{{ one.body.about }}</p>
          </li>
        </ul>
      </section>
      <section>
        <h2>Keep what is shown now</h2>
        <form class="keep" @submit.prevent="keep">
          <input v-model="name" class="input" maxlength="80" required aria-label="Name for this search" placeholder="name" />
          <input v-model="about" class="input" maxlength="500" aria-label="What it is for" placeholder="what it is for (may be empty)" />
          <span class="row">
            <label><input v-model="withWindow" type="checkbox" /> with its window</label>
            <label><input v-model="shared" type="checkbox" /> shared</label>
            <v-btn type="submit" size="small" color="primary">Save</v-btn>
          </span>
        </form>
        <p v-if="failed" class="bad" role="alert">{{ failed }}</p>
      </section>
    </div>
  </DropPanel>
</template>
<style scoped>
.panel {
  width: 380px;
  max-height: min(72vh, 600px);
  overflow: auto;
}
ul {
  list-style: none;
  margin: 2px 0 10px;
  padding: 0;
}
li {
  padding: 3px 0;
  border-bottom: 1px solid var(--seam);
}
li p {
  margin: 0;
  font-size: 12.5px;
  line-height: 17px;
}
.name {
  background: none;
  border: 0;
  padding: 0;
  font: inherit;
  font-weight: 600;
  color: var(--indigo);
  cursor: pointer;
  text-align: left;
}
.name:hover {
  text-decoration: underline;
}
.acts {
  float: right;
  display: flex;
  gap: 10px;
  font-size: 12.5px;
}
form {
  display: flex;
  gap: 8px;
}
form .input {
  flex: 1;
}
.keep {
  flex-direction: column;
  gap: 6px;
  margin-top: 4px;
}
.row {
  display: flex;
  gap: 14px;
  align-items: center;
  justify-content: space-between;
}
label {
  display: flex;
  gap: 5px;
}
</style>
