<script setup lang="ts">
import { computed, provide, toRef, useTemplateRef, watch } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import { AROUND } from '../against/against-link.ts';
import CallFacts from '../calls/CallFacts.vue';
import CallLadder from '../calls/CallLadder.vue';
import { useCall } from '../calls/use-call.ts';
import { useChanges } from '../changes/use-changes.ts';
import DataSheet from '../data/DataSheet.vue';
import ProblemNote from '../frame/ProblemNote.vue';
import SideSheet from '../frame/SideSheet.vue';
import { useCommands } from '../keys/commands.ts';
import RecordSheet from '../record/RecordSheet.vue';
import TakeMenu from '../share/TakeMenu.vue';
import { useShare } from '../share/use-share.ts';
import { pngOf } from '../weave/picture-png.ts';
import { timeSvg } from '../weave/time-picture.ts';
import { weaveSvg } from '../weave/weave-picture.ts';
import { LANES_BY, lanesBy, type LanesBy } from '../weave/lanes-by.ts';
import StrandWeave from '../weave/StrandWeave.vue';
import TimeWeave from '../weave/TimeWeave.vue';
import CompareSheet from './CompareSheet.vue';
import IdentifierSheet from './IdentifierSheet.vue';
import StoryList from './StoryList.vue';
import StrandChoices from './StrandChoices.vue';
import StrandHead from './StrandHead.vue';
import TimeSheet from './TimeSheet.vue';
import { strandTicket } from './strand-ticket.ts';
import { useStrand } from './use-strand.ts';
import { useStrandLive } from './use-strand-live.ts';
import WhySheet from './WhySheet.vue';

const LEAST_ZOOM = 0.25;
const MOST_ZOOM = 4000;
const props = defineProps<{ id: string }>();
const route = useRoute();
const router = useRouter();
const { strand, lines, problem, loading, whole, again } = useStrand(toRef(props, 'id'));
provide(AROUND, () => strand.value?.startedAt ?? null);
useStrandLive(
  computed(() => (route.query.live === '1' ? props.id : null)),
  strand,
  again,
);
/** What changed in its components while it went on. */
const changes = useChanges(
  computed(() => {
    const now = strand.value;
    if (!now) return null;
    return {
      from: now.startedAt,
      to: new Date(Date.parse(now.endedAt) + 1).toISOString(),
      component: [...new Set(now.steps.map((step) => step.component))].slice(0, 20).join(','),
    };
  }),
);
const weave = useTemplateRef<{ next(by: 1 | -1): void; nextKnot(by: 1 | -1): void }>('weave');
const call = useCall(strand);
const SHEETS = [
  { name: 'why', label: 'Why' },
  { name: 'call', label: 'Call' },
  { name: 'compare', label: 'Compare' },
  { name: 'time', label: 'Time' },
  { name: 'identifiers', label: 'Identifiers' },
  { name: 'data', label: 'Data' },
  { name: 'record', label: 'Record' },
];
const TABS = computed(() => SHEETS.filter(({ name }) => name !== 'call' || strand.value?.call));

