<script setup lang="ts">
import type { Listed } from '@fadenweg/core/structure';
import { computed } from 'vue';

/** Names with their values: headers, a session description, pairs of a line. */
const props = defineProps<{ kind: 'headers' | 'sdp' | 'pairs'; rows: readonly Listed[] }>();
const LABELS = { headers: 'Headers', sdp: 'Session description', pairs: 'Pairs' };
const MOST = 500;
const shown = computed(() => props.rows.slice(0, MOST));
const LONGEST_SEARCH = 100;
const quoted = (value: string): string => `'${value.replaceAll("'", "''")}'`;
</script>
<template>
  <table class="listing mono" :aria-label="LABELS[kind]" data-testid="listing">
    <tbody>
      <tr v-for="(row, i) in shown" :key="i">
        <td v-if="row.name === ''" colspan="2" class="start">{{ row.value }}</td>
        <template v-else>
          <th scope="row">
            {{ row.name }}<span v-if="row.means" class="means">{{ row.means }}</span>
          </th>
          <td>
            <RouterLink
              v-if="row.value !== '' && row.value.length <= LONGEST_SEARCH"
              :to="{ name: 'find', query: { q: quoted(row.value) } }"
              title="Find this value"
              >{{ row.value }}</RouterLink><template v-else>{{ row.value }}</template>
          </td>
        </template>
      </tr>
    </tbody>
  </table>
  <p v-if="rows.length > MOST" class="soft">The first {{ MOST }} of {{ rows.length.toLocaleString('en') }}.</p>
</template>
<style scoped>
.listing {
  width: 100%;
  border-collapse: collapse;
  margin: 6px 0;
  background: var(--linen);
  border: 1px solid var(--seam);
  line-height: 24px;
}
th,
td {
  text-align: left;
  vertical-align: top;
  padding: 0 8px;
  font-weight: 400;
  overflow-wrap: anywhere;
}
th {
  width: 1%;
  white-space: nowrap;
  color: var(--soft-ink);
}
.means {
  margin-left: 10px;
}
.start {
  font-weight: 700;
}
td a {
  /* as high and wide as what can be taken in hand */
  display: inline-block;
  min-width: 24px;
  line-height: 24px;
  color: inherit;
  text-decoration: none;
}
td a:hover,
td a:focus-visible {
  text-decoration: underline;
}
p {
  margin: 2px 0;
}
</style>
