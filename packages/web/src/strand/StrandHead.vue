<script setup lang="ts">
import type { Strand } from '@fadenweg/api';
import { computed } from 'vue';
import OutcomeGlyph from '../glyphs/OutcomeGlyph.vue';
import { OUTCOME_MEANINGS, OUTCOME_WORDS } from '../glyphs/outcomes.ts';
import ValueHandle from '../record/ValueHandle.vue';
import { ms } from '../strands/duration-text.ts';
import { clock, count, day, sameDay } from '../time/format.ts';
import FindingSentence from './FindingSentence.vue';

/** The answer first, in words; its parts lead to their evidence. */
const props = defineProps<{ strand: Strand }>();
defineEmits<{ select: [record: string] }>();
const components = computed(() => new Set(props.strand.steps.map((step) => step.component)).size);
const end = computed(() =>
  sameDay(props.strand.startedAt, props.strand.endedAt) ? clock(props.strand.endedAt) : `${day(props.strand.endedAt)} ${clock(props.strand.endedAt)}`,
);
const finding = computed(() => props.strand.findings[0] ?? null);
const calm = computed(() => {
  const { outcome, durationMs, usualMs } = props.strand;
  if (outcome !== 'done') return `${OUTCOME_WORDS[outcome]}: ${OUTCOME_MEANINGS[outcome]}.`;
  return usualMs ? `Done in ${ms(durationMs)}; usual ${ms(usualMs)}.` : `Done in ${ms(durationMs)}.`;
});
const parties = computed(() => props.strand.identifiers.filter((one) => one.role === 'shared'));
</script>
<template>
  <header class="head" :class="`outcome-${strand.outcome}`">
    <div class="title">
      <OutcomeGlyph :outcome="strand.outcome" :size="24" />
      <h1 class="id">{{ strand.name }}</h1>
      <p class="soft facts">
        {{ strand.flowLabel }} ·
        <template v-if="strand.businessId === null">no number of its own, named by its {{ strand.identifiers[0]?.label ?? strand.kind }} · </template>
        <template v-for="one in parties" :key="one.kind + one.value"
          >{{ one.label }} <ValueHandle :field="one.kind" :value="one.value" identifier party /> · </template
        >{{ day(strand.startedAt) }} {{ clock(strand.startedAt) }} to {{ end }} ·
        {{ strand.legs.length > 1 ? `${strand.legs.length} legs of together ` : '' }}{{ ms(strand.durationMs)
        }}<template v-if="strand.usualMs">, usual {{ ms(strand.usualMs) }}</template> · {{ count(strand.records) }} records from {{ components }}
        {{ components === 1 ? 'component' : 'components' }}
      </p>
    </div>
    <p v-if="finding" class="sentence" data-testid="sentence">
      <FindingSentence :finding="finding" @select="$emit('select', $event)" />
    </p>
    <p v-else class="sentence calm">{{ calm }}</p>
    <p v-if="strand.cut" class="soft">The first {{ count(strand.cut.followed) }} of {{ count(strand.cut.of) }} records are followed here.</p>
  </header>
</template>
<style scoped>
.head {
  padding: 10px 18px 12px;
  background: var(--paper);
  border-bottom: 1px solid var(--seam);
  color: var(--ink);
}
.title {
  display: flex;
  align-items: center;
  gap: 10px;
  min-width: 0;
}
.id {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
  flex: 0 1 auto;
  max-width: 46%;
}
.facts {
  margin: 0;
  flex: 1 1 0;
  min-width: 0;
}
.sentence {
  margin: 6px 0 0;
  font-size: 15.5px;
  line-height: 23px;
  max-width: 1180px;
  overflow-wrap: anywhere;
}
.head :deep(.handle) {
  font: inherit;
}
.outcome-failed .sentence :deep(b:first-child) {
  color: var(--madder);
}
.outcome-stalled .sentence :deep(b:first-child) {
  color: var(--heather);
}
.outcome-slow .sentence :deep(b:first-child) {
  color: var(--weld);
}
.outcome-refused .sentence :deep(b:first-child),
.outcome-doubled .sentence :deep(b:first-child),
.outcome-odd .sentence :deep(b:first-child) {
  color: var(--walnut);
}
.calm {
  color: var(--soft-ink);
}
</style>
