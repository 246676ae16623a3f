<script setup lang="ts">
import { computed } from 'vue';
import { useRoute } from 'vue-router';
import FindRecords from './FindRecords.vue';
import LiveRecords from '../live/LiveRecords.vue';
import IdentifierHits from './IdentifierHits.vue';

/** What a pasted text holds, the records that a search finds, or those that come in. */
const route = useRoute();
const pasted = computed(() => typeof route.query.text === 'string' && route.query.text !== '');
</script>
<template>
  <IdentifierHits v-if="pasted" />
  <LiveRecords v-else-if="route.query.live === '1'" />
  <FindRecords v-else />
</template>
