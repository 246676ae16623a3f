<script setup lang="ts">
import { computed, nextTick, ref, useTemplateRef } from 'vue';
import ValueActions from './ValueActions.vue';

/** A value of a line, and the cell in which it stands. */
export interface LineValue {
  field: string;
  value: string;
  identifier: boolean;
  /** It names a party. */
  party?: boolean;
  cell: Element | null;
}
/** What can be done with a value of a line, at its cell; the arrow keys to the sides go to the other values of the line. */
const panel = useTemplateRef('panel');
const values = ref<LineValue[]>([]);
const at = ref(0);
const left = ref(0);
const top = ref(0);
const now = computed(() => values.value[at.value]);
/** Height that the menu may take, for it to open upwards near the lower edge, in pixels. */
const ROOM = 210;

async function show(list: readonly LineValue[], index: number): Promise<void> {
  if (!list[index]) return;
  values.value = [...list];
  at.value = index;
  await nextTick();
  const bounds = list[index].cell?.getBoundingClientRect();
  left.value = Math.max(4, Math.min(bounds?.left ?? 200, window.innerWidth - 240));
  const below = bounds?.bottom ?? 200;
  top.value = bounds && below + ROOM > window.innerHeight ? Math.max(4, bounds.top - ROOM) : below;
  if (!panel.value!.matches(':popover-open')) panel.value!.showPopover();
  panel.value!.querySelector<HTMLElement>('a, button')?.focus();
}
const side = (by: number): void => void show(values.value, at.value + by);
function walk(by: number): void {
  const items = [...panel.value!.querySelectorAll<HTMLElement>('a, button')];
  const index = items.indexOf(document.activeElement as HTMLElement);
  items[(index + by + items.length) % items.length]?.focus();
}
const close = (): void => panel.value?.hidePopover();
defineExpose({ show });
</script>
<template>
  <span
    ref="panel"
    popover
    class="value-menu"
    role="dialog"
    :aria-label="now ? `${now.field}: what to do with ${now.value}` : 'What to do with a value'"
    :style="{ left: `${left}px`, top: `${top}px` }"
    @keydown.left.prevent="side(-1)"
    @keydown.right.prevent="side(1)"
    @keydown.up.prevent="walk(-1)"
    @keydown.down.prevent="walk(1)"
  >
    <template v-if="now">
      <span class="what mono"
        ><span class="soft">{{ now.field }}</span> {{ now.value.slice(0, 120) }}</span
      >
      <ValueActions :field="now.field" :value="now.value" :identifier="now.identifier" :party="now.party" @done="close" />
    </template>
  </span>
</template>
<style scoped>
.value-menu {
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
