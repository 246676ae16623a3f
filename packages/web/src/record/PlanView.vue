<script setup lang="ts">
import type { PlanNode } from '@fadenweg/core/structure';
import { computed, ref } from 'vue';
import { ms } from '../strands/duration-text.ts';
import { count } from '../time/format.ts';
import { planRows } from './plan-rows.ts';

/** How a database server carried a statement out: its nodes, what each took by itself, and how far estimates were off. */
const props = defineProps<{ nodes: readonly PlanNode[] }>();
const rows = computed(() => planRows(props.nodes));
const measured = computed(() => rows.value.some((row) => row.share !== null));
const details = ref(false);
const hasDetails = computed(() => props.nodes.some((node) => node.details.length > 0));
</script>
<template>
  <div class="plan" data-testid="plan">
    <p class="soft bar">
      <span
        >Plan, {{ nodes.length }} {{ nodes.length === 1 ? 'node' : 'nodes'
        }}<template v-if="nodes[0]?.totalMs != null">, {{ ms(nodes[0].totalMs) }}</template
        ><template v-else>, not measured</template></span
      >
      <button v-if="hasDetails" type="button" class="link" :aria-pressed="details" @click="details = !details">
        {{ details ? 'without conditions' : 'with conditions' }}
      </button>
    </p>
    <div class="box" tabindex="0" role="region" aria-label="Plan">
      <table>
        <thead>
          <tr>
            <th scope="col">Node</th>
            <th v-if="measured" scope="col" class="number">By itself</th>
            <th v-if="measured" scope="col"><span class="visually-hidden">Share of the whole</span></th>
            <th scope="col" class="number">Rows</th>
            <th scope="col">Estimate</th>
          </tr>
        </thead>
        <tbody>
          <tr v-for="({ node, share, most, off }, i) in rows" :key="i">
            <td class="mono" :style="{ paddingLeft: `${8 + node.depth * 14}px` }">
              <span :class="{ most }">{{ node.what }}</span>
              <span v-if="node.loops !== null && node.loops > 1" class="soft"> × {{ count(node.loops) }}</span>
              <template v-if="details"
                ><div v-for="(line, k) in node.details" :key="k" class="soft detail">{{ line }}</div></template
              >
            </td>
            <td v-if="measured" class="number" :class="{ most }">{{ node.ownMs === null ? '–' : ms(node.ownMs) }}</td>
            <td v-if="measured" class="share" aria-hidden="true">
              <i v-if="share !== null" :style="{ width: `${share * 80}px` }" :class="{ most }"></i>
            </td>
            <td class="number">{{ node.actualRows === null ? `~${count(node.rows)}` : count(Math.round(node.actualRows)) }}</td>
            <td>
              <span v-if="off" class="off">{{ count(off.factor) }} times {{ off.more ? 'more' : 'fewer' }} than estimated</span>
            </td>
          </tr>
        </tbody>
      </table>
    </div>
  </div>
</template>
<style scoped>
.plan {
  margin: 6px 0;
}
.bar {
  display: flex;
  gap: 12px;
  margin: 0 0 3px;
}
.box {
  overflow: auto;
  max-height: 420px;
  border: 1px solid var(--seam);
  background: var(--linen);
}
table {
  border-collapse: collapse;
  width: 100%;
  line-height: 20px;
}
th {
  text-align: left;
  font-weight: 400;
  color: var(--soft-ink);
}
th,
td {
  padding: 0 8px;
  vertical-align: top;
  white-space: nowrap;
}
.number {
  text-align: right;
}
.detail {
  white-space: normal;
  padding-left: 14px;
  overflow-wrap: anywhere;
}
.share i {
  display: inline-block;
  height: 8px;
  background: var(--indigo);
}
.share i.most {
  background: var(--madder);
}
span.most,
td.most {
  color: var(--madder);
  font-weight: 700;
}
.off {
  color: var(--ink);
  background: var(--weld-wash);
  padding: 0 4px;
}
</style>
