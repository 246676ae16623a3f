<script setup lang="ts">
import type { Fault, FaultDetail } from '@fadenweg/api';
import { faultTitle } from '@fadenweg/core/faults';
import { computed } from 'vue';
import { useRoute } from 'vue-router';
import { againstLink } from '../against/against-link.ts';
import CourseList from '../time/CourseList.vue';
import { count, dayAndClock } from '../time/format.ts';
import { hitWords, saidWords, STATE_WORDS, whyTogether } from './fault-words.ts';
import FaultForm from './FaultForm.vue';
import FaultHands from './FaultHands.vue';
import FaultWays from './FaultWays.vue';

/** A fault: how strands come to it, since when, whom it hits more than others, what followed, an example, what was said of it. */
const props = defineProps<{ fault: FaultDetail; others: readonly Fault[] }>();
defineEmits<{ said: []; open: [id: number] }>();
const route = useRoute();
const strands = computed(() => ({ name: 'strands', query: { e: route.query.e, w: route.query.w, began: 'true', fault: String(props.fault.id) } }));
const mentions = computed(() => ({
  name: 'strands',
  query: { e: route.query.e, w: route.query.w, began: 'true', mentions: String(props.fault.id) },
}));
const records = computed(() => ({
  name: 'find',
  query: {
    e: route.query.e,
    w: route.query.w,
    quiet: 'show',
    q: `where fault in (${[props.fault.id, ...props.fault.together.map((one) => one.id)].join(', ')})`,
  },
}));
const course = computed(() => props.fault.course.map((some, i) => ({ at: props.fault.bounds[i]!, count: some })));
</script>
<template>
  <article class="fault" :aria-label="faultTitle(fault)">
    <h2>{{ faultTitle(fault) }}</h2>
    <p class="soft">
      {{ fault.component }} · <b>{{ STATE_WORDS[fault.state] }}</b>, {{ fault.weight }}{{ fault.owner === '' ? '' : `, ${fault.owner}` }}
    </p>
    <p>{{ hitWords(fault) }}.</p>
    <p class="acts">
      <RouterLink v-if="fault.strands > 0" :to="strands">its {{ count(fault.strands) }} strands</RouterLink>
      <RouterLink v-if="fault.follows + fault.unharmed > 0" :to="mentions">those that only mention it</RouterLink>
      <RouterLink v-if="fault.records > 0" :to="records">its records</RouterLink>
      <RouterLink :to="againstLink({ what: 'component', name: fault.component }, route.query)">{{ fault.component }} against everybody</RouterLink>
    </p>
    <FaultWays :fault="fault" />
    <section v-if="fault.example">
      <h3>The line that matters</h3>
      <pre class="mono" tabindex="0" aria-label="The line that matters">{{ fault.example.message.slice(0, 1200) }}</pre>
      <p class="acts">
        <RouterLink :to="{ name: 'record', params: { id: fault.example.record } }">the record</RouterLink>
        <RouterLink
          v-if="fault.example.strand"
          :to="{ name: 'strand', params: { id: fault.example.strand }, query: { record: fault.example.record } }"
          >in its strand</RouterLink
        >
      </p>
      <p class="soft">{{ whyTogether(fault) }}</p>
    </section>
    <section v-if="fault.strands > 0">
      <h3>When</h3>
      <CourseList :pieces="course" tone="madder" label="Strands that failed by it, by time" />
    </section>
    <p v-if="fault.firstAt && fault.lastAt" class="soft">First seen {{ dayAndClock(fault.firstAt) }}, last {{ dayAndClock(fault.lastAt) }}.</p>
    <section v-if="fault.standOut.length > 0">
      <h3>Hit more than others</h3>
      <ul>
        <li v-for="one in fault.standOut" :key="one.kind + one.value">
          <RouterLink :to="againstLink({ what: one.what, name: one.value, of: one.what === 'party' ? one.kind : '' }, route.query)"
            >{{ one.kind }} {{ one.value }}</RouterLink
          >
          <span class="soft">
            {{ count(one.inside) }} of {{ count(fault.strands) }}; of others {{ one.outside === 0 ? 'none' : count(one.outside) }}</span
          >
        </li>
      </ul>
    </section>
    <section v-if="fault.flows.length > 0">
      <h3>Flows and versions</h3>
      <ul>
        <li v-for="one in fault.flows" :key="one.flow">
          {{ one.label }} <span class="soft">{{ count(one.strands) }} of {{ count(one.of) }}</span>
        </li>
        <li v-for="one in fault.versions" :key="one.version + one.host">
          <RouterLink :to="againstLink({ what: 'version', name: one.version, of: fault.component }, route.query)"
            >{{ fault.component }} {{ one.version }}</RouterLink
          >
          <RouterLink class="of-it" :to="{ query: { ...route.query, version: one.version } }">other faults in it</RouterLink>
          <span class="soft"> {{ one.host === '' ? '' : `on ${one.host}, ` }}{{ one.from === null ? '' : `since ${dayAndClock(one.from)}` }}</span>
        </li>
      </ul>
    </section>
    <section v-if="fault.followed.length > 0">
      <h3>In the same strands</h3>
      <ul>
        <li v-for="one in fault.followed" :key="one.id">
          <button type="button" class="link" @click="$emit('open', one.id)">{{ one.title }}</button>
          <span class="soft"> {{ one.component }}, in {{ count(one.strands) }}</span>
        </li>
      </ul>
    </section>
    <section>
      <h3>What is said of it</h3>
      <FaultForm :fault="fault" @said="$emit('said')" />
      <ol v-if="fault.history.length > 0" class="history">
        <li v-for="(one, i) in fault.history" :key="i">{{ saidWords(one) }}</li>
      </ol>
    </section>
    <FaultHands :fault="fault" :others="others" @done="$emit('said')" @open="(id) => $emit('open', id)" />
    <section v-if="fault.causes.length > 0">
      <h3>What was found out</h3>
      <ul>
        <li v-for="one in fault.causes" :key="one.id">
          <b>{{ one.was ? 'This was the cause' : 'This was not the cause' }}</b>{{ one.remedy === '' ? '' : `: ${one.remedy}` }}
          <span class="soft">{{ one.owner === '' ? '' : `${one.owner}, ` }}on </span
          ><RouterLink :to="{ name: 'strand', params: { id: one.strand } }" class="mono">{{ one.strand.replace(/^[^:]*:/, '') }}</RouterLink>
        </li>
      </ul>
    </section>
    <section v-if="fault.strandsOf.length > 0">
      <h3>The latest strands</h3>
      <ul>
        <li v-for="one in fault.strandsOf" :key="one.id">
          <RouterLink :to="{ name: 'strand', params: { id: one.id } }">{{ one.name }}</RouterLink>
          <span class="soft"> {{ one.flowLabel }}, {{ dayAndClock(one.startedAt) }}</span>
        </li>
      </ul>
    </section>
  </article>
</template>
<style scoped>
h2,
p {
  overflow-wrap: anywhere;
}
h3 {
  font-size: 14px;
  line-height: 20px;
  margin: 10px 0 2px;
}
p {
  margin: 2px 0 6px;
}
.of-it {
  margin-left: 8px;
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 14px;
}
pre {
  max-height: 190px;
  overflow: auto;
  margin: 2px 0;
  padding: 6px 8px;
  background: var(--linen);
  white-space: pre-wrap;
  overflow-wrap: anywhere;
}
ul,
ol {
  list-style: none;
  margin: 0;
  padding: 0;
}
li {
  overflow-wrap: anywhere;
}
</style>
