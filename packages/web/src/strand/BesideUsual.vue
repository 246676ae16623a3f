<script setup lang="ts">
import type { ComparedLine, Strand } from '@fadenweg/api';
import { computed, ref } from 'vue';
import { api } from '../api/client.ts';
import { useRequest } from '../api/use-request.ts';
import ProblemNote from '../frame/ProblemNote.vue';
import { ms } from '../strands/duration-text.ts';
import { count, day } from '../time/format.ts';

/** The strand line by line beside what is usual for its flow: first what departs, all lines on demand. */
const props = defineProps<{ strand: Strand }>();
defineEmits<{ select: [record: string] }>();
const compared = useRequest([() => props.strand.id], () => api.get('/strands/{id}/against-usual', { params: { id: props.strand.id } })); // prettier-ignore
const all = ref(false);
const WORDS: Record<ComparedLine['kind'], string> = {
  'as usual': '',
  late: 'late',
  missing: 'missing',
  extra: 'extra',
  repeated: 'repeated',
  number: 'number',
};
const lines = computed(() => compared.answer.value?.lines ?? []);
const departing = computed(() => lines.value.filter((line) => line.kind !== 'as usual'));
const shown = computed(() => (all.value ? lines.value : departing.value));
/** How far a time goes towards what 99 of 100 stay within, at most three times of it. */
const filled = (line: ComparedLine): number => (line.tookMs === null || !line.p99Ms ? 0 : Math.min(100, (line.tookMs / (3 * line.p99Ms)) * 100));
const share = (line: ComparedLine): string =>
  line.share >= 0.995 ? 'nearly all have it' : line.share < 0.005 ? 'hardly any has it' : `${Math.round(line.share * 100)} % have it`;
</script>
<template>
  <div>
    <ProblemNote v-if="compared.problem.value" :problem="compared.problem.value" @again="compared.again" />
    <p v-else-if="compared.loading.value && !compared.answer.value" class="soft" role="status">Comparing…</p>
    <p v-else-if="!compared.answer.value" class="soft">
      What is usual for {{ strand.flowLabel || 'it' }} is not known yet: too few of its strands went well.
    </p>
    <template v-else>
      <p>
        <b>{{ ms(compared.answer.value.wholeMs) }}</b> from its first record to its last; usually {{ ms(compared.answer.value.usualMs) }}, 99 of 100
        within {{ ms(compared.answer.value.p99Ms) }}.
      </p>
      <p class="soft">
        Learned from {{ count(compared.answer.value.legs) }} that went well since {{ day(compared.answer.value.since) }}:
        <RouterLink :to="{ name: 'usual', params: { name: compared.answer.value.flow } }">the usual {{ compared.answer.value.flowLabel }}</RouterLink>
      </p>
      <p class="choice" role="group" aria-label="Lines">
        <button type="button" class="link" :aria-pressed="!all" @click="all = false">what departs ({{ departing.length }})</button> ·
        <button type="button" class="link" :aria-pressed="all" @click="all = true">all lines ({{ lines.length }})</button>
      </p>
      <p v-if="shown.length === 0" class="soft">Line by line as usual.</p>
      <ol>
        <li v-for="(line, index) in shown" :key="index" :class="`is-${line.kind.replace(' ', '-')}`">
          <p class="head">
            <b>{{ line.component }}</b> <span v-if="WORDS[line.kind]" class="kind">{{ WORDS[line.kind] }}</span>
            <span v-if="line.kind === 'repeated'" class="soft">{{ line.times }} times</span>
          </p>
          <button v-if="line.record" type="button" class="words mono" @click="$emit('select', line.record)">{{ line.text }}</button>
          <p v-else class="words mono gone">{{ line.text }}</p>
          <p class="soft">
            <template v-if="line.tookMs !== null"
              >{{ ms(line.tookMs) }} after what comes before it, usually {{ ms(line.usualMs ?? 0) }}
              <span class="bar" aria-hidden="true"><i :style="{ width: `${filled(line)}%` }"></i><u></u></span
            ></template>
            <template v-else-if="line.usualMs !== null">usually {{ ms(line.usualMs) }} after what comes before it</template>
            <template v-if="line.kind === 'missing' || line.kind === 'extra'">{{ line.usualMs === null ? '' : ' · ' }}{{ share(line) }}</template>
          </p>
        </li>
      </ol>
    </template>
  </div>
</template>
<style scoped>
p {
  margin: 3px 0;
}
.choice {
  margin: 8px 0;
}
.choice [aria-pressed='true'] {
  color: var(--ink);
  font-weight: 600;
  text-decoration: none;
}
ol {
  list-style: none;
  margin: 0;
  padding: 0;
}
li {
  border-left: 3px solid var(--seam);
  padding: 2px 0 4px 8px;
  margin-bottom: 6px;
}
li.is-late {
  border-color: var(--weld);
}
li.is-missing {
  border-left-style: dashed;
  border-color: var(--heather);
}
li.is-extra,
li.is-number,
li.is-repeated {
  border-color: var(--madder);
}
.kind {
  margin-left: 6px;
  font-size: 12px;
  border: 1px solid var(--strong-seam);
  border-radius: 3px;
  padding: 0 5px;
}
.words {
  display: block;
  width: 100%;
  text-align: left;
  background: none;
  border: 0;
  padding: 0;
  color: var(--ink);
  overflow-wrap: anywhere;
  white-space: normal;
  line-height: 17px;
}
button.words {
  cursor: pointer;
}
button.words:hover {
  text-decoration: underline;
}
.gone {
  color: var(--soft-ink);
}
.bar {
  display: inline-block;
  position: relative;
  width: 90px;
  height: 8px;
  margin-left: 6px;
  background: var(--linen);
  border: 1px solid var(--seam);
}
.bar i {
  position: absolute;
  left: 0;
  top: 0;
  bottom: 0;
  background: var(--indigo);
}
.is-late .bar i {
  background: var(--weld);
}
/* what 99 of 100 stay within */
.bar u {
  position: absolute;
  left: 33.3%;
  top: -2px;
  bottom: -2px;
  border-left: 1px solid var(--ink);
}
</style>
