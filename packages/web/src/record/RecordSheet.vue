<script setup lang="ts">
import type { LogRecord } from '@fadenweg/api';
import { computed, ref, toRef, watch } from 'vue';
import { useRoute } from 'vue-router';
import { api } from '../api/client.ts';
import { useRequest } from '../api/use-request.ts';
import ProblemNote from '../frame/ProblemNote.vue';
import LevelGlyph from '../glyphs/LevelGlyph.vue';
import { problemOf } from '../api/problem-of.ts';
import { useSaid, useShare } from '../share/use-share.ts';
import { useOwnPackages } from '../stores/own-packages.ts';
import { aheadText } from '../time/ahead.ts';
import { clock, dayAndClock } from '../time/format.ts';
import CodeList from './CodeList.vue';
import { encodedIn, ownByName, parametersOf, partsOfMessage, sqlIn, tracesIn } from '@fadenweg/core/structure';
import { weightReason } from './weighed.ts';
import { shownAsOwn } from './trace-rows.ts';
import TraceView from './TraceView.vue';
import PartView from './PartView.vue';
import StatementView from './StatementView.vue';
import { useStructure } from './use-structure.ts';
import { useWritten } from './use-written.ts';
import RecordText from './RecordText.vue';
import SourceExcerpt from './SourceExcerpt.vue';
import ToldIn from './ToldIn.vue';
import ValueHandle from './ValueHandle.vue';

