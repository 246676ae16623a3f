<script setup lang="ts">
import type { Strand, StrandData } from '@fadenweg/api';
import { computed } from 'vue';
import { useRoute } from 'vue-router';
import { api } from '../api/client.ts';
import { useRequest } from '../api/use-request.ts';
import ProblemNote from '../frame/ProblemNote.vue';
import { clock, count } from '../time/format.ts';
import { touchWords } from './data-words.ts';
import TouchingRuns from './TouchingRuns.vue';

/** What a strand read and wrote: who brought it, and who came after. */
const props = defineProps<{ strand: Strand }>();
defineEmits<{ select: [record: string] }>();
const route = useRoute();
const { answer, problem, again } = useRequest(
  () => `${props.strand.id} ${props.strand.records}`,
  (signal) => api.get('/strands/{id}/data', { params: { id: props.strand.id } }, signal),
);
const items = computed(() => answer.value?.items ?? []);
const page = (one: StrandData) => ({ name: 'data', query: { e: route.query.e, w: route.query.w, as: `${one.name}~${one.environment}` } });
const amiss = computed(() => ['failed', 'stalled', 'odd'].includes(props.strand.outcome));
</script>
<template>
  <div>
    <ProblemNote v-if="problem" :problem="problem" @again="again" />
    <p v-else-if="!answer" class="soft" role="status">Looking at what it touched …</p>
    <p v-else-if="items.length === 0" class="soft">
      Its records name no file that is read or written, and no statement that names a table. Run events of OpenLineage tell it too, once they are brought
      in.
    </p>
    <section v-for="one in items" :key="`${one.way} ${one.name}`">
      <h2>
        <RouterLink :to="page(one)" class="mono">{{ one.name }}</RouterLink>
      </h2>
      <p :class="{ bad: one.failed }">
        {{ touchWords(one) }}, <button type="button" class="link" @click="$emit('select', one.record)">{{ clock(one.at) }}</button>
      </p>
      <p v-if="one.sameAs" class="bad" data-testid="same">
        The very same input as
        <RouterLink :to="{ name: 'strand', params: { id: one.sameAs.strand } }">{{ one.sameAs.name }}</RouterLink>: each other run had another one.
      </p>
      <template v-if="one.way === 'reads'">
        <p v-if="one.broughtBy" class="soft">Brought by</p>
        <TouchingRuns v-if="one.broughtBy" :runs="[one.broughtBy]" />
        <p v-else class="soft">No run is seen to have written it before.</p>
      </template>
      <template v-else>
        <p class="soft">
          {{
            one.after.length === 0
              ? 'Nobody is seen to have read it before it was written again.'
              : amiss
                ? `${count(one.after.length)}${one.afterCut ? ' and more' : ''} read it before it was written again, and may lack what went wrong here`
                : `${count(one.after.length)}${one.afterCut ? ' and more' : ''} read it before it was written again`
          }}
        </p>
        <TouchingRuns :runs="one.after" />
      </template>
    </section>
  </div>
</template>
<style scoped>
section {
  border-bottom: 1px solid var(--seam);
  padding: 4px 0 6px;
}
h2,
p {
  margin: 4px 0;
  overflow-wrap: anywhere;
}
.bad {
  color: var(--madder);
}
</style>