const text = (name: string): string | null => (typeof route.query[name] === 'string' ? (route.query[name] as string) : null);
const change = (query: Record<string, string | undefined>): void => void router.replace({ query: { ...route.query, ...query } });
const selected = computed(() => text('record'));
const told = computed(() => text('view') === 'story');
const timed = computed(() => text('view') === 'time');
const laddered = computed(() => text('view') === 'messages' && Boolean(strand.value?.call));
const lanes = computed<LanesBy>(() => LANES_BY.find((one) => one === text('lanes')) ?? 'component');
const zoom = computed(() => Math.min(MOST_ZOOM, Math.max(LEAST_ZOOM, Number(text('zoom')) || 1)));
const zoomBy = (factor: number): void => {
  const next = Math.min(MOST_ZOOM, Math.max(LEAST_ZOOM, zoom.value * factor));
  change({ zoom: Math.abs(next - 1) < 0.02 ? undefined : next.toFixed(3) });
};
const drawn = computed(() => strand.value && lanesBy(strand.value, lines.value, lanes.value));
const tab = computed(() => (TABS.value.some((one) => one.name === text('tab')) ? text('tab')! : 'why'));
/** Folded steps stand in the address: numbers, or `all`. */
const folded = computed<Set<number>>(() => {
  const now = text('fold');
  if (now === 'all') return new Set(strand.value?.steps.map((step) => step.id));
  return new Set(
    (now ?? '')
      .split('.')
      .map(Number)
      .filter((one) => one > 0),
  );
});
const select = (record: string, keepTab = false): void => change({ record, tab: keepTab ? (text('tab') ?? undefined) : 'record' });
function fold(step: number): void {
  const next = new Set(folded.value);
  if (!next.delete(step)) next.add(step);
  change({ fold: next.size > 0 ? [...next].sort((a, b) => a - b).join('.') : undefined });
}
const line = computed(() => lines.value.find((one) => one.id === selected.value));
watch([strand, whole], () => {
  // the knot is selected to begin with, so that the list stands there
  const knot = strand.value?.findings[0]?.record.id;
  if (strand.value?.id === props.id && knot && !selected.value) change({ record: knot });
});
const lanesChosen = (event: Event): string | undefined => {
  const { value } = event.target as HTMLSelectElement;
  return value === 'component' ? undefined : value;
};
const share = useShare();
/** The weave as a picture with its legend, as it is folded, or in proportion to time as it is zoomed. */
const pictures = computed(() => {
  const now = strand.value;
  if (!now) return [];
  const { strand: own, lines: ownLines } = drawn.value!;
  const picture = () => (timed.value ? timeSvg(own, ownLines, zoom.value) : weaveSvg(own, ownLines, folded.value));
  const svg = async (): Promise<Blob> => new Blob([(await picture()).svg], { type: 'image/svg+xml' });
  return [
    { name: 'SVG', about: 'a picture, sharp at any size', file: `${now.name}.svg`, make: svg },
    { name: 'PNG', about: 'a picture of points', file: `${now.name}.png`, make: async () => pngOf(await picture()) },
  ];
});
const ticket = (): void => void (strand.value && strandTicket(share, strand.value, lines.value));
useCommands('This strand', [
  { name: 'next record', keys: ['j'], run: () => weave.value?.next(1) },
  { name: 'previous record', keys: ['k'], run: () => weave.value?.next(-1) },
  { name: 'next knot', keys: [']'], run: () => weave.value?.nextKnot(1) },
  { name: 'previous knot', keys: ['['], run: () => weave.value?.nextKnot(-1) },
  { name: 'open the record', keys: ['o'], can: () => Boolean(selected.value), run: () => select(selected.value!) },
  { name: 'fold the step of the record', keys: ['f'], can: () => Boolean(line.value), run: () => fold(line.value!.step) },
  { name: 'fold all steps, or unfold them', keys: ['F'], run: () => change({ fold: text('fold') === 'all' ? undefined : 'all' }) },
  { name: 'its told story', keys: ['s'], run: () => change({ view: told.value ? undefined : 'story' }) },
  { name: 'in proportion to time', keys: ['p'], run: () => change({ view: timed.value ? undefined : 'time' }) },
  { name: 'zoom in', keys: ['+'], can: () => timed.value, run: () => zoomBy(1.5) },
  { name: 'zoom out', keys: ['-'], can: () => timed.value, run: () => zoomBy(1 / 1.5) },
  { name: 'show all of it', keys: ['0'], can: () => timed.value, run: () => change({ zoom: undefined }) },
  { name: 'its messages between those who sent them', keys: ['m'], can: () => Boolean(strand.value?.call), run: () => change({ view: laddered.value ? undefined : 'messages' }) }, // prettier-ignore
  ...SHEETS.map(({ name, label }) => ({ name: `beside it: ${label}`, keys: [], can: () => TABS.value.some((one) => one.name === name), run: () => change({ tab: name }) })), // prettier-ignore
  { name: 'copy a text for the ticket', keys: ['y'], run: ticket },
  { name: 'copy a link to exactly this view', keys: ['c'], run: () => void share.copyLink() },
  { name: 'back to the finding', keys: ['Escape'], run: () => change({ tab: undefined }) },
]);
</script>
<template>
  <main class="strand">
    <StrandChoices v-if="problem?.choices" :problem="problem" :choices="problem.choices" />
    <ProblemNote v-else-if="problem" :problem="problem" @again="again" />
    <p v-else-if="!strand" class="waiting soft" role="status">{{ loading ? 'Following the strand…' : '' }}</p>
    <template v-else>
      <StrandHead :strand="strand" @select="select" />
      <div class="both">
        <div class="main">
          <div class="tools soft" :class="{ high: told || timed || laddered }">
            <span role="group" aria-label="Scale"
              ><button
                type="button"
                :aria-pressed="!told && !timed && !laddered && text('fold') !== 'all'"
                @click="change({ fold: undefined, view: undefined })"
              >
                records
              </button>
              ·
              <button
                type="button"
                :aria-pressed="!told && !timed && !laddered && text('fold') === 'all'"
                @click="change({ fold: 'all', view: undefined })"
              >
                steps
              </button>
              · <button type="button" :aria-pressed="timed" title="In proportion to time (p)" @click="change({ view: 'time' })">time</button> ·
              <template v-if="strand.call"
                ><button
                  type="button"
                  :aria-pressed="laddered"
                  title="Messages between those who sent them (m)"
                  @click="change({ view: 'messages' })"
                >
                  messages</button
                >{{ ' · ' }}</template
              >
              <button type="button" :aria-pressed="told" title="Told in plain words (s)" @click="change({ view: 'story' })">story</button></span
            >
            <span v-if="timed" class="zoom" role="group" aria-label="Zoom"
              ><button type="button" title="Closer (+)" aria-label="Closer" @click="zoomBy(1.5)">+</button>
              <button type="button" title="Farther (-)" aria-label="Farther" @click="zoomBy(1 / 1.5)">−</button>
              <button v-if="zoom !== 1" type="button" title="All of it (0)" @click="change({ zoom: undefined })">all of it</button></span
            >
            <label v-if="!told && !laddered"
              >lanes by
              <select :value="lanes" aria-label="Lanes by" @change="change({ lanes: lanesChosen($event) })">
                <option v-for="one in LANES_BY" :key="one">{{ one }}</option>
              </select></label
            >
            <span v-if="!whole" role="status">loading records…</span>
            <span class="acts"
              ><TakeMenu v-if="!told && !laddered && whole" what="the weave" :formats="pictures" />
              <button type="button" class="link" title="Copy a link to exactly this view (c)" @click="share.copyLink">link</button>
              <button type="button" class="link" title="Copy the sentence and the telling lines (y)" @click="ticket">
                text for the ticket
              </button></span
            >
          </div>
          <StoryList v-if="told" ref="weave" class="weave" :strand="strand" :selected="selected" @select="(id) => select(id, tab !== 'why')" />
          <template v-else-if="laddered">
            <CallLadder
              v-if="call.answer.value"
              ref="weave"
              class="weave"
              :call="call.answer.value"
              :selected="selected"
              @select="(id) => select(id, tab !== 'why')"
            />
            <ProblemNote v-else-if="call.problem.value" :problem="call.problem.value" @again="call.again" />
            <p v-else class="waiting soft" role="status">Laying out messages …</p>
          </template>
          <TimeWeave
            v-else-if="timed && drawn"
            ref="weave"
            class="weave"
            :strand="drawn.strand"
            :lines="drawn.lines"
            :selected="selected"
            :zoom="zoom"
            @select="(id) => select(id, tab !== 'why')"
            @zoom="zoomBy"
          />
          <StrandWeave
            v-else-if="drawn"
            ref="weave"
            class="weave"
            :strand="drawn.strand"
            :lines="drawn.lines"
            :folded="folded"
            :selected="selected"
            :changes="changes.answer.value?.items"
            @select="(id) => select(id, tab !== 'why')"
            @fold="fold"
          />
        </div>
        <SideSheet :tabs="TABS" :tab="tab" @tab="(name) => change({ tab: name === 'why' ? undefined : name })">
          <WhySheet v-if="tab === 'why'" :strand="strand" @select="select" @compare="(beside) => change({ tab: 'compare', beside })" />
          <CompareSheet
            v-else-if="tab === 'compare'"
            :strand="strand"
            :beside="text('beside') ?? 'usual'"
            @select="(id) => select(id, true)"
            @beside="(what) => change({ beside: what === 'usual' ? undefined : what })"
          />
          <template v-else-if="tab === 'call'">
            <CallFacts v-if="call.answer.value" :call="call.answer.value" :related="strand.related" @select="(id) => select(id, true)">
              <template #next
                ><template v-if="!laddered"
                  >{{ ' · ' }}<button type="button" class="link" @click="change({ view: 'messages' })">its messages</button></template
                ></template
              >
            </CallFacts>
            <ProblemNote v-else-if="call.problem.value" :problem="call.problem.value" @again="call.again" />
            <p v-else class="soft" role="status">Reading its messages …</p>
          </template>
          <DataSheet v-else-if="tab === 'data'" :strand="strand" @select="(id) => select(id, true)" />
          <TimeSheet v-else-if="tab === 'time'" :strand="strand" />
          <IdentifierSheet v-else-if="tab === 'identifiers'" :strand="strand" @select="select" />
          <RecordSheet v-else-if="selected" :id="selected" />
          <p v-else class="soft">Choose a record in the list.</p>
        </SideSheet>
      </div>
    </template>
  </main>
