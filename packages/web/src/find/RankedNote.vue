<script setup lang="ts">
import { count } from '../time/format.ts';
import { MOST_RANKED, type RankedBy, type useRanked } from './use-ranked.ts';

/** Says at the end of a sorted list what it leaves out. */
defineProps<{ by: RankedBy; ranked: ReturnType<typeof useRanked> }>();
</script>
<template>
  <p class="soft note" role="status">
    <template v-if="ranked.searching.value">Sorting: {{ Math.round(ranked.searched.value * 100) }} % of the window searched.</template>
    <template v-else>
      <template v-if="ranked.total.value > MOST_RANKED"
        >The first {{ MOST_RANKED }} of {{ count(ranked.total.value) }} by {{ by.field }}, {{ by.direction === 'down' ? 'most' : 'least' }} first.
      </template>
      Records without {{ by.field }} are not in this list.</template
    >
  </p>
</template>
<style scoped>
.note {
  margin: 0;
  padding: 8px 16px 8px 158px;
  font-size: 12px;
}
</style>
