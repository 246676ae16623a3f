<script setup lang="ts">
import type { Finding } from '@fadenweg/api';
import ValueHandle from '../record/ValueHandle.vue';
import { clock } from '../time/format.ts';

/** What a finding says, in the time of who reads it; each part leads to its evidence. */
const props = defineProps<{ finding: Finding }>();
defineEmits<{ select: [record: string] }>();
/** The record that a time in the sentence belongs to: the one that is quoted next. */
function toldAt(index: number): string {
  const next = props.finding.parts.slice(index).find((part) => part.kind === 'quote');
  return next?.kind === 'quote' ? next.record : props.finding.record.id;
}
</script>
<template>
  <template v-for="(part, index) in finding.parts" :key="index"
    ><b v-if="index === 0">{{ 'text' in part ? part.text : '' }}</b
    ><button v-else-if="part.kind === 'quote'" type="button" class="link" @click="$emit('select', part.record)">“{{ part.text }}”</button
    ><button v-else-if="part.kind === 'time'" type="button" class="link" @click="$emit('select', toldAt(index))">{{ clock(part.at) }}</button
    ><b v-else-if="part.kind === 'component'"><ValueHandle field="component" :value="part.text" /></b
    ><template v-else>{{ part.text }}</template></template
  >
</template>
<style scoped>
.link {
  text-align: left;
}
</style>
