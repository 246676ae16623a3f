<script setup lang="ts">
import { computed } from 'vue';

/** A table that a message holds. */
const props = defineProps<{ head: readonly string[]; rows: readonly (readonly string[])[] }>();
const MOST = 500;
const shown = computed(() => props.rows.slice(0, MOST));
const isNumber = computed(() =>
  (props.rows[0] ?? []).map(
    (_, column) => props.rows.every((row) => /^-?[\d.,]*%?$/.test(row[column]!)) && props.rows.some((row) => row[column] !== ''),
  ),
);
</script>
<template>
  <div class="box" tabindex="0" role="region" aria-label="Table of the message">
    <table class="mono" data-testid="message-table">
      <thead v-if="head.length > 0">
        <tr>
          <th v-for="(cell, i) in head" :key="i" scope="col" :class="{ number: isNumber[i] }">{{ cell }}</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="(row, i) in shown" :key="i">
          <td v-for="(cell, k) in row" :key="k" :class="{ number: isNumber[k] }">{{ cell }}</td>
        </tr>
      </tbody>
    </table>
  </div>
  <p v-if="rows.length > MOST" class="soft">The first {{ MOST }} of {{ rows.length.toLocaleString('en') }} rows.</p>
</template>
<style scoped>
.box {
  overflow: auto;
  max-height: 420px;
  margin: 6px 0;
  border: 1px solid var(--seam);
  background: var(--linen);
}
table {
  border-collapse: collapse;
  line-height: 19px;
}
th,
td {
  text-align: left;
  padding: 0 10px;
  white-space: nowrap;
}
th {
  border-bottom: 1px solid var(--strong-seam);
}
.number {
  text-align: right;
}
</style>
