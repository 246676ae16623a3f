<script setup lang="ts">
import type { StrandSummary } from '@fadenweg/api';
import OutcomeGlyph from '../glyphs/OutcomeGlyph.vue';
import { OUTCOME_WORDS } from '../glyphs/outcomes.ts';
import { clock, count, day } from '../time/format.ts';
import DurationMark from './DurationMark.vue';
import { ms } from './duration-text.ts';
import { partiesText, type StrandField } from './strand-columns.ts';

/** One cell of the list of strands; a click on a value of it tells what can be done with it. */
const props = defineProps<{ item: StrandSummary; field: StrandField }>();
const emit = defineEmits<{ take: [field: string] }>();
const at = (): string => (props.field === 'end' ? props.item.endedAt : props.item.startedAt);
</script>
<template>
  <span v-if="field === 'outcome'" role="cell" class="outcome" data-field="outcome"
    ><OutcomeGlyph :outcome="item.outcome" silent />&nbsp;<span class="value" @click.stop="emit('take', 'outcome')">{{
      OUTCOME_WORDS[item.outcome]
    }}</span></span
  >
  <span v-else-if="field === 'identifier'" role="cell" class="mono cutting" data-field="identifier"
    ><RouterLink :to="{ name: 'strand', params: { id: item.id } }" tabindex="-1" :title="item.name" @click.stop>{{ item.name }}</RouterLink></span
  >
  <span v-else-if="field === 'flow'" role="cell" class="cutting" data-field="flow"
    ><span class="value" @click.stop="emit('take', 'flow')">{{ item.flowLabel }}</span></span
  >
  <span v-else-if="field === 'begin' || field === 'end'" role="cell" class="mono begin"
    ><span class="soft">{{ day(at()).slice(5) }}</span> {{ clock(at(), 3) }}</span
  >
  <span v-else-if="field === 'duration'" role="cell" class="number">{{ ms(item.durationMs) }}</span>
  <span v-else-if="field === 'usual'" role="cell" class="against"><DurationMark :duration-ms="item.durationMs" :usual-ms="item.usualMs" /></span>
  <span v-else-if="field === 'records'" role="cell" class="number">{{ count(item.records) }}</span>
  <span v-else-if="field === 'gave-up'" role="cell" class="mono cutting" :title="item.failedIn ?? ''">{{ item.failedIn ?? '' }}</span>
  <span v-else-if="field === 'weight'" role="cell">{{ item.weight }}</span>
  <span v-else-if="field === 'environment'" role="cell" class="cutting" :title="item.environment">{{ item.environment }}</span>
  <span
    v-else
    role="cell"
    class="cutting"
    :data-field="field === 'happened' ? 'happened' : 'parties'"
    :title="field === 'happened' ? item.headline || partiesText(item) : partiesText(item)"
    ><template v-if="field === 'happened' && item.headline">{{ item.headline }}</template
    ><span v-else class="soft"
      ><template v-for="(party, i) in item.parties" :key="party.kind + party.value"
        ><template v-if="i > 0"> · </template
        ><span class="value" @click.stop="emit('take', party.kind)">{{ party.kind }} {{ party.value }}</span></template
      ></span
    ></span
  >
</template>
<style scoped>
.cutting {
  overflow: hidden;
  text-overflow: ellipsis;
}
.cutting a {
  text-decoration: none;
}
.value:hover {
  text-decoration: underline;
  text-underline-offset: 3px;
}
.against svg {
  margin: 0;
}
</style>
