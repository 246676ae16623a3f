<script setup lang="ts">
import { computed } from 'vue';
import { useRoute } from 'vue-router';
import FindRecords from './FindRecords.vue';
import IdentifierHits from './IdentifierHits.vue';

/** What a pasted text holds, or the records that a search finds. */
const route = useRoute();
const pasted = computed(() => typeof route.query.text === 'string' && route.query.text !== '');
</script>
<template>
  <IdentifierHits v-if="pasted" />
  <FindRecords v-else />
</template>
