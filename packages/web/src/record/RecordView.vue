<script setup lang="ts">
import RecordSheet from './RecordSheet.vue';

/** One record alone, under an address of its own. */
defineProps<{ id: string }>();
</script>
<template>
  <main class="one" tabindex="-1">
    <h1 class="visually-hidden">Record</h1>
    <div class="paper"><RecordSheet :id="id" /></div>
  </main>
</template>
<style scoped>
.one {
  overflow: auto;
  padding: 16px 20px;
}
.paper {
  max-width: 1000px;
  background: var(--paper);
  border: 1px solid var(--seam);
  border-radius: 3px;
  padding: 14px 18px;
}
</style>