</template>
<style scoped>
.strand {
  display: flex;
  flex-direction: column;
}
.waiting {
  padding: 24px;
}
.both {
  flex: 1;
  display: flex;
  min-height: 0;
}
.main {
  flex: 1;
  min-width: 0;
  display: flex;
  flex-direction: column;
  position: relative;
}
.weave {
  flex: 1;
}
.tools {
  position: absolute;
  right: 16px;
  top: 56px;
  z-index: 2;
  display: flex;
  gap: 14px;
  font-size: 13px;
}
.tools.high {
  top: 10px;
}
.tools select {
  font: inherit;
  color: inherit;
  background: var(--linen);
  border: 1px solid var(--strong-seam);
  border-radius: 3px;
}
.acts {
  display: flex;
  gap: 14px;
}
/* with less room they would stand on the names of the lanes */
@media (max-width: 1240px) {
  .tools,
  .tools.high {
    position: static;
    flex-wrap: wrap;
    justify-content: flex-end;
    padding: 8px 16px 0;
  }
  .main :deep(.timed .scroller) {
    margin-top: 8px;
  }
}
.tools button {
  background: none;
  border: 0;
  padding: 0;
  font: inherit;
  color: inherit;
  cursor: pointer;
}
.tools .zoom button {
  min-width: 24px;
  min-height: 24px;
}
.tools button[aria-pressed='true'] {
  color: var(--indigo);
  font-weight: 700;
}
</style>