/** One record: what it says, its fields, the original text, where it stands, and what stood around it. */
const props = defineProps<{ id: string }>();
const emit = defineEmits<{ around: [scope: 'source' | 'component' | 'host' | 'all', record: LogRecord] }>();
const share = useShare();
/** Only Find has a list to show it in. */
const listing = useRoute().name === 'find';
const id = toRef(props, 'id');
const scope = ref<'source' | 'component' | 'host' | 'all'>('source');
const { answer: record, problem, again } = useRequest(id, (signal) => api.get('/records/{id}', { params: { id: id.value } }, signal));
const around = useRequest([id, scope], (signal) =>
  api.get('/records/{id}/around', { params: { id: id.value }, query: { scope: scope.value, before: 6, after: 6 } }, signal),
);
/** Longer values are texts to be read. */
const LONGEST_HANDLE = 200;
const own = computed(() =>
  (['component', 'host', 'environment', 'source'] as const).flatMap((name): [string, string][] => {
    const value = name === 'source' ? record.value?.source.path : record.value?.[name];
    return value ? [[name, value]] : [];
  }),
);
const fields = computed(() => Object.entries(record.value?.attributes ?? {}));
/** Identifiers that no field of the record shows already under their own name. */
const named = computed(() => (record.value?.identifiers ?? []).filter((one) => String(record.value!.attributes[one.kind] ?? '') !== one.value));
/** The structure to begin with where there is one, the message else; and what was chosen for the next records too. */
const chosen = ref<'structure' | 'message' | 'raw' | null>(null);
const whole = computed(() => (record.value ? (record.value.shortened ? record.value.raw : record.value.message) : ''));
const parts = useStructure(computed(() => (record.value ? whole.value : null)));
const trees = computed(() => (parts.value ?? []).filter((part) => part.kind !== 'text'));
/** Pairs of a line stand among its fields already. */
const telling = computed(() => trees.value.some((part) => part.kind !== 'pairs'));
/** Traces that stand in a field of their own, as records in JSON have them. */
const fieldTraces = computed(() =>
  fields.value.flatMap(([name, value]) =>
    typeof value === 'string' && value.includes('\n')
      ? tracesIn(value, []).map(({ from, to, trace }) => ({ name, text: value.slice(from, to), trace }))
      : [],
  ),
);
const allTraces = computed(() => [
  ...(parts.value ?? []).flatMap((part) => (part.kind === 'trace' ? [part.trace] : [])),
  ...fieldTraces.value.map((one) => one.trace),
]);
const written = useWritten(record, allTraces);
const packages = useOwnPackages();
const said = useSaid();
watch(allTraces, (traces) => traces.length > 0 && void packages.load().catch((error: unknown) => said.say(problemOf(error).detail)), { immediate: true }); // prettier-ignore
const { places } = written;
const writing = ref(false);
const ownUnits = computed(() => {
  const traces = (parts.value ?? []).flatMap((part) => (part.kind === 'trace' ? [part.trace] : []));
  const named = record.value ? ownByName(traces, record.value.component, record.value.logger) : [];
  // what is registered as its source text is its own
  return shownAsOwn(allTraces.value, packages.prefixes, [...named, ...written.ownUnits.value]);
});
/** Statements that stand in a field of their own, with the parameters that another field tells. */
const statements = computed(() => {
  const parameters = fields.value.flatMap(([, value]) => (typeof value === 'string' && /\$1\s*=/.test(value) ? parametersOf(value) : []));
  return fields.value.flatMap(([name, value]) => {
    const found = typeof value === 'string' && value.length > 20 ? sqlIn(value, 0, value.length) : null;
    return found ? [{ name, statement: found.statement, parameters: found.parameters.length > 0 ? found.parameters : parameters }] : [];
  });
});
const ENCODED = { base64: 'Base64', url: 'encoded for an address', hex: 'hexadecimal' } as const;
/** What stands there encoded, in the message or a field; each text once, and no part of one that is told already. */
const decoded = computed(() => {
  const texts = [['', whole.value] as const, ...fields.value.map(([name, value]) => [name, String(value)] as const)];
  const found = texts.flatMap(([name, text]) => encodedIn(text).map((one) => ({ name, ...one, parts: partsOfMessage(one.text) })));
  return found.filter((one, i) => !found.slice(0, i).some((other) => other.text.includes(one.text)));
});
const shown = computed({
  get: () =>
    chosen.value === null || (chosen.value === 'structure' && trees.value.length === 0) ? (telling.value ? 'structure' : 'message') : chosen.value,
  set: (to) => (chosen.value = to),
});
const raw = computed(() => shown.value === 'raw');
</script>
<template>
  <ProblemNote v-if="problem" :problem="problem" @again="again" />
  <article v-else-if="record" class="record" data-testid="record">
    <h2>
      <LevelGlyph :level="record.level" /> {{ record.component }}<template v-if="record.host"> on {{ record.host }}</template>
    </h2>
    <p class="mono when">
      {{ dayAndClock(record.at, 6) }} <span class="soft">as written: {{ record.originalAt || 'no time' }}</span>
    </p>
    <p v-if="record.correctedByMs !== 0" class="note">
      Its time is put right: the clock of {{ record.host || record.component }} was {{ aheadText(record.correctedByMs) }}.
      <RouterLink :to="{ name: 'sources', query: { tab: 'hosts', host: record.host || record.component } }">How that is known</RouterLink>
    </p>
    <p v-if="!record.understood" class="note">
      This record was not understood; it is kept whole.
      {{
        record.timeFrom === 'file'
          ? 'No line of its source tells a time: it stands at the date of the file.'
          : 'It stands between its neighbours in time.'
      }}
    </p>
    <p v-if="record.because === 'carried-over'" class="note">
      Carried over: it names no identifier, but the thread or process that wrote it worked on its strand just then.
    </p>
    <div class="switch" role="group" aria-label="Text">
      <button v-if="trees.length > 0" type="button" :aria-pressed="shown === 'structure'" @click="shown = 'structure'">structure</button>
      <button type="button" :aria-pressed="shown === 'message'" @click="shown = 'message'">message</button
      ><button type="button" :aria-pressed="shown === 'raw'" @click="shown = 'raw'">original text</button>
    </div>
    <template v-if="shown === 'structure'">
      <PartView v-for="(part, i) in parts" :key="i" :part="part" :text="whole" :own="ownUnits" :written="written" />
    </template>
    <RecordText v-else :text="raw ? record.raw : record.message" />
    <section v-for="one in fieldTraces" :key="`${one.name} ${one.text.length}`">
      <h3 class="soft">{{ one.name }}</h3>
      <TraceView :trace="one.trace" :text="one.text" :own="ownUnits" :written="written" />
    </section>
    <section v-for="one in statements" :key="one.name">
      <h3 class="soft">{{ one.name }}</h3>
      <StatementView :statement="one.statement" :parameters="one.parameters" />
    </section>
    <section v-for="one in decoded" :key="`${one.name} ${one.from}`" data-testid="decoded">
      <h3 class="soft">{{ one.name ? `${one.name}, ` : '' }}{{ ENCODED[one.how] }}, decoded</h3>
      <PartView v-for="(part, i) in one.parts" :key="i" :part="part" :text="one.text" :own="ownUnits" />
    </section>
    <CodeList :codes="record.codes" :component="record.component" @changed="again" />
    <p v-if="!raw && record.shortened" class="soft">
      The beginning of the message, which is what searches look through.
      <button type="button" class="link" @click="shown = 'raw'">Show all of it</button>
    </p>
    <p v-if="raw && record.rawCut" class="soft">The first 2 MB of the original text.</p>
    <p class="soft mono place">
      {{ record.source.path }}, line {{ record.source.line }}, bytes {{ record.source.byteFrom }} to {{ record.source.byteTo }}
    </p>
    <template v-if="places?.text && places.message">
      <p class="soft writer">
        Written by <span class="mono">{{ places.message.path }}</span><template v-if="places.message.line !== null"
          >, line {{ places.message.line }}</template
        >
        of {{ places.text.version
        }}<template v-if="!places.sure"> ({{ places.ran ? `what ran was ${places.ran}` : 'which version ran is not known' }})</template>
        <button type="button" class="link" :aria-expanded="writing" @click="writing = !writing">{{ writing ? 'hide it' : 'show it' }}</button>
      </p>
      <SourceExcerpt v-if="writing" :id="places.text.id" :place="places.message" />
    </template>
    <p class="acts">
      <RouterLink v-if="record.strand" :to="{ name: 'strand', params: { id: record.strand }, query: { record: record.id } }">its strand</RouterLink>
      <RouterLink :to="{ name: 'original', params: { id: record.source.id }, query: { line: record.source.line } }"
        >the original file here</RouterLink
      >
      <button type="button" class="link" @click="share.copyTicket([record])">text for the ticket</button>
    </p>
    <ToldIn v-if="record.toldIn.length > 0" :copies="record.toldIn" />
    <table class="fields">
      <tbody>
        <tr>
          <th scope="row">level</th>
          <td><ValueHandle field="level" :value="record.level" /></td>
        </tr>
        <tr>
          <th scope="row">weight</th>
          <td>
            <ValueHandle field="weight" :value="record.weight" /> <span class="soft">{{ weightReason(record) }}</span>
          </td>
        </tr>
        <tr v-if="record.logger">
          <th scope="row">logger</th>
          <td><ValueHandle field="logger" :value="record.logger" /></td>
        </tr>
        <tr v-for="[name, value] in fields" :key="name">
          <th scope="row">{{ name }}</th>
          <td>
            <ValueHandle v-if="String(value).length <= LONGEST_HANDLE" :field="name" :value="String(value)" /><span v-else class="mono">{{
              value
            }}</span>
          </td>
        </tr>
        <tr v-for="one in named" :key="`${one.kind} ${one.value}`">
          <th scope="row">{{ one.kind }}</th>
          <td><ValueHandle :field="one.kind" :value="one.value" identifier :party="one.role === 'shared'" /></td>
        </tr>
        <tr v-for="[name, value] in own" :key="name">
          <th scope="row">{{ name }}</th>
          <td><ValueHandle :field="name" :value="value" /></td>
        </tr>
      </tbody>
    </table>
    <h2 class="gap">
      Before and after in
      <select v-model="scope" aria-label="Before and after in">
        <option value="source">this source</option>
        <option value="component">{{ record.component }}</option>
        <option v-if="record.host" value="host">{{ record.host }}</option>
        <option value="all">all sources</option>
      </select>
      <button v-if="listing" type="button" class="link more" @click="emit('around', scope, record)">read on</button>
    </h2>
    <ol v-if="around.answer.value" class="around mono">
      <li
        v-for="one in around.answer.value.items"
        :key="one.id"
        :class="{ here: one.id === record.id }"
        :title="one.message.split('\n')[0]!.slice(0, 1000)"
      >
        <span class="soft">{{ clock(one.at) }}</span> <span v-if="scope === 'all' || scope === 'host'" class="soft">{{ one.component }}</span>
        {{ one.message.split('\n')[0] }}
      </li>
    </ol>
  </article>
  <p v-else class="soft" role="status">Loading…</p>
