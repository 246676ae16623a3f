<script setup lang="ts">
import type { TextPlace } from '@fadenweg/api';
import { computed, ref, watch } from 'vue';
import { api } from '../api/client.ts';
import { useRequest } from '../api/use-request.ts';
import ProblemNote from '../frame/ProblemNote.vue';

/** The lines of a registered source text around one that matters. */
const props = defineProps<{ id: number; place: TextPlace }>();
const AROUND = 6;
const MORE = 20;
const above = ref(AROUND);
const below = ref(AROUND);
watch(() => [props.id, props.place.path, props.place.line], () => ([above.value, below.value] = [AROUND, AROUND])); // prettier-ignore
const line = computed(() => props.place.line ?? 1);
const { answer, problem, again } = useRequest([() => props.id, () => props.place.path, line, above, below], (signal) => {
  const from = Math.max(1, line.value - above.value);
  return api.get(
    '/source-texts/{id}/lines',
    { params: { id: props.id }, query: { path: props.place.path, from, to: line.value + below.value } },
    signal,
  );
});
const last = computed(() => (answer.value ? answer.value.from + answer.value.lines.length - 1 : 0));
</script>
<template>
  <ProblemNote v-if="problem" :problem="problem" @again="again" />
  <figure v-else-if="answer" class="excerpt" data-testid="excerpt">
    <figcaption class="soft">
      <span
        ><span class="mono">{{ place.path }}</span
        ><template v-if="place.line !== null">, line {{ place.line }}</template> of {{ answer.total }}</span
      >
      <button v-if="answer.from > 1" type="button" class="link" @click="above += MORE">more above</button>
      <button v-if="last < answer.total" type="button" class="link" @click="below += MORE">more below</button>
    </figcaption>
    <p v-if="place.line !== null && place.line > answer.total" class="soft">The file has no line {{ place.line }}: it is not the text of what ran.</p>
    <ol v-else class="mono" tabindex="0" :aria-label="`Source text of ${place.path}`">
      <li v-for="(text, i) in answer.lines" :key="answer.from + i" :class="{ here: answer.from + i === place.line }">
        <span class="number soft" aria-hidden="true">{{ answer.from + i }}</span><code>{{ text }}</code>
      </li>
    </ol>
  </figure>
</template>
<style scoped>
.excerpt {
  margin: 6px 0;
}
figcaption {
  display: flex;
  flex-wrap: wrap;
  gap: 0 10px;
  margin-bottom: 2px;
}
p {
  margin: 4px 0;
}
ol {
  list-style: none;
  margin: 0;
  padding: 3px 0;
  border: 1px solid var(--seam);
  background: var(--linen);
  max-height: 420px;
  overflow: auto;
  line-height: 18px;
}
li {
  display: flex;
  padding-right: 8px;
}
.number {
  flex: none;
  width: 48px;
  padding-right: 10px;
  text-align: right;
  user-select: none;
}
code {
  font: inherit;
  white-space: pre;
}
.here {
  background: var(--weld-wash);
  box-shadow: inset 3px 0 var(--madder);
}
</style>
