<script setup lang="ts">
import type { Departure } from '@fadenweg/api';
import { computed, ref } from 'vue';
import { useRoute } from 'vue-router';
import OutcomeGlyph from '../glyphs/OutcomeGlyph.vue';
import { againstLink } from '../against/against-link.ts';
import { dayAndClock } from '../time/format.ts';
import { muchWords, outcomeOf, whenWords } from './departure-words.ts';
import NoteForm from './NoteForm.vue';

/** One thing that departs: what, since when, how much, whom it concerns, what changed before it; it leads to its strands. */
const props = defineProps<{ departure: Departure }>();
defineEmits<{ noted: [] }>();
const [DAY, TEN_MINUTES] = [86_400_000, 600_000];
const route = useRoute();
const outcome = computed(() => outcomeOf(props.departure));
/** The window of its strands: the whole, where it goes by a finding; else from when to when it lasted. */
const leads = computed(() => {
  const { finding, flows, from, to, what, change, host, isOfSchedule } = props.departure;
  const kept = { e: route.query.e };
  if (what === 'clock') return { name: 'sources', query: { tab: 'hosts', host: host || undefined } };
  if (isOfSchedule === true) return { name: 'jobs', query: { ...kept, w: route.query.w } };
  if (finding !== null) return { name: 'strands', query: { ...kept, w: route.query.w, finding, began: 'true' } };
  if (flows.length === 0) return { name: 'changes', query: { ...kept, w: 'all', change: change?.id } };
  return { name: 'strands', query: { ...kept, flow: flows[0]!.flow || 'none', w: `${from}~${to}`, began: 'true', by: 'finding' } };
});
/** Whom, and which host, most of it concerns. */
const most = <T extends { inside: number }>([first]: readonly T[]): T | null => (first && first.inside >= 0.8 * props.departure.count ? first : null);
const whom = computed(() => most(props.departure.parties));
const where = computed(() => most(props.departure.hosts));
/** What of it can be set against all others, around the time at which it departs. */
const things = computed(() => {
  const { component, host } = props.departure;
  const at = where.value?.value ?? host;
  return [
    ...(whom.value ? [{ what: 'party' as const, name: whom.value.value, of: whom.value.kind }] : []),
    ...(component === '' ? [] : [{ what: 'component' as const, name: component }]),
    ...(at === '' ? [] : [{ what: 'host' as const, name: at }]),
  ];
});
/** Its time, as far as shapes are counted by it: ten minutes at least, a day at most. */
const saidAt = computed(() => {
  const [from, to] = [Date.parse(props.departure.from), Date.parse(props.departure.to)];
  if (props.departure.flows.length === 0 || to - from > DAY) return null;
  const end = Math.max(to, from + TEN_MINUTES);
  return { name: 'shapes', query: { e: route.query.e, w: `${new Date(from).toISOString()}~${new Date(end).toISOString()}` } };
});
const facts = computed(() =>
  [
    muchWords(props.departure),
    whenWords(props.departure, props.departure.to),
    props.departure.flows.map((one) => one.label).join(', '),
    whom.value ? `only ${whom.value.kind} ${whom.value.value}` : '',
    where.value ? `only on ${where.value.value}` : '',
  ].filter((one) => one !== ''),
);
const noting = ref(false);
</script>
<template>
  <div class="line">
    <OutcomeGlyph v-if="outcome" :outcome="outcome" :size="20" />
    <svg v-else width="20" height="20" viewBox="0 0 18 18" class="plain" aria-hidden="true">
      <path d="M2 9 H16" fill="none" stroke="currentColor" stroke-width="2" stroke-dasharray="3 2.5" />
    </svg>
    <div class="words">
      <RouterLink :to="leads" class="title" :title="departure.title">{{ departure.title }}</RouterLink>
      <p class="soft">
        {{ facts.join(' · ') }}
        <template v-if="things.length > 0">
          · against everybody:
          <template v-for="(one, i) in things" :key="one.what"
            >{{ i === 0 ? '' : ', ' }}<RouterLink :to="againstLink(one, route.query)">{{ one.name }}</RouterLink></template
          >
        </template>
        <template v-if="saidAt"> · <RouterLink :to="saidAt">what is said otherwise then</RouterLink></template>
        <button type="button" class="link small" :aria-expanded="noting" @click="noting = !noting">
          {{ departure.noted ? 'change the note' : 'note it' }}<span class="visually-hidden">: in hand, or tolerated</span>
        </button>
      </p>
      <p v-if="departure.change && departure.flows.length > 0" class="soft">
        after
        <RouterLink :to="{ name: 'changes', query: { w: 'all', e: route.query.e, change: departure.change.id } }">{{
          departure.change.words
        }}</RouterLink>
        at {{ dayAndClock(departure.change.at).slice(11, 16) }}
      </p>
      <p v-if="departure.noted" class="noted">
        <b>{{ departure.noted.state === 'in-hand' ? 'in hand' : 'tolerated' }}</b>
        {{ departure.noted.until ? `until ${dayAndClock(departure.noted.until)}` : '' }} by {{ departure.noted.by
        }}<template v-if="departure.noted.note">: {{ departure.noted.note }}</template
        ><b v-if="departure.noted.worse"> · worse since</b>
      </p>
      <NoteForm
        v-if="noting"
        :departure="departure"
        @done="
          noting = false;
          $emit('noted');
        "
      />
    </div>
  </div>
</template>
<style scoped>
.line {
  display: flex;
  gap: 10px;
}
.plain {
  flex: none;
  color: var(--soft-ink);
}
.words {
  min-width: 0;
  flex: 1;
}
.title {
  font-weight: 600;
  overflow-wrap: anywhere;
  text-decoration-color: transparent;
  line-height: 19px;
  display: -webkit-box;
  -webkit-box-orient: vertical;
  -webkit-line-clamp: 3;
  overflow: hidden;
}
.title:hover {
  text-decoration-color: var(--indigo);
}
p {
  margin: 1px 0;
  line-height: 18px;
  overflow-wrap: anywhere;
}
.noted {
  border-left: 3px solid var(--indigo);
  padding-left: 6px;
}
.small {
  min-height: 24px;
  font-size: 12px;
  color: var(--soft-ink);
}
</style>
