<script setup lang="ts">
import type { LogRecord } from '@fadenweg/api';
import { computed } from 'vue';
import LevelGlyph from '../glyphs/LevelGlyph.vue';
import { clock, day } from '../time/format.ts';
import { markedParts } from './marked-parts.ts';

/** One line of a list of records: time (only what changed), component, message with the words that were looked for. */
const props = defineProps<{ record: LogRecord; before: LogRecord | null; words: readonly string[]; chosen: boolean }>();
const emit = defineEmits<{ open: [] }>();
const time = computed(() => {
  const own = clock(props.record.at);
  if (!props.before || day(props.before.at) !== day(props.record.at)) return `${day(props.record.at).slice(5)} ${own}`;
  return clock(props.before.at, 0) === own.slice(0, 8) ? own.slice(8) : own;
});
const lines = computed(() => props.record.message.split('\n'));
const parts = computed(() => markedParts(lines.value[0]!.slice(0, 400), props.words));
/** A further line that holds a word which the first does not: why the record is found at all. */
const further = computed(() => {
  const first = lines.value[0]!.toLowerCase();
  const missing = props.words.map((word) => word.toLowerCase()).filter((word) => !first.includes(word));
  if (missing.length === 0 || lines.value.length === 1) return null;
  const line = lines.value.find((one) => missing.some((word) => one.toLowerCase().includes(word)));
  if (line === undefined) return null;
  const place = Math.min(...missing.map((word) => line.toLowerCase().indexOf(word)).filter((at) => at >= 0));
  return markedParts(line.slice(Math.max(0, place - 24), place + 300).trim(), props.words);
});
const weight = computed(() =>
  props.record.level === 'error' || props.record.level === 'fatal' ? 'grave' : props.record.level === 'warning' ? 'warned' : '',
);
</script>
<template>
  <div class="line mono" :class="[weight, { chosen }]" role="option" :aria-selected="chosen" @click="emit('open')">
    <span class="time">{{ time }}</span><span class="component" :title="record.component">{{ record.component }}</span
    ><span class="glyph"><LevelGlyph :level="record.level" /></span
    ><span class="message"
      ><template v-for="(part, i) in parts" :key="i"
        ><mark v-if="part.marked">{{ part.text }}</mark
        ><template v-else>{{ part.text }}</template></template
      ><span v-if="further" class="further">
        …
        <template v-for="(part, i) in further" :key="i"
          ><mark v-if="part.marked">{{ part.text }}</mark
          ><template v-else>{{ part.text }}</template></template
        ></span
      ><span v-if="lines.length > 1" class="soft"> +{{ lines.length - 1 }} {{ lines.length === 2 ? 'line' : 'lines' }}</span></span
    >
  </div>
</template>
<style scoped>
.line {
  position: absolute;
  left: 0;
  right: 0;
  height: 21px;
  display: grid;
  grid-template-columns: 152px 112px 18px minmax(0, 1fr);
  align-items: center;
  padding: 0 12px 0 6px;
  white-space: nowrap;
  cursor: pointer;
  box-sizing: border-box;
}
.line:hover {
  background: var(--paper);
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
.component {
  color: var(--indigo);
  overflow: hidden;
  text-overflow: ellipsis;
  padding-right: 8px;
}
.message {
  overflow: hidden;
  text-overflow: ellipsis;
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
</style>
