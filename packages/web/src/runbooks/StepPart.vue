<script setup lang="ts">
import { filledText, type RunbookStep, type StepSum } from '@fadenweg/core/runbooks';
import { computed } from 'vue';
import ProblemNote from '../frame/ProblemNote.vue';
import OutcomeGlyph from '../glyphs/OutcomeGlyph.vue';
import { clock, count, dayAndClock } from '../time/format.ts';
import type { RunFrame, StepState } from './use-run.ts';

/** One step of a runbook: what it looks for, what it came to, and what that means. */
const props = defineProps<{
  step: RunbookStep;
  number: number;
  state: StepState;
  blanks: Readonly<Record<string, string>>;
  sums: Readonly<Record<string, StepSum>>;
  frame: RunFrame | null;
  ready: boolean;
}>();
const emit = defineEmits<{ run: [] }>();
const SHOWN = 6;
const result = computed(() => (props.state.state === 'done' ? props.state.result : null));
const hit = computed(() => (result.value?.sum.count ?? 0) > 0);
const meaning = computed(() => result.value && filledText(hit.value ? props.step.found : props.step.nothing, props.blanks, props.sums, dayAndClock));
const plain = (template: string): string => template.replace(/\{([a-z0-9-]+)\}/g, (place, name: string) => props.blanks[name] || place);
const looks = computed(() => {
  const { look } = props.step;
  if (look.what === 'records') return `records ${result.value?.q || look.q}`;
  if (look.what === 'changes') return `changes${look.component ? ` of ${plain(look.component)}` : ''}`;
  const parts = [
    look.among && `of step ${look.among}`,
    look.identifier && `of ${plain(look.identifier)}`,
    look.flow && plain(look.flow),
    look.outcome && plain(look.outcome).replaceAll(',', ' or '),
    look.failedIn && `in ${plain(look.failedIn)}`,
    look.component && `through ${plain(look.component)}`,
  ];
  return `strands ${parts.filter(Boolean).join(', ')}`;
});
const stretch = computed(() => {
  const { around } = props.step;
  if (!around) return '';
  return `from ${around.before} before ${around.at === 'first' ? 'the first' : 'each'} to ${around.after} behind, of step ${around.step}`;
});
/** Where the whole of it is to be seen. */
const link = computed(() => {
  const one = result.value;
  const { look } = props.step;
  if (!one || !props.frame || !hit.value) return null;
  const stretches = one.windows;
  const w = stretches.length > 0 ? `${stretches[0]!.from}~${stretches.at(-1)!.to}` : `${props.frame.from}~${props.frame.to}`;
  const e = props.frame.environment;
  if (look.what === 'records') return { name: 'find', query: { q: one.q, w, e, show: look.by === 'strand' ? 'strand' : undefined } };
  if (look.what === 'changes') return { name: 'changes', query: { w, e } };
  if (look.among) return null;
  const filter = { identifier: plain(look.identifier), flow: plain(look.flow), outcome: plain(look.outcome), failedIn: plain(look.failedIn) };
  return { name: 'strands', query: { ...Object.fromEntries(Object.entries(filter).filter(([, value]) => value !== '')), w, e } };
});
</script>
<template>
  <li class="step" :class="state.state">
    <div class="head">
      <span class="number mono">{{ number }}</span>
      <div class="what">
        <h3>{{ step.title }}</h3>
        <p class="soft mono looks">{{ looks }}</p>
        <p v-if="stretch" class="soft">{{ stretch }}</p>
      </div>
      <span v-if="result" class="count" role="status"
        ><b>{{ result.sum.partial ? '≥ ' : '' }}{{ count(result.sum.count) }}</b></span
      >
      <span v-else-if="state.state === 'runs'" class="soft" role="status">looking…</span>
      <v-btn variant="outlined" :disabled="!ready || state.state === 'runs'" @click="emit('run')">{{ result ? 'Again' : 'Run' }}</v-btn>
    </div>
    <ProblemNote v-if="state.state === 'failed'" :problem="state.problem" @again="emit('run')" />
    <template v-if="result">
      <p class="meaning" :class="{ hit }">{{ meaning }}</p>
      <ul v-if="result.strands.length" class="found">
        <li v-for="one in result.strands.slice(0, SHOWN)" :key="one.id">
          <OutcomeGlyph :outcome="one.outcome" />
          <RouterLink :to="{ name: 'strand', params: { id: one.id } }">{{ one.name }}</RouterLink>
          <span class="mono soft">{{ clock(one.startedAt) }}</span> <span class="line">{{ one.headline || one.flowLabel }}</span>
        </li>
      </ul>
      <ul v-else-if="result.changes.length" class="found">
        <li v-for="one in result.changes.slice(-SHOWN)" :key="one.id">
          <span class="mono soft">{{ dayAndClock(one.at) }}</span> {{ one.component || one.host }} <span class="line">{{ one.words }}</span>
        </li>
      </ul>
      <ul v-else-if="result.records.length" class="found">
        <li v-for="one in result.records.slice(0, SHOWN)" :key="one.id">
          <RouterLink class="mono" :to="{ name: 'record', params: { id: one.id } }">{{ clock(one.at) }}</RouterLink>
          <span class="name">{{ one.component }}</span> <span class="mono line">{{ one.message }}</span>
        </li>
      </ul>
      <p v-if="link" class="all"><RouterLink :to="link">see them all</RouterLink></p>
    </template>
  </li>
</template>
<style scoped>
.step {
  border: 1px solid var(--seam);
  background: var(--paper);
  border-radius: 3px;
  padding: 10px 14px;
  margin: 0 0 10px;
}
.head {
  display: flex;
  align-items: start;
  gap: 12px;
}
.number {
  color: var(--soft-ink);
  min-width: 18px;
  text-align: right;
  line-height: 24px;
}
.what {
  flex: 1;
  min-width: 0;
}
h3 {
  margin: 0;
  font-size: 15px;
  line-height: 24px;
}
.what p {
  margin: 0;
  overflow-wrap: anywhere;
}
.looks {
  font-size: 12.5px;
}
.count {
  font-size: 18px;
  line-height: 28px;
}
.meaning {
  margin: 8px 0 4px 30px;
  padding-left: 10px;
  border-left: 3px solid var(--undyed);
  overflow-wrap: anywhere;
}
.meaning.hit {
  border-color: var(--indigo);
}
.found {
  list-style: none;
  margin: 4px 0 0 30px;
  padding: 0;
}
.found li {
  display: flex;
  gap: 8px;
  align-items: center;
  white-space: nowrap;
  overflow: hidden;
}
.line {
  overflow: hidden;
  text-overflow: ellipsis;
}
.name {
  color: var(--indigo);
}
.all {
  margin: 4px 0 0 30px;
}
</style>
