<script setup lang="ts">
import { onKeyStroke } from '@vueuse/core';
import { computed, nextTick, ref, useId, useTemplateRef, watch } from 'vue';
import { commandsFor, keyWords, useCommands, type Command } from './commands.ts';

/** What can be done now, found by its words: Ctrl K, some letters, Enter. */
const open = ref(false);
const text = ref('');
const at = ref(0);
const id = useId();
const field = useTemplateRef<HTMLInputElement>('field');
const list = useTemplateRef<HTMLElement>('list');
const found = computed(() => commandsFor(text.value));
watch(found, () => (at.value = 0));
async function show(): Promise<void> {
  text.value = '';
  at.value = 0;
  open.value = true;
  await nextTick();
  field.value?.focus();
}
async function run(command: Command | undefined): Promise<void> {
  if (!command) return;
  open.value = false;
  // what it does may look at what has the focus
  await nextTick();
  command.run();
}
function key(event: KeyboardEvent): void {
  if (event.key === 'ArrowDown') at.value = (at.value + 1) % Math.max(1, found.value.length);
  else if (event.key === 'ArrowUp') at.value = (at.value <= 0 ? found.value.length : at.value) - 1;
  else if (event.key === 'Enter') void run(found.value[at.value]);
  else return;
  event.preventDefault();
  void nextTick(() => list.value?.querySelector('[aria-selected=true]')?.scrollIntoView({ block: 'nearest' }));
}
onKeyStroke('k', (event) => {
  if (!(event.ctrlKey || event.metaKey) || event.altKey || event.shiftKey) return;
  event.preventDefault();
  void show();
});
useCommands('', [{ name: 'look for a command', keys: [], run: () => void show() }]);
defineExpose({ show });
</script>
<template>
  <v-dialog v-model="open" max-width="520" aria-label="What can be done here">
    <div class="commands">
      <h2 :id="`${id}-title`">What can be done here</h2>
      <input
        ref="field"
        v-model="text"
        type="text"
        autofocus
        role="combobox"
        aria-autocomplete="list"
        aria-expanded="true"
        :aria-labelledby="`${id}-title`"
        :aria-controls="`${id}-list`"
        :aria-activedescendant="found.length > 0 ? `${id}-${at}` : undefined"
        placeholder="some letters of it"
        spellcheck="false"
        autocomplete="off"
        maxlength="80"
        @keydown="key"
      />
      <ul v-show="found.length > 0" :id="`${id}-list`" ref="list" role="listbox" aria-label="Commands" tabindex="-1">
        <li
          v-for="(one, i) in found"
          :id="`${id}-${i}`"
          :key="`${one.where} ${one.name}`"
          role="option"
          :aria-selected="i === at"
          @pointerdown.prevent="run(one)"
        >
          <span class="name">{{ one.name }}</span><span class="soft">{{ one.where }}</span
          ><span class="keys"
            ><kbd v-for="name in one.keys.flatMap((keys) => keys.split(' '))" :key="name">{{ keyWords(name) }}</kbd></span
          >
        </li>
      </ul>
      <p v-if="found.length === 0" class="soft" role="status">Nothing of that name can be done here. Other views have other commands.</p>
    </div>
  </v-dialog>
</template>
<style scoped>
.commands {
  background: var(--paper);
  border: 1px solid var(--strong-seam);
  border-radius: 3px;
  padding: 14px 16px;
}
input {
  width: 100%;
  box-sizing: border-box;
  height: 34px;
  margin: 8px 0;
  padding: 0 10px;
  border: 1px solid var(--indigo);
  border-radius: 3px;
  background: var(--linen);
  color: var(--ink);
}
ul {
  list-style: none;
  margin: 0;
  padding: 0;
  max-height: 380px;
  overflow-y: auto;
}
li {
  display: grid;
  grid-template-columns: 1fr max-content 84px;
  gap: 12px;
  align-items: center;
  padding: 3px 8px;
  line-height: 22px;
  cursor: pointer;
}
li[aria-selected='true'] {
  background: var(--indigo-wash);
}
.keys {
  display: flex;
  gap: 4px;
}
</style>
