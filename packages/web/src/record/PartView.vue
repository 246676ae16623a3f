<script setup lang="ts">
import type { Part } from '@fadenweg/core/structure';
import { computed } from 'vue';
import ListingView from './ListingView.vue';
import PlanView from './PlanView.vue';
import StatementView from './StatementView.vue';
import TableView from './TableView.vue';
import TraceView from './TraceView.vue';
import TreeView from './TreeView.vue';
import type { WrittenBy } from './use-written.ts';

/** One part of a message, as what it is. */
const props = defineProps<{ part: Part; text: string; own: readonly string[]; written?: WrittenBy }>();
const MOST = 20_000;
const plain = computed(() => props.text.slice(props.part.from, Math.min(props.part.to, props.part.from + MOST)).trim());
</script>
<template>
  <TraceView v-if="part.kind === 'trace'" :trace="part.trace" :text="text.slice(part.from, part.to)" :own="own" :written="written" />
  <TreeView
    v-else-if="part.kind === 'json' || part.kind === 'xml'"
    :tree="part.tree"
    :format="part.kind"
    :nodes="part.nodes"
    :broken="part.broken"
    :text="text"
  />
  <ListingView v-else-if="part.kind === 'headers' || part.kind === 'sdp' || part.kind === 'pairs'" :kind="part.kind" :rows="part.rows" />
  <TableView v-else-if="part.kind === 'table'" :head="part.head" :rows="part.rows" />
  <PlanView v-else-if="part.kind === 'plan'" :nodes="part.nodes" />
  <StatementView v-else-if="part.kind === 'sql'" :statement="part.statement" :parameters="part.parameters" />
  <pre v-else-if="plain !== ''" class="mono text" tabindex="0" aria-label="Text of the record">{{ plain }}</pre>
</template>
<style scoped>
.text {
  white-space: pre-wrap;
  overflow-wrap: anywhere;
  background: var(--linen);
  border: 1px solid var(--seam);
  padding: 6px 8px;
  margin: 0;
  max-height: 260px;
  overflow: auto;
  line-height: 18px;
  unicode-bidi: plaintext;
}
</style>
