<script setup lang="ts">
import type { CallPage, CallStateName, CallSummary } from '@fadenweg/api';
import { computed, ref, shallowRef, watch } from 'vue';
import { useRouter } from 'vue-router';
import { api } from '../api/client.ts';
import { wordsOf } from '../api/problem-of.ts';
import { useRequest } from '../api/use-request.ts';
import ProblemNote from '../frame/ProblemNote.vue';
import SideSheet from '../frame/SideSheet.vue';
import { useAddressed } from '../frame/use-addressed.ts';
import { useChosenLine } from '../frame/use-chosen-line.ts';
import OutcomeGlyph from '../glyphs/OutcomeGlyph.vue';
import { useSummary } from '../stores/summary.ts';
import { ms } from '../strands/duration-text.ts';
import EmptyStrands from '../first/EmptyStrands.vue';
import { useAsked } from '../time/asked.ts';
import { count, dayAndClock } from '../time/format.ts';
import { calledWords, CALL_STATES, wentWords } from './call-words.ts';
import CallFacts from './CallFacts.vue';

/** Calls: a line each, by time or by how long they took; narrowed to numbers in any notation, and to how they went. */
const PAGE = 100;
const router = useRouter();
const store = useSummary();
const asked = useAsked();
const { text, adjust } = useAddressed();
const SORTS = [['-started', 'latest'], ['-postdial', 'longest unheard'], ['-setup', 'longest until taken'], ['-talking', 'longest talk'], ['talking', 'shortest talk']] as const; // prettier-ignore
const sort = computed(() => SORTS.find(([name]) => name === text('sort'))?.[0] ?? '-started');
const state = computed(() => (Object.keys(CALL_STATES) as CallStateName[]).find((one) => one === text('state')) ?? null);
const filters = computed(() => asked.value && { ...asked.value, number: text('number') || undefined });
const stamp = computed(() => `${store.summary?.strands} ${store.summary?.weaving}`);
const key = computed(() => (filters.value ? `${JSON.stringify(filters.value)} ${stamp.value}` : ''));
const ask = (after: string | undefined, signal?: AbortSignal): Promise<CallPage> =>
  api.get('/calls', { query: { ...filters.value!, sort: sort.value, state: state.value ?? undefined, limit: PAGE, after } }, signal);
