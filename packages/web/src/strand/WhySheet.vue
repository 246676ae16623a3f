<script setup lang="ts">
import type { Finding, Strand, StrandFault } from '@fadenweg/api';
import { useRoute } from 'vue-router';
import { standingWords } from '../faults/fault-words.ts';
import { ms } from '../strands/duration-text.ts';
import { count, dayAndClock } from '../time/format.ts';
import FindingSentence from './FindingSentence.vue';
import KnownCauses from './KnownCauses.vue';
import NearestChange from './NearestChange.vue';
const route = useRoute();
const HALF_A_DAY = 43_200_000;
defineProps<{ strand: Strand }>();
defineEmits<{ select: [record: string]; compare: [beside: string | undefined] }>();
const sure = (confidence: number): string => (confidence >= 0.85 ? 'very likely' : confidence >= 0.65 ? 'likely' : 'possible');
const NAMES = {
  'failed-at': 'Failed here',
  'stopped-before': 'Stopped here',
  'slowed-by': 'Slowed here',
  'went-astray': 'Went astray',
  doubled: 'Processed twice',
  refused: 'Refused',
  'odd-volume': 'Unexpected volume',
  'odd-result': 'Unexpected result',
} as const;
/** All times and flows: what is alike need not have happened in the window. */
/** Of half a day to both sides: what one looks at first. */
const fault = ({ id }: StrandFault, startedAt: string) => ({
  name: 'faults',
  query: {
    fault: String(id),
    e: route.query.e,
    w: [-1, 1].map((by) => new Date(Date.parse(startedAt) + by * HALF_A_DAY).toISOString()).join('~'),
    all: '1',
  },
});
const alike = (finding: Finding) => ({ name: 'strands', query: { finding: finding.signature, w: 'all' } });
</script>
<template>
  <div>
    <p v-if="strand.findings.length === 0" class="soft">
      Nothing departs from what is declared and from what is usual: no error that stayed, no refusal, nothing late, an end that was reached.
    </p>
    <section v-for="finding in strand.findings" :key="finding.rank" class="finding">
      <h2>
        {{ finding.rank }} · {{ NAMES[finding.kind] }} <span class="soft sure">{{ sure(finding.confidence) }}</span>
      </h2>
      <p>
        <b>{{ finding.component }}</b><template v-if="finding.failedIn !== finding.component"
          >, given up by <b>{{ finding.failedIn }}</b></template
        ><template v-if="finding.missingNext"
          >; next should have been <b>{{ finding.missingNext }}</b></template
        ><template v-if="finding.excessMs !== null"
          >; <b>{{ ms(finding.excessMs) }}</b> more than usual</template
        >
      </p>
      <button type="button" class="quote mono" @click="$emit('select', finding.record.id)">{{ finding.record.text.split('\n')[0] }}</button>
      <p class="soft place mono">{{ finding.record.source }}:{{ finding.record.line }}</p>
      <p v-if="finding.rank > 1" class="more"><FindingSentence :finding="finding" @select="$emit('select', $event)" /></p>
      <p v-if="finding.causedBy">
        {{ finding.kind === 'doubled' ? 'The first is' : 'Held up by' }}
        <RouterLink :to="{ name: 'strand', params: { id: finding.causedBy.strand } }" class="mono">{{
          finding.causedBy.strand.replace(/^[^:]*:/, '')
        }}</RouterLink>
      </p>
      <p v-if="finding.similar">
        <RouterLink :to="alike(finding)"
          >{{ count(finding.similar.count) }} {{ finding.similar.count === 1 ? 'strand' : 'strands' }} like it</RouterLink
        >
        <span class="soft"> since {{ dayAndClock(finding.similar.since) }}</span>
      </p>
      <p v-else class="soft">{{ finding.rank === 1 ? 'No other strand is like it.' : 'No other strand has it as its first finding.' }}</p>
      <p v-if="finding.rank === 1 && strand.fault !== null">
        Its fault: <RouterLink :to="fault(strand.fault, strand.startedAt)">{{ strand.fault.title }}</RouterLink><span class="soft"
          >, {{ standingWords(strand.fault) }}</span
        >
      </p>
      <NearestChange v-if="finding.nearestChange" :change="finding.nearestChange" />
      <KnownCauses :finding="finding" :strand="strand.id" />
      <p class="soft">
        Rests on {{ finding.evidence.length }} {{ finding.evidence.length === 1 ? 'record' : 'records' }}:
        <template v-for="(id, index) in finding.evidence" :key="id"
          ><template v-if="index">, </template><button type="button" class="link" @click="$emit('select', id)">{{ index + 1 }}</button></template
        >
      </p>
    </section>
    <p v-if="strand.flow">
      Compare it with <button type="button" class="link" @click="$emit('compare', undefined)">the usual {{ strand.flowLabel }}</button>, or with
      <button type="button" class="link" @click="$emit('compare', 'good')">the nearest good one</button>
    </p>
    <section v-if="strand.related.length" class="related">
      <h2>Related</h2>
      <ul>
        <li v-for="one in strand.related.slice(0, 30)" :key="one.strand">
          <RouterLink :to="{ name: 'strand', params: { id: one.strand } }" class="mono">{{ one.name }}</RouterLink>
          <span class="soft">{{ one.flowLabel }}, {{ one.why }}</span>
        </li>
      </ul>
      <p v-if="strand.related.length > 30" class="soft">and {{ strand.related.length - 30 }} more</p>
    </section>
  </div>
</template>
<style scoped>
.finding {
  margin-bottom: 14px;
}
p {
  margin: 3px 0;
}
.sure {
  font-weight: 400;
  margin-left: 6px;
}
.quote {
  display: block;
  width: 100%;
  text-align: left;
  background: var(--linen);
  border: 1px solid var(--seam);
  border-left: 3px solid var(--madder);
  padding: 4px 8px;
  margin: 4px 0;
  color: var(--ink);
  cursor: pointer;
  overflow-wrap: anywhere;
  white-space: normal;
  line-height: 18px;
}
.place {
  overflow-wrap: anywhere;
  line-height: 16px;
}
.more {
  overflow-wrap: anywhere;
}
.more :deep(.handle) {
  font: inherit;
}
.related {
  border-top: 1px solid var(--seam);
  padding-top: 10px;
}
ul {
  list-style: none;
  padding: 0;
  margin: 4px 0;
}
li {
  overflow-wrap: anywhere;
}
</style>
