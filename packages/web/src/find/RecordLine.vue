<script setup lang="ts">
import type { LogRecord } from '@fadenweg/api';
import { computed } from 'vue';
import LevelGlyph from '../glyphs/LevelGlyph.vue';
import OutcomeGlyph from '../glyphs/OutcomeGlyph.vue';
import { cellOf, type Column } from './columns.ts';
import { lineTime, type TimeMode } from './line-time.ts';
import { markedParts } from './marked-parts.ts';

/** One line of a list of records: its time, then the chosen columns; the message shows which words were looked for, and which are highlighted. */
const props = defineProps<{
  record: LogRecord;
  /** Time of the line before. */
  before: string | null;
  time: TimeMode;
  words: readonly string[];
  marks: readonly string[];
  columns: readonly Column[];
  grid: string;
  chosen: boolean;
  quiet: boolean;
  wrap: boolean;
  /** Letter and shade of its source, where several are read as one. */
  tag: { letter: string; shade: number; path: string } | null;
}>();
const emit = defineEmits<{ open: [event: MouseEvent]; take: [column: number] }>();
const time = computed(() => lineTime(props.record.at, props.before, props.time));
const lines = computed(() => props.record.message.split('\n'));
const LONGEST = 400;
const LONGEST_WRAPPED = 4000;
const looked = computed(() => [...props.words, ...props.marks]);
const parts = computed(() => {
  const text = props.wrap ? props.record.message.slice(0, LONGEST_WRAPPED) : lines.value[0]!.slice(0, LONGEST);
  return markedParts(text, looked.value);
});
const style = (word: number): string => (word < props.words.length ? '' : `m${(word - props.words.length) % 4}`);
/** A further line that holds a word which the first does not: why the record is found at all. */
const further = computed(() => {
  if (props.wrap || lines.value.length === 1) return null;
  const first = lines.value[0]!.toLowerCase();
  const missing = looked.value.map((word) => word.toLowerCase()).filter((word) => !first.includes(word));
  if (missing.length === 0) return null;
  const line = lines.value.find((one) => missing.some((word) => one.toLowerCase().includes(word)));
  if (line === undefined) return null;
  const place = Math.min(...missing.map((word) => line.toLowerCase().indexOf(word)).filter((at) => at >= 0));
  const begin = Math.max(line.lastIndexOf(' ', Math.max(0, place - 6)) + 1, place - 24, 0);
  return markedParts(line.slice(begin, place + 300).trim(), looked.value);
});
/** What is cut at the end of the line is read beside the pointer; the whole of it stands in the record. */
const told = computed(() => lines.value[0]!.slice(0, LONGEST));
const cut = computed(() => props.wrap && props.record.message.length > LONGEST_WRAPPED);
const weight = computed(() =>
  props.record.level === 'error' || props.record.level === 'fatal' ? 'grave' : props.record.level === 'warning' ? 'warned' : '',
);
</script>
<template>
  <div
    class="line mono"
    :class="[weight, { chosen, quiet, wrap }, tag && `shade${tag.shade}`]"
    role="option"
    :aria-selected="chosen"
    :style="{ gridTemplateColumns: `152px ${tag ? '26px ' : ''}${grid}` }"
    @click="emit('open', $event)"
  >
    <span class="time">{{ time }}</span><span v-if="tag" class="letter" :title="tag.path">{{ tag.letter }}</span
    ><template v-for="(column, at) in columns" :key="column.field"
      ><span v-if="column.field === 'message'" class="message" :title="wrap ? undefined : told"
        ><template v-for="(part, i) in parts" :key="i"
          ><mark v-if="part.word !== null" :class="style(part.word)">{{ part.text }}</mark
          ><template v-else>{{ part.text }}</template></template
        ><span v-if="further" class="further">
          …
          <template v-for="(part, i) in further" :key="i"
            ><mark v-if="part.word !== null" :class="style(part.word)">{{ part.text }}</mark
            ><template v-else>{{ part.text }}</template></template
          ></span
        ><span v-if="!wrap && lines.length > 1" class="soft"> +{{ lines.length - 1 }} {{ lines.length === 2 ? 'line' : 'lines' }}</span
        ><span v-if="record.copies.length > 0" class="soft"> · told in {{ record.copies.length + 1 }} sources</span
        ><span v-if="cut" class="soft"> … the whole message is in the record</span></span
      ><span v-else-if="column.field === 'level'" class="glyph"><LevelGlyph :level="record.level" /></span
      ><span v-else-if="column.field === 'outcome'" class="cell"
        ><OutcomeGlyph v-if="record.outcome" :outcome="record.outcome" silent />&nbsp;<span class="value" @click.stop="emit('take', at)">{{
          record.outcome
        }}</span></span
      ><span v-else class="cell" :class="{ component: column.field === 'component' }" :title="cellOf(record, column.field)"
        ><span class="value" @click.stop="emit('take', at)">{{ cellOf(record, column.field) }}</span></span
      ></template
    >
  </div>
</template>
<style scoped>
.line {
  min-height: var(--line, 21px);
  line-height: var(--line, 21px);
  display: grid;
  align-items: start;
  padding: 0 12px 0 6px;
  white-space: nowrap;
  cursor: pointer;
  box-sizing: border-box;
  contain: layout style;
}
.line:not(.wrap) {
  height: var(--line, 21px);
  contain: strict;
}
.line.wrap {
  line-height: 18px;
  padding-top: 1px;
  padding-bottom: 1px;
}
.line:hover {
  background: var(--paper);
}
.quiet {
  opacity: 0.72;
}
.shade1 {
  background: color-mix(in srgb, var(--woad) 9%, transparent);
}
.shade2 {
  background: color-mix(in srgb, var(--heather) 10%, transparent);
}
.shade3 {
  background: color-mix(in srgb, var(--weld) 10%, transparent);
}
.shade4 {
  background: color-mix(in srgb, var(--walnut) 11%, transparent);
}
.shade5 {
  background: color-mix(in srgb, var(--indigo) 8%, transparent);
}
.line.chosen {
  background: var(--indigo-wash);
  box-shadow: inset 3px 0 var(--indigo);
}
.time {
  text-align: right;
  padding-right: 12px;
  color: var(--soft-ink);
}
.letter {
  font-weight: 700;
}
.cell {
  overflow: hidden;
  text-overflow: ellipsis;
  padding-right: 8px;
}
.component {
  color: var(--indigo);
}
.value:hover {
  text-decoration: underline;
  text-underline-offset: 3px;
}
.message {
  overflow: hidden;
  text-overflow: ellipsis;
  min-width: 0;
}
/* what turns the direction of writing ends with its cell */
.message,
.cell {
  unicode-bidi: isolate;
}
.wrap .message {
  white-space: pre-wrap;
  overflow-wrap: anywhere;
}
.grave .message {
  color: var(--madder);
  font-weight: 600;
}
.further {
  font-weight: 400;
}
.warned .message {
  color: var(--weld);
}
mark {
  background: var(--weld-wash);
  color: inherit;
}
/* highlighted words differ by line as well as by shade */
.m0 {
  background: var(--indigo-wash);
  box-shadow: inset 0 -2px var(--indigo);
}
.m1 {
  background: none;
  outline: 1px solid var(--woad);
  outline-offset: -1px;
}
.m2 {
  background: none;
  text-decoration: underline wavy var(--heather);
}
.m3 {
  background: none;
  border-bottom: 2px dotted var(--walnut);
}
</style>