const first = useRequest(
  () => `${key.value} ${sort.value} ${state.value}`,
  async (signal) => (filters.value ? ask(undefined, signal) : null),
);
const counts = useRequest(key, async (signal) => (filters.value ? api.get('/calls/counts', { query: filters.value }, signal) : null));
/** Pages behind the first. */
const further = shallowRef<CallSummary[]>([]);
const next = ref<string | null>(null);
const trouble = ref('');
watch(first.answer, (answer) => {
  further.value = [];
  next.value = answer?.next ?? null;
  trouble.value = '';
});
async function more(): Promise<void> {
  const from = first.answer.value;
  try {
    const page = await ask(next.value ?? undefined);
    if (first.answer.value !== from) return; // asked anew meanwhile
    further.value = [...further.value, ...page.items];
    next.value = page.next;
    trouble.value = '';
  } catch (error) {
    trouble.value = wordsOf(error);
  }
}
const items = computed(() => [...(first.answer.value?.items ?? []), ...further.value]);
const open = (call: CallSummary): void => void router.push({ name: 'strand', params: { id: call.strand }, query: { view: 'messages', tab: 'call' } });
const { selected } = useChosenLine(items, ({ strand }) => strand, 'call', open);
const one = useRequest(
  () => selected.value?.strand ?? '',
  async (signal) => (selected.value ? ((await api.get('/strands/{id}/call', { params: { id: selected.value.strand } }, signal)) ?? null) : null),
);
const numbers = ref(text('number'));
watch(() => text('number'), (now) => (numbers.value = now)); // prettier-ignore
const states = computed(() => (Object.keys(CALL_STATES) as CallStateName[]).filter((name) => counts.answer.value?.states[name]));
</script>
<template>
  <main class="calls">
    <EmptyStrands v-if="store.empty" />
    <template v-else>
      <section class="list" aria-labelledby="calls-title">
        <header>
          <h1 id="calls-title">Calls</h1>
          <form
            class="number"
            role="search"
            aria-label="Numbers of calls"
            @submit.prevent="adjust({ number: numbers.trim() || undefined, call: undefined })"
          >
            <label for="call-number" class="soft">from or to</label>
            <input id="call-number" v-model="numbers" type="search" maxlength="500" placeholder="numbers, in any notation" autocomplete="off" />
            <button type="submit">narrow</button>
          </form>
          <p v-if="counts.answer.value" class="soft facts" data-testid="sum">
            <button type="button" :aria-pressed="state === null" class="count" @click="adjust({ state: undefined, call: undefined })">
              {{ count(counts.answer.value.calls) }} {{ counts.answer.value.calls === 1 ? 'call' : 'calls' }}
            </button>
            <template v-for="name in states" :key="name"
              ><button type="button" class="count" :aria-pressed="state === name" @click="adjust({ state: name, call: undefined })">
                {{ count(counts.answer.value.states[name]!) }} {{ CALL_STATES[name] }}
              </button>
            </template>
          </p>
          <div class="order" role="group" aria-label="Order">
            <button
              v-for="[name, label] in SORTS"
              :key="name"
              type="button"
              :aria-pressed="sort === name"
              @click="adjust({ sort: name === '-started' ? undefined : name })"
            >
              {{ label }}
            </button>
          </div>
        </header>
        <ProblemNote v-if="first.problem.value" :problem="first.problem.value" @again="first.again" />
        <p v-else-if="!first.answer.value" class="soft wait" role="status">Looking at calls …</p>
        <p v-else-if="items.length === 0" class="soft wait">
          <template v-if="text('number') || state">
            No call fits.
            <button type="button" class="link" @click="adjust({ number: undefined, state: undefined })">Show all calls of this time</button>
          </template>
          <template v-else>
            No call began in this time. Calls are made of messages of SIP: traces of a switch, a gateway or a proxy, with their time and direction,
            brought in under <RouterLink to="/sources">Sources</RouterLink>.
          </template>
        </p>
        <template v-else>
          <div ref="body" class="lines" role="listbox" aria-label="Calls" data-lines tabindex="0">
            <div
              v-for="call in items"
              :key="call.strand"
              class="line"
              role="option"
              :aria-selected="call.strand === selected?.strand"
              @click="adjust({ call: call.strand })"
              @dblclick="open(call)"
            >
              <span class="when"><OutcomeGlyph :outcome="call.outcome" :size="14" /> {{ dayAndClock(call.startedAt).slice(5) }}</span>
              <span class="who mono">{{ call.caller.name || 'unknown' }}</span>
              <span class="who mono">{{ calledWords(call) }}</span>
              <span :class="{ bad: call.state === 'refused' }">{{ wentWords(call) }}</span>
              <span class="number">{{ call.postDialMs === null ? '' : ms(call.postDialMs) }}</span>
              <span class="number">{{ call.setUpMs === null ? '' : ms(call.setUpMs) }}</span>
              <span class="number">{{ call.talkingMs === null ? '' : ms(call.talkingMs) }}</span>
              <span class="soft">{{ call.endedBy ?? '' }}</span>
            </div>
          </div>
          <p v-if="trouble" class="further" role="alert">{{ trouble }}</p>
          <p v-if="next" class="further"><button type="button" class="link" @click="more">Show further calls</button></p>
          <div class="names soft" aria-hidden="true">
            <span>began</span><span>caller</span><span>called</span><span>went</span><span class="number">heard after</span
            ><span class="number">taken after</span><span class="number">talked</span><span>ended by</span>
          </div>
        </template>
      </section>
      <SideSheet :tabs="[{ name: 'call', label: 'Call' }]" tab="call">
        <template v-if="selected">
          <p class="headline">
            <OutcomeGlyph :outcome="selected.outcome" :size="16" />
            {{ selected.headline || wentWords(selected) }}
          </p>
          <CallFacts
            v-if="one.answer.value && one.answer.value.strand === selected.strand"
            :call="one.answer.value"
            @select="(id) => router.push({ name: 'strand', params: { id: selected!.strand }, query: { view: 'messages', tab: 'call', record: id } })"
          >
            <template #next
              >{{ ' · '
              }}<RouterLink :to="{ name: 'strand', params: { id: selected.strand }, query: { view: 'messages', tab: 'call' } }"
                >Its messages</RouterLink
              ></template
            >
          </CallFacts>
          <ProblemNote v-else-if="one.problem.value" :problem="one.problem.value" @again="one.again" />
          <p v-else class="soft" role="status">Reading its messages …</p>
        </template>
        <p v-else class="soft">Nothing is selected.</p>
      </SideSheet>
    </template>
  </main>
</template>
<style scoped src="../frame/list-beside.css"></style>
<style scoped>
.line,
.names {
  gap: 8px;
  grid-template-columns: 128px 116px minmax(116px, 1.3fr) minmax(84px, 1fr) 70px 66px 64px 54px;
}
.when {
  white-space: nowrap;
}
.who {
  overflow-wrap: anywhere;
}
.number {
  text-align: right;
}
.bad {
  color: var(--madder);
}
form.number {
  display: flex;
  gap: 8px;
  align-items: baseline;
  flex: 1;
  min-width: 260px;
}
form button {
  font: inherit;
  color: var(--ink);
  background: var(--paper);
  border: 1px solid var(--strong-seam);
  border-radius: 3px;
  padding: 3px 10px;
  cursor: pointer;
}
form input {
  flex: 1;
  max-width: 420px;
  font: inherit;
  color: var(--ink);
  background: var(--paper);
  border: 1px solid var(--strong-seam);
  border-radius: 3px;
  padding: 3px 8px;
}
.count {
  background: none;
  border: 0;
  padding: 3px 0;
  margin-right: 14px;
  font: inherit;
  color: inherit;
  cursor: pointer;
}
.count[aria-pressed='true'] {
  color: var(--indigo);
  font-weight: 700;
}
.further {
  order: 3;
  margin: 0;
  padding: 6px 16px;
  border-top: 1px solid var(--seam);
}
.headline {
  margin: 4px 0 8px;
}
</style>
