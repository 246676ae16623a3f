<script setup lang="ts">
import { computed, nextTick, ref, toRef, useTemplateRef, watch } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import { hrefOf } from '../api/calls.ts';
import { api } from '../api/client.ts';
import { useRequest } from '../api/use-request.ts';
import ProblemNote from '../frame/ProblemNote.vue';
import { useCommands } from '../keys/commands.ts';
import { count } from '../time/format.ts';

/** A file as it was written, around a line; lines are chosen to be downloaded byte for byte. */
const props = defineProps<{ id: string }>();
const route = useRoute();
const router = useRouter();
const BEFORE = 100;
const COUNT = 400;
const whole = (name: string): number => Math.max(0, Math.floor(Number(route.query[name]) || 0));
const line = computed(() => whole('line') || 1);
const end = computed(() => Math.max(line.value, whole('to')));
const from = ref(Math.max(1, line.value - BEFORE));
const { answer, problem, again, loading } = useRequest([toRef(props, 'id'), from], (signal) =>
  api.get('/sources/{id}/original', { params: { id: props.id }, query: { from: from.value, count: COUNT } }, signal),
);
const last = computed(() => (answer.value ? answer.value.from + answer.value.lines.length - 1 : 0));
const scroller = useTemplateRef<HTMLElement>('scroller');
watch(answer, async (now) => {
  if (!now) return;
  await nextTick();
  scroller.value?.querySelector('.here')?.scrollIntoView({ block: 'center' });
});
function go(to: number): void {
  from.value = Math.max(1, to);
  scroller.value?.scrollTo({ top: 0 });
}
function choose(number: number, event: MouseEvent): void {
  const next = event.shiftKey ? { line: Math.min(line.value, number), to: Math.max(line.value, number) } : { line: number, to: undefined };
  if (event.shiftKey) window.getSelection()?.removeAllRanges();
  void router.replace({ query: { ...route.query, ...next } });
}
const wanted = ref('');
function jump(): void {
  const number = Math.floor(Number(wanted.value));
  if (!(number >= 1)) return;
  from.value = Math.max(1, number - BEFORE);
  void router.replace({ query: { ...route.query, line: number, to: undefined } });
}
const slice = computed(() => hrefOf('/sources/{id}/slice', { params: { id: props.id }, query: { from: line.value, to: end.value } }));
const lineAt = (to: number): void => void router.replace({ query: { ...route.query, line: to, to: undefined } });
useCommands('The original', [
  { name: 'next line', keys: ['j'], run: () => lineAt(Math.min(answer.value?.total ?? line.value, line.value + 1)) },
  { name: 'previous line', keys: ['k'], run: () => lineAt(Math.max(1, line.value - 1)) },
]);
</script>
<template>
  <main class="original">
    <h1 class="visually-hidden">Original file</h1>
    <ProblemNote v-if="problem" :problem="problem" @again="again" />
    <template v-else-if="answer">
      <div class="head">
        <b class="mono path">{{ answer.path }}</b>
        <span class="soft">{{ count(answer.total) }} lines · {{ answer.encoding }} · as it was written</span>
        <span class="room"></span>
        <form @submit.prevent="jump">
          <label>line <input v-model="wanted" class="input" inputmode="numeric" size="7" :placeholder="String(line)" /></label>
        </form>
        <a :href="slice" download>{{ end > line ? `download lines ${count(line)} to ${count(end)}` : `download line ${count(line)}` }}</a>
      </div>
      <div ref="scroller" class="scroller" tabindex="0" aria-label="Lines; a click chooses one, with Shift several">
        <button v-if="answer.from > 1" type="button" class="link step" @click="go(answer.from - COUNT + 20)">earlier lines</button>
        <ol class="mono">
          <li
            v-for="(one, i) in answer.lines"
            :key="answer.from + i"
            :class="{ here: answer.from + i >= line && answer.from + i <= end }"
            @click="(event) => choose(answer!.from + i, event)"
          >
            <span class="soft no">{{ answer.from + i }}</span><span class="text">{{ one }}</span>
          </li>
        </ol>
        <p v-if="answer.lines.length === 0" class="nothing">The file has no line {{ count(answer.from) }}.</p>
        <button v-if="last < answer.total" type="button" class="link step" @click="go(last - 20)">later lines</button>
      </div>
    </template>
    <p v-else-if="loading" class="nothing soft" role="status">Loading…</p>
  </main>
</template>
<style scoped>
.original {
  display: flex;
  flex-direction: column;
}
.head {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 4px 14px;
  padding: 6px 16px;
  border-bottom: 1px solid var(--seam);
}
.path {
  overflow-wrap: anywhere;
}
.room {
  flex: 1;
}
.scroller {
  flex: 1;
  overflow: auto;
}
ol {
  list-style: none;
  margin: 0;
  padding: 4px 0;
}
li {
  display: flex;
  line-height: 18px;
  cursor: pointer;
}
li:hover {
  background: var(--paper);
}
.here {
  background: var(--indigo-wash);
  box-shadow: inset 3px 0 var(--indigo);
}
.no {
  flex: 0 0 84px;
  text-align: right;
  padding-right: 12px;
  user-select: none;
}
.text {
  white-space: pre-wrap;
  overflow-wrap: anywhere;
  unicode-bidi: plaintext;
  min-width: 0;
}
.step {
  display: block;
  margin: 6px 0 6px 96px;
}
.nothing {
  padding: 24px 16px;
  margin: 0;
}
</style>
