<script setup lang="ts">
import { useResizeObserver } from '@vueuse/core';
import { ref, useId, useTemplateRef, watch } from 'vue';

/**
 * A button with a panel that drops below it, by the platform's own popover: it closes on Escape and on a click elsewhere, and gives the focus back.
 * `open` may be set from outside.
 */
defineProps<{ label: string }>();
const open = defineModel<boolean>({ required: true });
const button = useTemplateRef('button');
const panel = useTemplateRef('panel');
const id = useId();
const left = ref(0);
const top = ref(0);

watch(open, (wanted) => {
  if (panel.value && panel.value.matches(':popover-open') !== wanted) panel.value.togglePopover(wanted);
});
function place(): void {
  const bounds = button.value!.getBoundingClientRect();
  left.value = Math.max(4, Math.min(bounds.left, window.innerWidth - panel.value!.offsetWidth - 4));
  // above the button where there is no room below it
  const height = panel.value!.offsetHeight;
  top.value = bounds.bottom + height <= window.innerHeight ? bounds.bottom : Math.max(4, bounds.top - height);
}
// what comes later may make it higher
useResizeObserver(panel, () => {
  if (open.value) place();
});
function toggled(now: Event): void {
  const opened = (now as ToggleEvent).newState === 'open';
  open.value = opened;
  if (opened) place();
}
</script>
<template>
  <button ref="button" type="button" class="drop-button" aria-haspopup="dialog" :popovertarget="id"><slot name="button" /></button
  ><span
    :id="id"
    ref="panel"
    popover
    class="drop-panel"
    role="dialog"
    :aria-label="label"
    :style="{ left: `${left}px`, top: `${top}px` }"
    @beforetoggle="place"
    @toggle="toggled"
  >
    <slot />
  </span>
</template>
<style scoped>
.drop-button {
  background: none;
  border: 0;
  padding: 0;
  color: inherit;
  font: inherit;
  display: inline-block;
  text-align: inherit;
}
.drop-panel {
  position: fixed;
  inset: auto;
  width: max-content;
  max-width: calc(100vw - 8px);
  margin: 0;
  background: var(--paper);
  border: 1px solid var(--strong-seam);
  border-radius: 3px;
  padding: 12px;
  color: var(--ink);
  box-shadow: 0 6px 20px #0003;
}
</style>
