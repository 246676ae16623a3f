<script setup lang="ts">
import type { Departure } from '@fadenweg/api';
import { computed, ref } from 'vue';
import { useRoute } from 'vue-router';
import OutcomeGlyph from '../glyphs/OutcomeGlyph.vue';
import { dayAndClock } from '../time/format.ts';
import { muchWords, outcomeOf, whenWords } from './departure-words.ts';
import NoteForm from './NoteForm.vue';

/** One thing that departs: what, since when, how much, whom it concerns, what changed before it; it leads to its strands. */
const props = defineProps<{ departure: Departure }>();
defineEmits<{ noted: [] }>();
const route = useRoute();
const outcome = computed(() => outcomeOf(props.departure));
/** The window of its strands: the whole, where it goes by a finding; else from when to when it lasted. */
const leads = computed(() => {
  const { finding, flows, from, to, what, change, host } = props.departure;
  const kept = { e: route.query.e };
  if (what === 'clock') return { name: 'sources', query: { tab: 'hosts', host: host || undefined } };
  if (finding !== null) return { name: 'strands', query: { ...kept, w: route.query.w, finding, began: 'true' } };
  if (flows.length === 0) return { name: 'changes', query: { ...kept, w: 'all', change: change?.id } };
  return { name: 'strands', query: { ...kept, flow: flows[0]!.flow || 'none', w: `${from}~${to}`, began: 'true', by: 'finding' } };
});
const whom = computed(() => {
  const { parties } = props.departure;
  const [first] = parties;
  if (!first) return '';
  return first.inside >= 0.8 * props.departure.count ? `only ${first.kind} ${first.value}` : '';
});
const facts = computed(() =>
  [
    muchWords(props.departure),
    whenWords(props.departure, props.departure.to),
    props.departure.flows.map((one) => one.label).join(', '),
    whom.value,
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
