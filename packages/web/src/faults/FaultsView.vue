<script setup lang="ts">
import type { Fault, FaultState } from '@fadenweg/api';
import { faultTitle } from '@fadenweg/core/faults';
import { computed } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import { api } from '../api/client.ts';
import { useRequest } from '../api/use-request.ts';
import ProblemNote from '../frame/ProblemNote.vue';
import SideSheet from '../frame/SideSheet.vue';
import { useAddressed } from '../frame/use-addressed.ts';
import { useChosenLine } from '../frame/use-chosen-line.ts';
import { useSummary } from '../stores/summary.ts';
import EmptyStrands from '../first/EmptyStrands.vue';
import { useAsked } from '../time/asked.ts';
import { count, dayAndClock } from '../time/format.ts';
import { STATE_WORDS } from './fault-words.ts';
import FaultSheet from './FaultSheet.vue';

/** Errors as a short list by where they come from; each failed strand counts at exactly one. */
const route = useRoute();
const router = useRouter();
const store = useSummary();
const asked = useAsked();
const { text, adjust } = useAddressed();
const sort = computed(() => text('sort') || 'strands');
const all = computed(() => text('all') === '1');
const narrowed = computed(() => asked.value && { ...asked.value, sort: sort.value, component: text('component') || undefined, state: text('state') || undefined, owner: text('owner') || undefined, flow: text('flow') || undefined, version: text('version') || undefined, all: String(all.value) }); // prettier-ignore
const stamp = computed(() => `${store.summary?.strands} ${store.summary?.weaving}`);
const list = useRequest(
  () => (narrowed.value ? `${JSON.stringify(narrowed.value)} ${stamp.value}` : ''),
  async (signal) => (narrowed.value ? api.get('/faults', { query: narrowed.value }, signal) : null),
);
const items = computed(() => list.answer.value?.items ?? []);
const strandsOf = ({ id }: Fault) => ({ name: 'strands', query: { e: route.query.e, w: route.query.w, began: 'true', fault: String(id) } });
const { chosen } = useChosenLine(items, ({ id }) => String(id), 'fault', (fault) => void router.push(strandsOf(fault))); // prettier-ignore
const one = useRequest(
  () => (asked.value && chosen.value !== '' ? `${chosen.value} ${JSON.stringify(asked.value)} ${stamp.value}` : ''),
  async (signal) =>
    asked.value && chosen.value !== '' ? api.get('/faults/{id}', { params: { id: chosen.value }, query: asked.value }, signal) : null,
);
const SORTS: [string, string][] = [['strands', 'most strands'], ['records', 'most records'], ['gravest', 'gravest'], ['newest', 'newest'], ['latest', 'latest']]; // prettier-ignore
const STATES = Object.entries(STATE_WORDS) as [FaultState, string][];
const components = computed(() => [...new Set([...items.value.map((fault) => fault.component), ...(text('component') ? [text('component')] : [])])].sort()); // prettier-ignore
const owners = computed(() => [...new Set([...(list.answer.value?.owners ?? []), ...(text('owner') ? [text('owner')] : [])])].sort());
const quiet = computed(() => {
  const now = list.answer.value;
  if (!now) return '';
  const parts = [
    ...(now.consequences > 0 ? [`${count(now.consequences)} that only followed from others`] : []),
    ...(now.quiet.mended > 0 ? [`${count(now.quiet.mended)} mended`] : []),
    ...(now.quiet.tolerated > 0 ? [`${count(now.quiet.tolerated)} tolerated`] : []),
  ];
  return parts.join(', ');
});
function said(): void {
  list.again();
  one.again();
}
</script>
<template>
  <main class="faults">
    <EmptyStrands v-if="store.empty" />
    <template v-else>
      <section class="list" aria-labelledby="faults-title">
        <header>
          <h1 id="faults-title">Faults</h1>
          <p v-if="list.answer.value" class="soft facts" data-testid="sum">
            {{ count(list.answer.value.failed) }} failed strands, each of one fault<template v-if="quiet"> · left out: {{ quiet }} </template>
            <button v-if="quiet || all" type="button" class="link" @click="adjust({ all: all ? undefined : '1' })">
              {{ all ? 'the short list' : 'show' }}
            </button>
          </p>
          <div class="order" role="group" aria-label="Order">
            <button
              v-for="[name, label] in SORTS"
              :key="name"
              type="button"
              :aria-pressed="sort === name"
              @click="adjust({ sort: name === 'strands' ? undefined : name })"
            >
              {{ label }}
            </button>
          </div>
          <label class="pick"
            ><span class="visually-hidden">Component</span>
            <select
              class="input"
              :value="text('component')"
              @change="(event) => adjust({ component: (event.target as HTMLSelectElement).value || undefined })"
            >
              <option value="">any component</option>
              <option v-for="name in components" :key="name">{{ name }}</option>
            </select></label
          >
          <label class="pick"
            ><span class="visually-hidden">State</span>
            <select
              class="input"
              :value="text('state')"
              @change="(event) => adjust({ state: (event.target as HTMLSelectElement).value || undefined })"
            >
              <option value="">any state</option>
              <option v-for="[name, label] in STATES" :key="name" :value="name">{{ label }}</option>
            </select></label
          >
          <label v-if="owners.length > 0" class="pick"
            ><span class="visually-hidden">By whom</span>
            <select
              class="input"
              :value="text('owner')"
              @change="(event) => adjust({ owner: (event.target as HTMLSelectElement).value || undefined })"
            >
              <option value="">by anybody</option>
              <option v-for="name in owners" :key="name">{{ name }}</option>
            </select></label
          >
          <label class="pick"
            ><span class="visually-hidden">Flow</span>
            <select class="input" :value="text('flow')" @change="(event) => adjust({ flow: (event.target as HTMLSelectElement).value || undefined })">
              <option value="">any flow</option>
              <option v-for="flow in store.flows" :key="flow.name" :value="flow.name">{{ flow.label }}</option>
            </select></label
          >
          <button v-if="text('version')" type="button" class="link" @click="adjust({ version: undefined })">
            version {{ text('version') }} <span aria-hidden="true">×</span><span class="visually-hidden">, leave it out</span>
          </button>
        </header>
        <ProblemNote v-if="list.problem.value" :problem="list.problem.value" @again="list.again" />
        <p v-else-if="!list.answer.value" class="soft wait" role="status">Gathering errors …</p>
        <p v-else-if="items.length === 0" class="soft wait">
          {{ quiet ? 'Nothing else came up in this window.' : 'No strand failed and no error was told in this window.' }} Choose a longer window
          above.
        </p>
        <div v-else ref="body" class="lines" role="listbox" aria-label="Faults" data-lines tabindex="0">
          <div
            v-for="fault in items"
            :key="fault.id"
            class="line"
            role="option"
            :aria-selected="String(fault.id) === chosen"
            @click="adjust({ fault: String(fault.id) })"
          >
            <span class="state" :class="fault.state">{{ STATE_WORDS[fault.state] }}</span>
            <span class="what"
              ><b>{{ faultTitle(fault) }}</b>
              <span class="soft"
                >{{ fault.members > 1 ? `and ${fault.members - 1} more · ` : '' }}{{ fault.component
                }}{{ fault.owner === '' ? '' : ` · ${fault.owner}` }}</span
              ></span
            >
            <span class="number many" :class="{ soft: fault.strands === 0 }">{{ fault.strands === 0 ? '·' : count(fault.strands) }}</span>
            <span class="number soft">{{ fault.before === 0 ? '·' : count(fault.before) }}</span>
            <span class="number soft">{{ count(fault.records) }}</span>
            <span class="soft since">{{ fault.firstAt ? dayAndClock(fault.firstAt).slice(5, 16) : '' }}</span>
          </div>
          <p v-if="list.answer.value.more > 0" class="soft note">
            {{ count(list.answer.value.more) }} more. Narrow the window or the component for them.
          </p>
        </div>
        <div v-if="items.length > 0" class="names soft" aria-hidden="true">
          <span>state</span><span>where it comes from</span><span class="number">strands</span><span class="number">before</span
          ><span class="number">records</span><span>first seen</span>
        </div>
      </section>
      <SideSheet :tabs="[{ name: 'fault', label: 'Fault' }]" tab="fault">
        <ProblemNote v-if="one.problem.value" :problem="one.problem.value" @again="one.again" />
        <FaultSheet
          v-else-if="one.answer.value"
          :fault="one.answer.value"
          :others="items"
          @said="said"
          @open="(id) => adjust({ fault: String(id) })"
        />
        <p v-else class="soft">{{ chosen === '' ? 'Nothing is selected.' : 'Looking it up …' }}</p>
      </SideSheet>
    </template>
  </main>
</template>
<style scoped src="../frame/list-beside.css"></style>
<style scoped>
.line,
.names {
  grid-template-columns: 66px minmax(0, 1fr) 62px 56px 62px 92px;
}
.many {
  font-weight: 700;
}
.since {
  font-variant-numeric: tabular-nums;
  white-space: nowrap;
}
.state {
  font-size: 12.5px;
}
.state.returned,
.state.new {
  color: var(--madder);
}
.state.in-hand {
  color: var(--indigo);
}
</style>
