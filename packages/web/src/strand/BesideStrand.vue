<script setup lang="ts">
import type { BesideLine, Strand } from '@fadenweg/api';
import { computed, ref } from 'vue';
import { api } from '../api/client.ts';
import { useRequest } from '../api/use-request.ts';
import ProblemNote from '../frame/ProblemNote.vue';
import OutcomeGlyph from '../glyphs/OutcomeGlyph.vue';
import { ms } from '../strands/duration-text.ts';
import { dayAndClock } from '../time/format.ts';

/** The strand line by line beside another one, or beside the nearest that went well: first what differs, all lines on demand. */
const props = defineProps<{ strand: Strand; /** Null for the nearest good one. */ other: string | null }>();
defineEmits<{ select: [record: string] }>();
const compared = useRequest([() => props.strand.id, () => props.other], (signal) =>
  api.get('/strands/{id}/against', { params: { id: props.strand.id }, query: { other: props.other } }, signal),
);
const all = ref(false);
const WORDS: Record<BesideLine['kind'], string> = {
  alike: '',
  slower: 'slower',
  faster: 'faster',
  differs: 'differs',
  missing: 'only there',
  extra: 'only here',
};
const lines = computed(() => compared.answer.value?.lines ?? []);
const differing = computed(() => lines.value.filter((line) => line.kind !== 'alike'));
/** Many lines in a row that only one of both has are told by the first of them. */
const RUN = 4;
const shown = computed<{ line: BesideLine; more: number }[]>(() => {
  if (all.value) return lines.value.map((line) => ({ line, more: 0 }));
  const found: { line: BesideLine; more: number }[] = [];
  for (let i = 0; i < differing.value.length;) {
    const { kind } = differing.value[i]!;
    let end = i + 1;
    if (kind === 'missing' || kind === 'extra') while (differing.value[end]?.kind === kind) end++;
    const folded = end - i >= RUN;
    for (const line of differing.value.slice(i, folded ? i + 1 : end)) found.push({ line, more: folded ? end - i - 1 : 0 });
    i = end;
  }
  return found;
});
</script>
<template>
  <div>
    <ProblemNote v-if="compared.problem.value" :problem="compared.problem.value" @again="compared.again" />
    <p v-else-if="compared.loading.value && !compared.answer.value" class="soft" role="status">Comparing…</p>
    <p v-else-if="!compared.answer.value" class="soft">No other {{ strand.flowLabel || 'strand' }} went well.</p>
    <template v-else>
      <p class="with">
        <OutcomeGlyph :outcome="compared.answer.value.other.outcome" />
        <RouterLink :to="{ name: 'strand', params: { id: compared.answer.value.other.id } }" class="mono">{{
          compared.answer.value.other.name
        }}</RouterLink>
        <span class="soft"
          >{{ dayAndClock(compared.answer.value.other.startedAt) }}, {{ ms(compared.answer.value.other.durationMs) }};
          {{ compared.answer.value.other.parties.map((one) => `${one.kind} ${one.value}`).join(' · ') }}</span
        >
      </p>
      <p v-if="compared.answer.value.cut" class="soft">One of both is very long: the beginnings are compared.</p>
      <p class="choice" role="group" aria-label="Lines">
        <button type="button" class="link" :aria-pressed="!all" @click="all = false">what differs ({{ differing.length }})</button> ·
        <button type="button" class="link" :aria-pressed="all" @click="all = true">all lines ({{ lines.length }})</button>
      </p>
      <p v-if="shown.length === 0" class="soft">Line by line alike.</p>
      <ol>
        <li v-for="({ line, more }, index) in shown" :key="index" :class="`is-${line.kind}`">
          <p class="head">
            <b>{{ line.component }}</b> <span v-if="WORDS[line.kind]" class="kind">{{ WORDS[line.kind] }}</span>
          </p>
          <button v-if="line.own" type="button" class="words mono" @click="$emit('select', line.own.record)">{{ line.own.text }}</button>
          <RouterLink v-else-if="line.other" class="words mono gone" :to="{ name: 'record', params: { id: line.other.record } }">{{
            line.other.text
          }}</RouterLink>
          <RouterLink
            v-if="line.kind === 'differs' && line.other && !line.values.some((value) => value.telling)"
            class="words mono gone"
            :to="{ name: 'record', params: { id: line.other.record } }"
            >there: {{ line.other.text }}</RouterLink
          >
          <p v-if="line.kind !== 'missing' && line.kind !== 'extra' && line.tookMs !== null && line.otherTookMs !== null" class="soft">
            {{ ms(line.tookMs) }} after what comes before it, there {{ ms(line.otherTookMs) }}
          </p>
          <p v-if="more > 0" class="soft">
            and <button type="button" class="link" @click="all = true">{{ more }} more behind it</button> that only
            {{ line.kind === 'missing' ? 'the other one' : 'this one' }} has
          </p>
          <dl v-if="line.values.length > 0">
            <template v-for="value in line.values" :key="value.field + value.own">
              <dt :class="{ telling: value.telling }">{{ value.field || 'in it' }}</dt>
              <dd class="mono" :class="{ telling: value.telling }">
                {{ value.own || 'none' }} <span class="soft">there {{ value.other || 'none' }}</span>
              </dd>
            </template>
          </dl>
        </li>
      </ol>
    </template>
  </div>
</template>
<style scoped>
p {
  margin: 3px 0;
}
.with {
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
  align-items: center;
}
.choice {
  margin: 8px 0;
}
.choice [aria-pressed='true'] {
  color: var(--ink);
  font-weight: 600;
  text-decoration: none;
}
ol {
  list-style: none;
  margin: 0;
  padding: 0;
}
li {
  border-left: 3px solid var(--seam);
  padding: 2px 0 4px 8px;
  margin-bottom: 6px;
}
li.is-slower {
  border-color: var(--weld);
}
li.is-missing {
  border-left-style: dashed;
  border-color: var(--heather);
}
li.is-extra,
li.is-differs {
  border-color: var(--madder);
}
.kind {
  margin-left: 6px;
  font-size: 12px;
  border: 1px solid var(--strong-seam);
  border-radius: 3px;
  padding: 0 5px;
}
.words {
  display: block;
  width: 100%;
  text-align: left;
  background: none;
  border: 0;
  padding: 0;
  color: var(--ink);
  overflow-wrap: anywhere;
  white-space: normal;
  line-height: 17px;
  cursor: pointer;
  text-decoration: none;
}
.words:hover {
  text-decoration: underline;
}
.gone {
  color: var(--soft-ink);
}
dl {
  display: grid;
  grid-template-columns: auto 1fr;
  gap: 0 10px;
  margin: 2px 0 0;
}
dt {
  color: var(--soft-ink);
}
dd {
  margin: 0;
  overflow-wrap: anywhere;
  line-height: 18px;
}
.telling {
  font-weight: 700;
  color: var(--ink);
}
</style>
