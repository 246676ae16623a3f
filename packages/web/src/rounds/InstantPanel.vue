<script setup lang="ts">
import { computed } from 'vue';
import { useRoute } from 'vue-router';
import { api } from '../api/client.ts';
import { useRequest } from '../api/use-request.ts';
import ProblemNote from '../frame/ProblemNote.vue';
import OutcomeGlyph from '../glyphs/OutcomeGlyph.vue';
import { useShare } from '../share/use-share.ts';
import { ms } from '../strands/duration-text.ts';
import { clock, count, dayAndClock } from '../time/format.ts';
import { instantText } from './instant-text.ts';

/** The state at an instant that is pinned; stepped from one to the next, and taken along as a text. */
const props = defineProps<{ at: string; environment: string }>();
const emit = defineEmits<{ close: []; step: [by: number] }>();
const route = useRoute();
const { answer, problem, again } = useRequest(
  () => `${props.at} ${props.environment}`,
  (signal) => api.get('/rounds/instant', { query: { at: props.at, environment: props.environment } }, signal),
);
const share = useShare();
const running = computed(() => answer.value?.flows.reduce((sum, one) => sum + one.running, 0) ?? 0);
const strand = (id: string) => ({ name: 'strand', params: { id }, query: { e: route.query.e } });
</script>
<template>
  <section class="instant" aria-label="The state at an instant">
    <header>
      <h2>At {{ dayAndClock(at).slice(0, 16) }}</h2>
      <span v-if="answer" class="soft">{{ count(running) }} running</span>
      <span class="room"></span>
      <button type="button" class="link" @click="emit('step', -1)">earlier</button>
      <button type="button" class="link" @click="emit('step', 1)">later</button>
      <button v-if="answer" type="button" class="link" @click="share.copy(instantText(answer), 'The state then')">copy as text</button>
      <button type="button" class="link" @click="emit('close')">close</button>
    </header>
    <ProblemNote v-if="problem" :problem="problem" @again="again" />
    <div v-if="answer" class="parts">
      <table>
        <thead>
          <tr>
            <th scope="col">Flow</th>
            <th scope="col" class="number">Running</th>
            <th scope="col">The longest, usual</th>
            <th scope="col">What last went amiss</th>
            <th scope="col">What last did well</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="one in answer.flows" :key="one.flow">
            <th scope="row">{{ one.label }}</th>
            <td class="number">{{ one.running === 0 ? '·' : count(one.running) }}</td>
            <td>
              <template v-if="one.longest"
                ><RouterLink :to="strand(one.longest.id)" class="mono">{{ one.longest.name }}</RouterLink> {{ ms(one.longest.forMs)
                }}<span v-if="one.usualMs" class="soft">, usual {{ ms(one.usualMs) }}</span
                ><b v-if="one.overdue > 0"> · {{ count(one.overdue) }} over it</b></template
              >
            </td>
            <td>
              <template v-if="one.lastAmiss"
                ><OutcomeGlyph :outcome="one.lastAmiss.outcome" :size="15" />
                <RouterLink :to="strand(one.lastAmiss.id)" class="mono" :title="one.lastAmiss.headline">{{ one.lastAmiss.name }}</RouterLink>
                <span class="soft"> {{ clock(one.lastAmiss.at, 0) }}</span></template
              >
            </td>
            <td>
              <template v-if="one.lastGood"
                ><RouterLink :to="strand(one.lastGood.id)" class="mono">{{ one.lastGood.name }}</RouterLink>
                <span class="soft"> {{ clock(one.lastGood.at, 0) }}</span></template
              >
            </td>
          </tr>
        </tbody>
      </table>
      <dl>
        <template v-if="answer.clocks.length > 0">
          <dt>Clocks off</dt>
          <dd>
            <template v-for="(one, i) in answer.clocks" :key="one.host + one.component"
              ><template v-if="i > 0">, </template>{{ one.host || one.component }} {{ ms(Math.abs(one.aheadMs)) }}
              {{ one.aheadMs > 0 ? 'ahead' : 'behind' }}</template
            >
          </dd>
        </template>
        <template v-if="answer.states.length > 0">
          <dt>In force</dt>
          <dd>
            <template v-for="(one, i) in answer.states.slice(0, 12)" :key="one.component + one.host + one.subject"
              ><template v-if="i > 0"> · </template>{{ one.component || one.host }} {{ one.subject }} <b>{{ one.value }}</b></template
            >
            <RouterLink v-if="answer.states.length > 12" :to="{ name: 'changes', query: { e: route.query.e } }">
              and {{ answer.states.length - 12 }} more</RouterLink
            >
          </dd>
        </template>
        <dt>Sources that spoke</dt>
        <dd>
          {{ answer.speaking.length === 0 ? 'none' : answer.speaking.join(', ')
          }}<template v-if="answer.silent.length > 0"
            >; <b>silent then: {{ answer.silent.join(', ') }}</b></template
          >
        </dd>
      </dl>
    </div>
  </section>
</template>
<style scoped>
.instant {
  flex: none;
  max-height: 46%;
  overflow: auto;
  background: var(--paper);
  border-top: 2px solid var(--indigo);
  padding: 8px 16px 10px;
}
header {
  display: flex;
  gap: 14px;
  align-items: baseline;
}
.room {
  flex: 1;
}
.parts {
  margin-top: 6px;
}
table {
  border-collapse: collapse;
  width: 100%;
}
th,
td {
  text-align: left;
  font-weight: 400;
  padding: 1px 14px 1px 0;
  vertical-align: top;
}
th[scope='row'] {
  white-space: nowrap;
}
td .mono {
  display: inline-block;
  max-width: 170px;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
  vertical-align: bottom;
}
thead th {
  color: var(--soft-ink);
  font-size: 12px;
}
th.number,
td.number {
  text-align: right;
}
dl {
  display: grid;
  grid-template-columns: max-content 1fr;
  gap: 2px 14px;
  margin: 8px 0 0;
}
dt {
  color: var(--soft-ink);
}
dd {
  margin: 0;
  overflow-wrap: anywhere;
}
</style>
