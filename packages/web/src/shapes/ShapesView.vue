<script setup lang="ts">
import type { DifferentShape } from '@fadenweg/api';
import { computed } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import { api } from '../api/client.ts';
import { useRequest } from '../api/use-request.ts';
import ProblemNote from '../frame/ProblemNote.vue';
import SideSheet from '../frame/SideSheet.vue';
import { useAddressed } from '../frame/use-addressed.ts';
import { useChosenLine } from '../frame/use-chosen-line.ts';
import LevelGlyph from '../glyphs/LevelGlyph.vue';
import { useSummary } from '../stores/summary.ts';
import EmptyStrands from '../first/EmptyStrands.vue';
import { useAsked } from '../time/asked.ts';
import { count, dayAndClock } from '../time/format.ts';
import { useScope } from '../time/scope.ts';
import ComparedWith from './ComparedWith.vue';
import { comparedWords, KINDS, oftenWords, searchOf } from './shape-words.ts';
import ShapeSheet from './ShapeSheet.vue';

const BASELINES = [
  ['before', 'the time before'],
  ['days', 'same hours of earlier days'],
  ['window', 'another time'],
  ['environment', 'another environment'],
  ['host', 'one host against the others'],
] as const;
/** What is said otherwise than before: shapes that are new, surging, fading, gone. */
const route = useRoute();
const router = useRouter();
const store = useSummary();
const looked = useAsked();
const { text, adjust } = useAddressed();
const scope = useScope();
/** Other environments of what is collected, and hosts that speak: what a window can be set against. */
const environments = computed(() => scope.choices.value.map((one) => one.name).filter((name) => !scope.chosen.value.includes(name)));
const baseline = computed(() => BASELINES.find(([name]) => name === text('baseline'))?.[0] ?? 'before');
const asked = computed(
  () =>
    looked.value && {
      ...looked.value,
      baseline: baseline.value,
      otherEnvironment: baseline.value === 'environment' ? text('other') : undefined,
      host: baseline.value === 'host' ? text('other') : undefined,
      otherFrom: baseline.value === 'window' ? text('other').split('~')[0] : undefined,
      otherTo: baseline.value === 'window' ? text('other').split('~')[1] : undefined,
      all: text('all') === '1' ? 'true' : undefined,
    },
);
/** It is said what to compare with. */
const chosen = computed(() => asked.value !== null && (['before', 'days'].includes(baseline.value) || text('other') !== ''));
const { answer, problem, loading, again } = useRequest(
  () => (chosen.value ? `${JSON.stringify(asked.value)} ${store.summary?.records}` : ''),
  async (signal) => (chosen.value && asked.value ? api.get('/shapes/different', { query: asked.value }, signal) : null),
);
const few = computed(() => answer.value?.items.filter((one) => one.few) ?? []);
const showFew = computed(() => text('few') === '1');
const groups = computed(
  () =>
  KINDS.map((one) => ({ ...one, items: (answer.value?.items ?? []).filter((shape) => shape.kind === one.kind && (!shape.few || showFew.value)) })).filter((one) => one.items.length > 0), // prettier-ignore
);
const flat = computed(() => groups.value.flatMap((one) => one.items));
const keyOf = ({ component, text: words }: DifferentShape): string => `${component}~${words}`;
const { selected } = useChosenLine(flat, keyOf, 'shape', (shape) => {
  void router.push({ name: 'find', query: { e: route.query.e, w: route.query.w, q: searchOf(shape) } });
});
</script>
<template>
  <main class="shapes">
    <EmptyStrands v-if="store.empty" />
    <template v-else>
      <section class="list" aria-labelledby="shapes-title">
        <header>
          <h1 id="shapes-title">Shapes</h1>
          <p v-if="answer" class="soft facts" data-testid="compared">
            {{ count(answer.shapes) }} shapes in {{ count(answer.records) }} records ·
            {{ comparedWords(answer, baseline, (iso) => dayAndClock(iso).slice(0, 16)) }}
          </p>
          <ComparedWith :baseline="baseline" :baselines="BASELINES" :other="text('other')" :environments="environments" @change="adjust" />
          <button v-if="few.length > 0" type="button" class="link" :aria-pressed="showFew" @click="adjust({ few: showFew ? undefined : '1' })">
            {{ showFew ? 'without those said once or twice' : `new and said once or twice: ${count(few.length)} · show` }}
          </button>
          <button
            v-if="(answer && answer.tolerated > 0) || text('all') === '1'"
            type="button"
            class="link"
            :aria-pressed="text('all') === '1'"
            @click="adjust({ all: text('all') === '1' ? undefined : '1' })"
          >
            {{ text('all') === '1' ? 'without those that are tolerated' : `tolerated: ${count(answer!.tolerated)} · show` }}
          </button>
        </header>
        <ProblemNote v-if="problem" :problem="problem" @again="again" />
        <p v-else-if="!chosen" class="soft wait">Say what it is to be compared with.</p>
        <p v-else-if="!answer && loading" class="soft wait" role="status">Comparing what is said …</p>
        <p v-else-if="answer && answer.stretches === 0" class="soft wait">
          Nothing was collected before this window that it could be compared with. Choose a later or a shorter one above, or compare it with other
          hours.
        </p>
        <p v-else-if="answer && groups.length === 0" class="soft wait">Nothing is said otherwise than before.</p>
        <div v-else ref="body" class="lines" role="listbox" aria-label="Shapes that are said otherwise" data-lines tabindex="0">
          <div v-for="group in groups" :key="group.kind" role="group" :aria-label="group.title">
            <div class="kind" aria-hidden="true">
              {{ group.title }} <span class="soft means">{{ group.means }}</span>
            </div>
            <div
              v-for="shape in group.items"
              :key="keyOf(shape)"
              class="line"
              role="option"
              :aria-selected="selected !== null && keyOf(shape) === keyOf(selected)"
              @click="adjust({ shape: keyOf(shape) })"
            >
              <span><LevelGlyph :level="shape.level" /></span>
              <span class="mono what"
                >{{ shape.text === '' ? 'a record without words' : shape.text
                }}<span v-if="shape.twins > 1" class="soft"> · {{ count(shape.twins) }} alike</span
                ><span v-if="shape.tolerated !== null" class="soft"> · tolerated: {{ shape.tolerated }}</span></span
              >
              <span class="soft">{{ shape.component }}</span>
              <span :class="`weight ${shape.weight}`">{{ shape.weight === 'slight' ? '' : shape.weight }}</span>
              <span class="number">{{ oftenWords(shape) }}</span>
            </div>
          </div>
          <p v-if="answer && answer.more > 0" class="soft note">{{ count(answer.more) }} more. Narrow the window for them.</p>
        </div>
      </section>
      <SideSheet :tabs="[{ name: 'shape', label: 'Shape' }]" tab="shape">
        <ShapeSheet v-if="selected && looked" :shape="selected" :asked="looked" @said="again" />
        <p v-else class="soft">Nothing is selected.</p>
      </SideSheet>
    </template>
  </main>
</template>
<style scoped src="../frame/list-beside.css"></style>
<style scoped>
.kind {
  font-weight: 700;
  padding: 8px 16px 2px;
  border-bottom: 1px solid var(--seam);
}
.means {
  font-weight: 400;
  margin-left: 6px;
}
.line {
  grid-template-columns: 18px minmax(0, 1fr) 110px 62px 150px;
}
.line > * {
  overflow-wrap: anywhere;
}
.weight {
  font-size: 12.5px;
}
.serious,
.grave {
  color: var(--madder);
}
.grave {
  font-weight: 700;
}
</style>
