<script setup lang="ts">
import type { LogRecord } from '@fadenweg/api';
import { computed, nextTick, ref, useTemplateRef } from 'vue';
import ValueActions from '../record/ValueActions.vue';
import { cellOf, type Column } from './columns.ts';

/** What can be done with a value of a line, at its cell; the arrow keys to the sides go to the neighbouring columns. */
const props = defineProps<{ columns: readonly Column[] }>();
const panel = useTemplateRef('panel');
const at = ref<{ record: LogRecord; column: number; line: Element | null } | null>(null);
const left = ref(0);
const top = ref(0);
const field = computed(() => props.columns[at.value?.column ?? -1]?.field ?? '');
const value = computed(() => (at.value ? cellValue(at.value.record, field.value) : ''));
const identifier = computed(() => at.value?.record.identifiers.some((one) => one.kind === field.value || one.value === value.value) ?? false);
/** As a search compares it: of several identifiers of a kind the first. */
const cellValue = (record: LogRecord, name: string): string =>
  record.identifiers.find((one) => one.kind === name)?.value ??
  (name === 'took' && record.tookMs !== null ? `${record.tookMs}ms` : cellOf(record, name));
const usable = (record: LogRecord, column: number): boolean => {
  const name = props.columns[column]?.field;
  return name !== undefined && name !== 'message' && cellValue(record, name) !== '';
};

async function show(record: LogRecord, column: number, line: Element | null): Promise<void> {
  const first = usable(record, column) ? column : props.columns.findIndex((_, i) => usable(record, i));
  if (first < 0) return;
  at.value = { record, column: first, line };
  await nextTick();
  place();
  if (!panel.value!.matches(':popover-open')) panel.value!.showPopover();
  panel.value!.querySelector<HTMLElement>('a, button')?.focus();
}
/** Below its cell: the time stands before the columns, and the letter of the source where there is one. */
function place(): void {
  const { line, column } = at.value!;
  const cells = line ? [...line.children].filter((one) => !one.matches('.time, .letter')) : [];
  const bounds = (cells[column] ?? line)?.getBoundingClientRect();
  left.value = Math.max(4, Math.min(bounds?.left ?? 200, window.innerWidth - 240));
  const below = bounds?.bottom ?? 200;
  top.value = below + 190 > window.innerHeight && bounds ? Math.max(4, bounds.top - 190) : below;
}
function side(by: number): void {
  const now = at.value;
  if (!now) return;
  for (let column = now.column + by; column >= 0 && column < props.columns.length; column += by)
    if (usable(now.record, column)) return void show(now.record, column, now.line);
}
function walk(by: number): void {
  const items = [...panel.value!.querySelectorAll<HTMLElement>('a, button')];
  const now = items.indexOf(document.activeElement as HTMLElement);
  items[(now + by + items.length) % items.length]?.focus();
}
const close = (): void => panel.value?.hidePopover();
defineExpose({ show });
</script>
<template>
  <span
    ref="panel"
    popover
    class="cell-menu"
    role="dialog"
    :aria-label="`${field}: what to do with ${value}`"
    :style="{ left: `${left}px`, top: `${top}px` }"
    @keydown.left.prevent="side(-1)"
    @keydown.right.prevent="side(1)"
    @keydown.up.prevent="walk(-1)"
    @keydown.down.prevent="walk(1)"
  >
    <template v-if="at">
      <span class="what mono"
        ><span class="soft">{{ field }}</span> {{ value.slice(0, 120) }}</span
      >
      <ValueActions :field="field" :value="value" :identifier="identifier" @done="close" />
    </template>
  </span>
</template>
<style scoped>
.cell-menu {
  position: fixed;
  inset: auto;
  margin: 0;
  min-width: 200px;
  max-width: 420px;
  background: var(--paper);
  border: 1px solid var(--strong-seam);
  border-radius: 3px;
  padding: 8px;
  color: var(--ink);
  box-shadow: 0 6px 20px #0003;
}
.what {
  display: block;
  padding: 0 10px 4px;
  overflow-wrap: anywhere;
}
</style>
