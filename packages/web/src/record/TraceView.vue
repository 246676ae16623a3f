<script setup lang="ts">
import { originOf, type Trace, type TraceFrame } from '@fadenweg/core/structure';
import { computed, ref, watch } from 'vue';
import { wordsOf } from '../api/problem-of.ts';
import { useSaid } from '../share/use-share.ts';
import { useOwnPackages } from '../stores/own-packages.ts';
import SourceExcerpt from './SourceExcerpt.vue';
import { placeOf, traceRows, type TraceRow } from './trace-rows.ts';
import type { WrittenBy } from './use-written.ts';

/** A stack trace: causes unrolled, the program's own calls shown and the others folded, the most likely origin marked. */
const props = defineProps<{ trace: Trace; text: string; own: readonly string[]; written?: WrittenBy }>();
const LANGUAGES: Record<Trace['language'], string> = {
  java: 'Java',
  dotnet: '.NET',
  javascript: 'JavaScript',
  python: 'Python',
  go: 'Go',
  php: 'PHP',
  ruby: 'Ruby',
  other: 'calls',
};
const open = ref(new Set<string>());
const at = ref(0);
watch(() => props.trace, () => ((open.value = new Set()), (at.value = 0))); // prettier-ignore
const trace = computed<Trace>(() => ({ ...props.trace, origin: originOf(props.trace.thrown, props.own) }));
const rows = computed(() => traceRows(trace.value, props.own, open.value));
const calls = computed(() => props.trace.thrown.reduce((sum, one) => sum + one.frames.length, 0));
const all = computed(() => open.value.has('all'));
const said = useSaid();
/** The call whose source text is shown: the chosen one, else the origin, else the innermost that is known. */
const lookedAt = computed((): TraceFrame | null => {
  const known = (row: TraceRow | undefined): row is TraceRow & { kind: 'frame' } =>
    row?.kind === 'frame' && (props.written?.placeOf(row.frame) ?? null) !== null;
  const row = rows.value[at.value];
  if (known(row)) return row.frame;
  return (rows.value.find((one): one is TraceRow & { kind: 'frame' } => known(one) && one.origin) ?? rows.value.find(known))?.frame ?? null;
});
const source = computed(() => (lookedAt.value ? (props.written?.placeOf(lookedAt.value) ?? null) : null));

function toggle(row: TraceRow | undefined): void {
  if (row?.kind !== 'folded') return;
  open.value = new Set([...open.value, row.key]);
}
function toggleAll(): void {
  open.value = new Set(all.value ? [] : ['all']);
  at.value = 0;
}
const packages = useOwnPackages();
/** Packages of the chosen row that can be declared to be one's own. */
const foreign = computed(() => {
  const row = rows.value[at.value];
  return row?.kind === 'folded' ? row.units : [];
});
const declared = ref<string | null>(null);
async function attempt(act: () => Promise<void>): Promise<void> {
  try {
    await act();
  } catch (error) {
    said.say(wordsOf(error));
  }
}
const declare = (unit: string): Promise<void> =>
  attempt(async () => {
    await packages.declare(unit);
    declared.value = unit;
    said.say(`Calls of ${unit} are shown from now on`);
  });
const takeBack = (unit: string): Promise<void> =>
  attempt(async () => {
    await packages.forget(unit);
    declared.value = null;
  });
