<script setup lang="ts">
import type { Page, Strand, StoryChapter } from '@fadenweg/api';
import { computed } from 'vue';
import { useRoute } from 'vue-router';
import { api } from '../api/client.ts';
import { useRequest } from '../api/use-request.ts';
import ProblemNote from '../frame/ProblemNote.vue';
import OutcomeGlyph from '../glyphs/OutcomeGlyph.vue';
import { OUTCOME_MEANINGS, OUTCOME_WORDS } from '../glyphs/outcomes.ts';
import { clock } from '../time/format.ts';

/** The strand for somebody who does not read logs: a sentence a step. */
const props = defineProps<{ strand: Strand; selected: string | null }>();
const emit = defineEmits<{ select: [record: string] }>();
const route = useRoute();
const story = useRequest<Page<StoryChapter>>([() => props.strand.id], (signal) =>
  api.get('/strands/{id}/story', { params: { id: props.strand.id } }, signal),
);
const chapters = computed(() => story.answer.value?.items ?? []);
function neighbour(by: number, wanted: (one: StoryChapter) => boolean): void {
  const list = chapters.value;
  const now = list.findIndex((one) => one.record === props.selected);
  for (let i = now < 0 ? (by > 0 ? 0 : list.length - 1) : now + by; i >= 0 && i < list.length; i += by) {
    if (!wanted(list[i]!)) continue;
    emit('select', list[i]!.record);
    document.getElementById(`story-${list[i]!.step}`)?.scrollIntoView({ block: 'nearest' });
    return;
  }
}
defineExpose({ next: (by: 1 | -1) => neighbour(by, () => true), nextKnot: (by: 1 | -1) => neighbour(by, (one) => one.knot) });
</script>
<template>
  <section class="story" aria-label="Told story" tabindex="0">
    <ProblemNote v-if="story.problem.value" :problem="story.problem.value" @again="story.again" />
    <p v-else-if="!story.answer.value" class="soft" role="status">Telling…</p>
    <template v-else>
      <ol>
        <li
          v-for="one in chapters"
          :id="`story-${one.step}`"
          :key="one.step"
          :class="{ knot: one.knot, here: one.record === selected, opens: one.parts[0]?.kind === 'words' && one.parts[1]?.kind === 'time' }"
        >
          <template v-for="(part, index) in one.parts" :key="index"
            ><b v-if="part.kind === 'component'">{{ part.text }}</b
            ><RouterLink v-else-if="part.kind === 'quote'" class="quote" :to="{ query: { ...route.query, record: part.record } }" replace
              >“{{ part.text }}”</RouterLink
            ><template v-else-if="part.kind === 'time'">{{ clock(part.at, 0) }}</template
            ><template v-else>{{ part.text }}</template></template
          >
        </li>
      </ol>
      <p class="end">
        <OutcomeGlyph :outcome="strand.outcome" silent /> It ended at {{ clock(strand.endedAt, 0) }}: <b>{{ OUTCOME_WORDS[strand.outcome] }}</b>,
        {{ OUTCOME_MEANINGS[strand.outcome] }}.
      </p>
    </template>
  </section>
</template>
<style scoped>
.story {
  overflow: auto;
  padding: 34px 24px 20px;
  outline-offset: -2px;
}
ol {
  margin: 0;
  padding-left: 34px;
  max-width: 78ch;
  font-size: 15px;
  line-height: 23px;
}
li {
  padding: 3px 8px;
  overflow-wrap: anywhere;
}
li::marker {
  color: var(--soft-ink);
  font-size: 12px;
  font-variant-numeric: tabular-nums;
}
li.opens:not(:first-child) {
  border-top: 1px solid var(--strong-seam);
  margin-top: 8px;
  padding-top: 8px;
}
li.here {
  background: var(--indigo-wash);
}
li.knot {
  box-shadow: inset 3px 0 var(--madder);
}
.quote {
  color: var(--soft-ink);
}
.end {
  margin: 12px 0 0 12px;
  font-size: 15px;
}
</style>
