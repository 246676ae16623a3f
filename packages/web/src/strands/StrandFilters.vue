<script setup lang="ts">
import type { Flow, FlowCount, Outcome } from '@fadenweg/api';
import { durationOf } from '@fadenweg/core/search';
import { WEIGHTS } from '@fadenweg/core/weights';
import { computed } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import OutcomeGlyph from '../glyphs/OutcomeGlyph.vue';
import { OUTCOME_MEANINGS, OUTCOME_WORDS, OUTCOMES } from '../glyphs/outcomes.ts';
import { count } from '../time/format.ts';

const props = defineProps<{ counts: FlowCount[]; quiet: number; flows: Flow[]; components: readonly string[] }>();
const route = useRoute();
const router = useRouter();
const chosen = (name: 'flow' | 'outcome'): string[] =>
  typeof route.query[name] === 'string' && route.query[name] !== '' ? (route.query[name] as string).split(',') : [];
const inFlows = computed(() => chosen('flow'));
const inOutcomes = computed(() => chosen('outcome'));
const sum = (keep: (one: FlowCount) => boolean): number => props.counts.filter(keep).reduce((total, one) => total + one.count, 0);
const flowRows = computed(() => {
  const names = new Set(props.counts.map((one) => one.flow ?? 'none'));
  return [...names]
    .map((name) => ({
      name,
      label: name === 'none' ? 'other strands' : (props.flows.find((flow) => flow.name === name)?.label ?? name),
      count: sum((one) => (one.flow ?? 'none') === name && (inOutcomes.value.length === 0 || inOutcomes.value.includes(one.outcome))),
    }))
    .sort((a, b) => a.label.localeCompare(b.label));
});
const outcomeRows = computed(() =>
  OUTCOMES.map((outcome) => ({
    outcome,
    count: sum((one) => one.outcome === outcome && (inFlows.value.length === 0 || inFlows.value.includes(one.flow ?? 'none'))),
    any: props.counts.some((one) => one.outcome === outcome),
  })).filter((row) => row.any || inOutcomes.value.includes(row.outcome)),
);
function toggle(name: 'flow' | 'outcome', value: string): void {
  const now = chosen(name);
  const next = now.includes(value) ? now.filter((one) => one !== value) : [...now, value];
  void router.push({ query: { ...route.query, [name]: next.length > 0 ? next.join(',') : undefined } });
}
const NAMES = ['flow', 'outcome', 'identifier', 'component', 'host', 'failedIn', 'finding', 'fault', 'mentions', 'began', 'minMs', 'weight'];
const clear = (): void => void router.push({ query: { ...route.query, ...Object.fromEntries(NAMES.map((name) => [name, undefined])) } });
const any = computed(() => NAMES.some((name) => typeof route.query[name] === 'string'));
const one = (name: string): string => (typeof route.query[name] === 'string' ? (route.query[name] as string) : '');
/** A finding is named by its kind and where it was: the rest of its signature is for machines. */
function pieceWords(name: string): string {
  if (name === 'began') return 'began in the window';
  if (name === 'fault') return 'failed by one fault';
  if (name === 'mentions') return 'with an error that followed';
  if (name === 'host') return `on host ${one(name)}`;
  if (name === 'failedIn') return `gave up in ${one(name)}`;
  if (name !== 'finding') return one(name);
  const [kind = '', failedIn = '', component = ''] = one(name).split('|');
  return `one finding: ${kind.replace('-', ' ')} ${component === failedIn ? component : `${component}, given up by ${failedIn}`}`;
}
const without = (name: string): void => void router.push({ query: { ...route.query, [name]: undefined } });
const common = (): void => void router.push({ query: { ...route.query, common: one('common') ? undefined : 'yes' } });
const groupBy = (by: string): void => void router.push({ query: { ...route.query, by: by || undefined } });
const showQuiet = (): void => void router.push({ query: { ...route.query, quiet: one('quiet') === 'show' ? undefined : 'show' } });
const component = computed(() => (typeof route.query.component === 'string' ? route.query.component : ''));
const weighs = (name: string): void => void router.push({ query: { ...route.query, weight: name || undefined } });
const through = (name: string): void => void router.push({ query: { ...route.query, component: name || undefined } });
/** As it is typed: `500ms`, `2s`, `5min`. */
const longer = computed(() => {
  const ms = Number(route.query.minMs ?? NaN);
  return Number.isNaN(ms) ? '' : ms % 60_000 === 0 ? `${ms / 60_000}min` : ms % 1000 === 0 ? `${ms / 1000}s` : `${ms}ms`;
});
function longerThan(field: HTMLInputElement): void {
  const duration = field.value.trim() === '' ? null : durationOf(field.value);
  field.setCustomValidity(duration === null || duration >= 0 ? '' : 'Write a duration such as 500ms, 2s or 5min.');
  if (field.reportValidity()) void router.push({ query: { ...route.query, minMs: duration === null ? undefined : String(duration / 1000) } });
}
</script>
<template>
  <div class="filters" role="group" aria-label="Filters">
    <button
      v-for="flow in flowRows"
      :key="flow.name"
      type="button"
      class="piece"
      :aria-pressed="inFlows.includes(flow.name)"
      @click="toggle('flow', flow.name)"
    >
      {{ flow.label }} <span class="soft">{{ count(flow.count) }}</span>
    </button>
    <span v-if="flowRows.length > 0" class="between" aria-hidden="true"></span>
    <button
      v-for="row in outcomeRows"
      :key="row.outcome"
      type="button"
      class="piece"
      :aria-pressed="inOutcomes.includes(row.outcome)"
      :title="OUTCOME_MEANINGS[row.outcome as Outcome]"
      @click="toggle('outcome', row.outcome)"
    >
      <OutcomeGlyph :outcome="row.outcome" :size="16" silent /> {{ OUTCOME_WORDS[row.outcome] }} <span class="soft">{{ count(row.count) }}</span>
    </button>
    <span v-if="outcomeRows.length > 0" class="between" aria-hidden="true"></span>
    <label
      >through
      <select class="input" :value="component" @change="(event) => through((event.target as HTMLSelectElement).value)">
        <option value="">any component</option>
        <option v-for="name in components" :key="name">{{ name }}</option>
      </select></label
    >
    <label
      >at least
      <input
        class="input duration"
        :value="longer"
        placeholder="2s"
        maxlength="12"
        aria-label="At least so long, for example 2s"
        @change="(event) => longerThan(event.target as HTMLInputElement)"
    /></label>
    <label
      >weighs
      <select class="input" :value="one('weight')" @change="(event) => weighs((event.target as HTMLSelectElement).value)">
        <option value="">whatever</option>
        <option v-for="name in WEIGHTS.slice(1)" :key="name" :value="name">{{ name }}{{ name === 'grave' ? '' : ' or more' }}</option>
      </select></label
    >
    <label
      >grouped by
      <select class="input" :value="one('by')" @change="(event) => groupBy((event.target as HTMLSelectElement).value)">
        <option value="">nothing</option>
        <option value="flow">flow</option>
        <option value="party">party</option>
        <option value="failed-in">where it gave up</option>
        <option value="finding">first finding</option>
      </select></label
    >
    <button
      v-for="name in ['identifier', 'failedIn', 'finding', 'fault', 'mentions', 'began'].filter(one)"
      :key="name"
      type="button"
      class="piece"
      aria-pressed="true"
      @click="without(name)"
    >
      {{ pieceWords(name) }} <span aria-hidden="true">×</span><span class="visually-hidden">, leave it out</span>
    </button>
    <button v-if="any && !one('by')" type="button" class="link clear" :aria-pressed="one('common') !== ''" @click="common">
      what these have in common
    </button>
    <button v-if="any" type="button" class="link clear" @click="clear">clear all</button>
    <button v-if="quiet > 0 || one('quiet') === 'show'" type="button" class="link clear" :aria-pressed="quiet === 0" @click="showQuiet">
      {{ quiet > 0 ? `${count(quiet)} of mended or tolerated faults out of sight · show` : 'without those of mended or tolerated faults' }}
    </button>
  </div>
</template>
<style scoped>
.filters {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  align-items: center;
  padding: 10px 16px;
  border-bottom: 1px solid var(--seam);
}
.piece {
  border: 1px solid var(--strong-seam);
  background: var(--paper);
  border-radius: 3px;
  padding: 2px 9px;
  font: inherit;
  color: var(--ink);
  cursor: pointer;
  white-space: nowrap;
}
.piece[aria-pressed='true'] {
  background: var(--indigo-wash);
  border-color: var(--indigo);
  font-weight: 600;
}
.between {
  width: 1px;
  height: 20px;
  background: var(--strong-seam);
  margin: 0 4px;
}
.duration {
  width: 64px;
}
label {
  white-space: nowrap;
}
.clear {
  margin-left: 6px;
}
</style>