watch(() => props.trace, () => (declared.value = null)); // prettier-ignore
async function copy(): Promise<void> {
  await navigator.clipboard.writeText(props.text);
  said.say('Copied the trace');
}
function key(event: KeyboardEvent): void {
  if (event.ctrlKey || event.metaKey || event.altKey) return;
  const go = (to: number): void => void (at.value = Math.max(0, Math.min(rows.value.length - 1, to)));
  const act = {
    ArrowDown: () => go(at.value + 1),
    ArrowUp: () => go(at.value - 1),
    Home: () => go(0),
    End: () => go(rows.value.length - 1),
    ArrowRight: () => toggle(rows.value[at.value]),
    Enter: () => toggle(rows.value[at.value]),
    o: () => go(rows.value.findIndex((row) => row.kind === 'frame' && row.origin)),
    a: toggleAll,
    w: () => void (foreign.value[0] && declare(foreign.value[0])),
    z: () => void (declared.value && takeBack(declared.value)),
    p: () => void copy(),
  }[event.key];
  if (!act) return;
  event.preventDefault();
  event.stopPropagation();
  act();
}
</script>
<template>
  <div class="trace" data-testid="trace">
    <p class="bar soft">
      <span>{{ LANGUAGES[trace.language] }}, {{ calls }} {{ calls === 1 ? 'call' : 'calls' }}, innermost first</span>
      <button type="button" class="link" :aria-pressed="all" @click="toggleAll">{{ all ? 'own calls only' : 'all calls' }}</button>
      <button type="button" class="link" @click="copy">copy</button>
      <button
        v-for="unit of foreign.slice(0, 3)"
        :key="unit"
        type="button"
        class="link"
        title="Its calls are shown from now on (w)"
        @click="declare(unit)"
      >
        {{ unit }} is ours
      </button>
      <span v-if="declared !== null"
        >{{ declared }} is ours: <button type="button" class="link" title="Fold its calls again (z)" @click="takeBack(declared)">undo</button></span
      >
    </p>
    <ol
      class="rows mono"
      role="listbox"
      tabindex="0"
      aria-label="Calls of the trace; arrow keys move, Enter unfolds, o goes to the origin, a shows all, w tells that a package is ours, z takes that back, p copies"
      :aria-activedescendant="rows[at] ? `trace-${rows[at]!.key}` : undefined"
      @keydown="key"
    >
      <li
        v-for="(row, i) in rows"
        :id="`trace-${row.key}`"
        :key="row.key"
        role="option"
        :aria-selected="i === at"
        :class="[row.kind, { own: row.kind === 'frame' && row.own, origin: row.kind === 'frame' && row.origin }]"
        @click="((at = i), toggle(row))"
      >
        <template v-if="row.kind === 'thrown'"
          ><span v-if="row.words" class="soft words">{{ row.words }}&nbsp;</span><span v-if="row.unit" class="soft words">{{ row.unit }}</span
          ><wbr /><span>{{ row.text }}</span></template
        >
        <template v-else-if="row.kind === 'frame'"
          ><span class="mark">{{ row.origin ? 'origin' : '' }}</span
          ><span class="call" :title="row.frame.text">{{ row.frame.code || row.frame.text }}</span>
          <span class="soft">{{ placeOf(row.frame) }}</span></template
        >
        <template v-else-if="row.kind === 'folded'"
          ><span class="mark">+{{ row.count }}</span
          ><span class="soft">of {{ row.of }}</span></template
        >
        <template v-else-if="row.kind === 'omitted'"
          ><span class="mark" /><span class="soft">and {{ row.count }} that what is above has too</span></template
        >
        <template v-else
          ><span class="mark" /><span class="soft" title="Written between by another thread">{{ row.text }}</span></template
        >
      </li>
    </ol>
    <template v-if="source && written?.places.value?.text">
      <p class="soft beside">
        {{ lookedAt!.code }} in {{ written.places.value.text.version
        }}<template v-if="!written.places.value.sure"
          >, registered; {{ written.places.value.ran ? `what ran was ${written.places.value.ran}` : 'which version ran is not known' }}</template
        >
      </p>
      <SourceExcerpt :id="written.places.value.text.id" :place="source" />
    </template>
  </div>
</template>
<style scoped>
.trace {
  margin: 6px 0;
}
.bar {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 12px;
  margin: 0 0 3px;
}
.rows {
  list-style: none;
  margin: 0;
  padding: 3px 0;
  border: 1px solid var(--seam);
  background: var(--linen);
  max-height: 420px;
  overflow: auto;
  line-height: 19px;
}
li {
  padding: 0 8px;
  overflow-wrap: anywhere;
  cursor: default;
}
li[aria-selected='true'] {
  background: var(--indigo-wash);
}
.thrown {
  font-weight: 700;
  padding-top: 2px;
}
.words {
  font-weight: 400;
}
.beside {
  margin: 6px 0 0;
}
.mark {
  display: inline-block;
  width: 52px;
  color: var(--soft-ink);
}
.folded {
  cursor: pointer;
}
.origin .mark,
.origin .call {
  color: var(--madder);
  font-weight: 700;
}
.own .call {
  color: var(--ink);
}
.frame:not(.own, .origin) .call {
  color: var(--soft-ink);
}
</style>
