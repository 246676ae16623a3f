<script setup lang="ts">
import { computed, nextTick, ref, useId, useTemplateRef, watch } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import { api } from '../api/client.ts';
import { wordsOf } from '../api/problem-of.ts';
import { useCommands } from '../keys/commands.ts';
import { count } from '../time/format.ts';
import { useScope } from '../time/scope.ts';
import { useWindow } from '../time/window.ts';
import { useCompletion } from './use-completion.ts';

const route = useRoute();
const router = useRouter();
const field = useTemplateRef<HTMLInputElement>('field');
const text = ref('');
const problem = ref('');
const looking = ref(false);
let asked = 0;
const caret = ref<number | null>(null);
const scope = useScope();
const frame = useWindow();
const id = useId();
const { choices, at, take, close } = useCompletion(text, caret, () => ({ ...frame.bounds.value, environment: scope.chosen.value.join(',') }));
const follow = (): void => {
  caret.value = document.activeElement === field.value ? (field.value?.selectionStart ?? null) : null;
};
async function choose(index: number): Promise<void> {
  const next = take(index);
  if (!next) return;
  text.value = next.text;
  await nextTick();
  field.value?.focus();
  field.value?.setSelectionRange(next.caret, next.caret);
  caret.value = next.caret;
}
function key(event: KeyboardEvent): void {
  if (event.key === 'Escape') {
    if (choices.value.length > 0) close();
    else field.value?.blur();
  } else if (choices.value.length === 0) return;
  else if (event.key === 'ArrowDown') at.value = (at.value + 1) % choices.value.length;
  else if (event.key === 'ArrowUp') at.value = (at.value <= 0 ? choices.value.length : at.value) - 1;
  else if ((event.key === 'Enter' && at.value >= 0) || (event.key === 'Tab' && !event.shiftKey)) void choose(Math.max(0, at.value));
  else return;
  event.preventDefault();
}

watch(
  () => [route.name, route.params.id, route.query.text, route.query.q],
  () => {
    problem.value = '';
    if (route.name === 'strand') text.value = String(route.params.id).replace(/^[^:]*:/, '');
    else if (route.name === 'find') text.value = String(route.query.text ?? route.query.q ?? '');
    else text.value = '';
  },
  { immediate: true },
);

/** What is found is what comes in from now on. */
const live = computed(() => route.name === 'find' && route.query.live === '1');
async function go(): Promise<void> {
  close();
  const wanted = text.value.trim();
  if (wanted === '' && route.name === 'find') return find('');
  if (wanted === '') {
    problem.value = 'Type or paste an order, a caller, a job run, or a whole log line.';
    return;
  }
  // a condition is a search, and so is what is watched for; anything else may be an identifier
  if (/(?:^|\s)where\s/i.test(wanted) || live.value) return find(wanted);
  const mine = ++asked;
  looking.value = true;
  problem.value = '';
  try {
    const answer = await api.get('/search', { query: { text: wanted } });
    if (mine !== asked) return;
    if (answer.only && !answer.list) await router.push({ name: 'strand', params: { id: answer.only } });
    else if (answer.hits.length === 0 && !answer.sure) find(wanted);
    else await router.push({ name: 'find', query: { text: wanted } });
    field.value?.blur();
  } catch (error) {
    if (mine === asked) problem.value = wordsOf(error);
  } finally {
    if (mine === asked) looking.value = false;
  }
}
function find(q: string): void {
  const { w, e, order } = route.query;
  void router.push({ name: 'find', query: { w, e, order, live: live.value ? '1' : undefined, q: q === '' ? undefined : q } });
  field.value?.blur();
}
/** A pasted block keeps its lines apart by blanks: the field has one line. */
function paste(event: ClipboardEvent): void {
  const pasted = event.clipboardData?.getData('text') ?? '';
  if (!/[\r\n]/.test(pasted)) return;
  event.preventDefault();
  text.value = pasted.replace(/\s*[\r\n]+\s*/g, ' ').trim();
}
useCommands('', [
  {
    name: 'go to the finder',
    keys: ['/'],
    run: () => {
      field.value?.focus();
      field.value?.select();
    },
  },
]);
</script>
<template>
  <form class="finder" role="search" @submit.prevent="go">
    <input
      ref="field"
      v-model="text"
      type="text"
      class="mono"
      :class="{ bad: problem }"
      aria-label="Find an order, caller, job run, words of messages, or paste a log line"
      placeholder="Order, caller, job run, a log line, or words of messages"
      spellcheck="false"
      autocomplete="off"
      maxlength="20000"
      :aria-invalid="problem ? 'true' : undefined"
      :aria-describedby="problem ? 'finder-problem' : undefined"
      role="combobox"
      aria-autocomplete="list"
      :aria-expanded="choices.length > 0"
      :aria-controls="`${id}-choices`"
      :aria-activedescendant="at >= 0 ? `${id}-${at}` : undefined"
      @paste="paste"
      @keydown="key"
      @input="follow"
      @keyup="follow"
      @click="follow"
      @blur="close"
    />
    <ul v-show="choices.length > 0" :id="`${id}-choices`" class="choices mono" role="listbox" aria-label="What can stand here">
      <li v-for="(one, i) in choices" :id="`${id}-${i}`" :key="one.text" role="option" :aria-selected="i === at" @pointerdown.prevent="choose(i)">
        <span class="text">{{ one.text }}</span><span v-if="one.count !== null" class="soft">{{ count(one.count) }}</span>
      </li>
    </ul>
    <kbd v-if="!looking" aria-hidden="true">/</kbd><span v-else class="looking" role="status">looking…</span>
    <p v-if="problem" id="finder-problem" class="said" role="alert">{{ problem }}</p>
  </form>
</template>
<style scoped>
.finder {
  position: relative;
  flex: 1 1 420px;
  min-width: 0;
  max-width: 560px;
}
input {
  width: 100%;
  box-sizing: border-box;
  height: 34px;
  padding: 0 64px 0 12px;
  border: 1px solid var(--indigo);
  border-radius: 3px;
  background: var(--linen);
  color: var(--ink);
}
input::placeholder {
  color: var(--soft-ink);
  font-family: 'Source Sans 3 Variable', sans-serif;
  font-size: 14px;
  opacity: 1;
}
input.bad {
  border-color: var(--madder);
}
kbd,
.looking {
  position: absolute;
  right: 9px;
  top: 8px;
  font-size: 12px;
  color: var(--soft-ink);
  pointer-events: none;
}
.choices {
  position: absolute;
  top: 36px;
  left: 0;
  min-width: 260px;
  max-width: 100%;
  z-index: 30;
  margin: 0;
  padding: 4px 0;
  list-style: none;
  background: var(--paper);
  border: 1px solid var(--strong-seam);
  border-radius: 3px;
  box-shadow: 0 6px 20px #0003;
}
.choices li {
  display: flex;
  justify-content: space-between;
  gap: 16px;
  padding: 1px 12px;
  cursor: pointer;
}
.choices li:hover,
.choices li[aria-selected='true'] {
  background: var(--indigo-wash);
  color: var(--indigo);
}
.choices .text {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.said {
  position: absolute;
  top: 38px;
  left: 0;
  right: 0;
  z-index: 30;
  margin: 0;
  padding: 8px 12px;
  background: var(--paper);
  border: 1px solid var(--madder);
  color: var(--madder);
  border-radius: 3px;
  overflow-wrap: anywhere;
}
</style>
