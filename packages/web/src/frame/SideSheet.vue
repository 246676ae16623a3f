<script setup lang="ts">
import { useLocalStorage } from '@vueuse/core';
import { useId } from 'vue';

/** What is selected, beside the work and never over it; its width is the person's own. */
const props = defineProps<{ tabs: { name: string; label: string }[]; tab: string }>();
const emit = defineEmits<{ tab: [name: string] }>();
const width = useLocalStorage('fadenweg.sheet', 420);
const base = useId();
function drag(event: PointerEvent): void {
  const from = event.clientX;
  const before = width.value;
  const move = (moved: PointerEvent): void => {
    width.value = Math.min(900, Math.max(280, before + from - moved.clientX));
  };
  window.addEventListener('pointermove', move);
  window.addEventListener('pointerup', () => window.removeEventListener('pointermove', move), { once: true });
}
function arrow(event: KeyboardEvent): void {
  const by = event.key === 'ArrowRight' ? 1 : event.key === 'ArrowLeft' ? -1 : 0;
  if (by === 0) return;
  const index = (props.tabs.findIndex((one) => one.name === props.tab) + by + props.tabs.length) % props.tabs.length;
  emit('tab', props.tabs[index]!.name);
  document.getElementById(`${base}-${props.tabs[index]!.name}`)?.focus();
}
function widen(event: KeyboardEvent): void {
  if (event.key === 'ArrowLeft') width.value = Math.min(900, width.value + 20);
  if (event.key === 'ArrowRight') width.value = Math.max(280, width.value - 20);
}
</script>
<template>
  <aside class="sheet" :style="{ width: `${width}px` }" aria-label="Selected">
    <div
      class="edge"
      role="separator"
      tabindex="0"
      aria-orientation="vertical"
      aria-label="Width of the side sheet"
      :aria-valuenow="width"
      aria-valuemin="280"
      aria-valuemax="900"
      @pointerdown.prevent="drag"
      @keydown="widen"
    ></div>
    <div class="tabs" role="tablist" @keydown="arrow">
      <button
        v-for="one in tabs"
        :id="`${base}-${one.name}`"
        :key="one.name"
        type="button"
        role="tab"
        :aria-selected="one.name === tab"
        :tabindex="one.name === tab ? 0 : -1"
        :aria-controls="`${base}-panel`"
        @click="emit('tab', one.name)"
      >
        {{ one.label }}
      </button>
    </div>
    <div :id="`${base}-panel`" class="panel" role="tabpanel" tabindex="0" :aria-labelledby="`${base}-${tab}`"><slot /></div>
  </aside>
</template>
<style scoped>
.sheet {
  position: relative;
  flex: none;
  max-width: min(60vw, max(280px, 36vw));
  display: flex;
  flex-direction: column;
  background: var(--paper);
  border-left: 1px solid var(--seam);
  min-height: 0;
}
.edge {
  position: absolute;
  left: -4px;
  top: 0;
  bottom: 0;
  width: 8px;
  cursor: col-resize;
  z-index: 5;
}
.tabs {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 18px;
  padding: 10px 18px 0;
  border-bottom: 1px solid var(--seam);
}
.tabs button {
  background: none;
  border: 0;
  border-bottom: 2px solid transparent;
  padding: 0 0 6px;
  font: inherit;
  color: var(--soft-ink);
  cursor: pointer;
}
.tabs button[aria-selected='true'] {
  color: var(--indigo);
  font-weight: 700;
  border-color: var(--indigo);
}
.panel {
  flex: 1;
  overflow: auto;
  padding: 14px 18px;
  outline-offset: -2px;
}
</style>
