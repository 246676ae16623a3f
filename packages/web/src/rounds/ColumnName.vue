<script setup lang="ts">
import { usualText } from './cells.ts';
import type { ClothColumn } from './groups.ts';

/** What stands above a column: the group that begins with it, its flow, what is usual. */
defineProps<{ column: ClothColumn; /** Of so many columns the name of a group begins here; 0: none. */ spans: number; slotWord: string }>();
defineEmits<{ open: []; fold: [] }>();
</script>
<template>
  <button
    v-if="spans > 0"
    type="button"
    class="group"
    :style="{ width: `calc(${spans} * (100% + 14px) - 20px)` }"
    :aria-expanded="!column.folded"
    :title="column.folded ? 'Unfold the group' : 'Fold the group into one column'"
    @click="$emit('fold')"
  >
    {{ column.group }}<span aria-hidden="true">{{ column.folded ? ' ‹ ›' : ' › ‹' }}</span>
  </button>
  <button type="button" class="label" :title="column.label" @click="$emit('open')">{{ column.label }}</button>
  <span class="soft usual">{{ usualText(column, slotWord) }}</span>
</template>
<style scoped>
.group,
.label {
  width: 100%;
  background: none;
  border: 0;
  padding: 0;
  font: inherit;
  text-align: right;
  cursor: pointer;
}
.group {
  display: block;
  position: relative;
  left: 6px;
  min-height: 24px;
  text-align: left;
  border-bottom: 2px solid var(--indigo);
  font-size: 12.5px;
  color: var(--indigo);
  white-space: nowrap;
  overflow: hidden;
  text-overflow: ellipsis;
}
.label {
  font-weight: 700;
  color: var(--ink);
  display: -webkit-box;
  -webkit-box-orient: vertical;
  -webkit-line-clamp: 2;
  overflow: hidden;
  overflow-wrap: anywhere;
  line-height: 17px;
}
.usual {
  font-size: 12px;
  white-space: nowrap;
}
</style>
