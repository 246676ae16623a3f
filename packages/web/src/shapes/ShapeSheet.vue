<script setup lang="ts">
import type { DifferentShape } from '@fadenweg/api';
import { computed } from 'vue';
import { useRoute } from 'vue-router';
import { api } from '../api/client.ts';
import { useRequest } from '../api/use-request.ts';
import { againstLink } from '../against/against-link.ts';
import ProblemNote from '../frame/ProblemNote.vue';
import LevelGlyph from '../glyphs/LevelGlyph.vue';
import CourseList from '../time/CourseList.vue';
import { count, dayAndClock } from '../time/format.ts';
import ShapeHands from './ShapeHands.vue';
import ShapeParameters from './ShapeParameters.vue';
import { endsWords, KINDS, oftenWords, searchOf } from './shape-words.ts';

/** One shape: its words, how often by time, its parameters, whose strands pass it, and the way to its records. */
const props = defineProps<{ shape: DifferentShape; asked: { from: string; to: string; environment: string } }>();
const emit = defineEmits<{ said: [] }>();
const route = useRoute();
const detail = useRequest(
  () => `${props.shape.text} ${props.shape.component} ${JSON.stringify(props.asked)}`,
  (signal) => api.get('/shapes/one', { query: { ...props.asked, component: props.shape.component, text: props.shape.text } }, signal),
);
const told = computed(() => detail.answer.value);
const said = computed(() => (told.value?.pieces ?? []).map((one) => ({ ...one, before: Date.parse(one.at) < Date.parse(props.asked.from) })));
const kind = computed(() => KINDS.find((one) => one.kind === props.shape.kind)!);
const records = computed(() => ({
  name: 'find',
  query: { e: route.query.e, w: props.shape.kind === 'gone' ? 'all' : route.query.w, q: searchOf(props.shape), quiet: 'show' },
}));
function changed(): void {
  void detail.again();
  emit('said');
}
</script>
<template>
  <article class="shape" :aria-label="`${kind.title}: ${shape.text}`">
    <h2 class="mono">{{ shape.text === '' ? 'a record without words' : shape.text }}</h2>
    <p class="soft">
      <LevelGlyph :level="shape.level" /> {{ shape.component }} · {{ shape.weight }} · {{ kind.title.toLowerCase() }}: {{ kind.means }}
    </p>
    <p>
      {{ oftenWords(shape)
      }}<span class="soft">{{
        shape.kind === 'new' ? '' : ` · ${shape.chance < 1e-6 ? 'hardly chance' : `by chance once in ${count(Math.round(1 / shape.chance))}`}`
      }}</span>
    </p>
    <p class="acts">
      <RouterLink :to="records">its records</RouterLink>
      <RouterLink v-if="shape.component" :to="againstLink({ what: 'component', name: shape.component }, route.query)"
        >{{ shape.component }} against everybody</RouterLink
      >
    </p>
    <p v-if="shape.firstAt" class="soft">First said {{ dayAndClock(shape.firstAt) }}, as far as the evidence reaches.</p>
    <ProblemNote v-if="detail.problem.value" :problem="detail.problem.value" @again="detail.again" />
    <template v-else-if="told">
      <section v-if="said.some((one) => one.count > 0)">
        <h3>When it was said, the window and as long before it</h3>
        <CourseList :pieces="said" tone="indigo" label="How often it was said, by time" />
      </section>
      <ShapeParameters v-if="told.parameters.length > 0" :shape="told" @named="changed" />
      <section v-if="told.strands > 0">
        <h3>Whose strands pass it</h3>
        <p>{{ endsWords(told) }}</p>
        <ul>
          <li v-for="one in told.flows" :key="one.flow">
            {{ one.label }} <span class="soft">{{ count(one.strands) }}</span>
          </li>
        </ul>
      </section>
      <ShapeHands :shape="told" :different="shape" @said="changed" />
    </template>
    <p v-else class="soft" role="status">Looking it up …</p>
  </article>
</template>
<style scoped>
h2 {
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
ul {
  list-style: none;
  margin: 0;
  padding: 0;
}
.acts {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 14px;
}
</style>