</template>
<style scoped>
.when {
  margin: 2px 0;
  line-height: 18px;
  overflow-wrap: anywhere;
}
.note {
  background: var(--weld-wash);
  padding: 4px 8px;
  margin: 6px 0;
}
.switch {
  display: flex;
  gap: 4px;
  margin: 8px 0 4px;
}
.switch button {
  border: 1px solid var(--strong-seam);
  background: none;
  border-radius: 3px;
  padding: 1px 8px;
  font: inherit;
  font-size: 12.5px;
  color: var(--ink);
  cursor: pointer;
}
.switch button[aria-pressed='true'] {
  background: var(--indigo-wash);
  border-color: var(--indigo);
}
h3 {
  font-size: 13px;
  margin: 8px 0 2px;
}
.place {
  font-size: 11.5px;
  line-height: 16px;
  margin: 4px 0 10px;
  overflow-wrap: anywhere;
}
.writer {
  margin: -6px 0 8px;
  overflow-wrap: anywhere;
}
.fields {
  width: 100%;
  border-collapse: collapse;
}
.fields th {
  text-align: left;
  font-weight: 400;
  color: var(--soft-ink);
  padding: 1px 10px 1px 0;
  /* as high as a value that can be taken in hand */
  line-height: 24px;
  vertical-align: top;
  white-space: nowrap;
  width: 1%;
  max-width: 150px;
  overflow: hidden;
  text-overflow: ellipsis;
}
.fields td {
  overflow-wrap: anywhere;
  padding: 1px 0;
  vertical-align: top;
  line-height: 18px;
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 16px;
  margin: 0 0 10px;
}
.more {
  font-weight: 400;
  margin-left: 8px;
}
.gap {
  margin-top: 14px;
}
select {
  font: inherit;
  color: var(--ink);
  background: var(--linen);
  border: 1px solid var(--strong-seam);
  border-radius: 3px;
  padding: 0 4px;
}
.around {
  list-style: none;
  margin: 6px 0;
  padding: 0;
  font-size: 11.5px;
  line-height: 18px;
}
.around li {
  white-space: nowrap;
  overflow: hidden;
  text-overflow: ellipsis;
  padding: 0 4px;
}
.around .here {
  background: var(--indigo-wash);
  font-weight: 700;
}
</style>
