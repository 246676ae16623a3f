<script setup lang="ts">
import type { Strand } from '@fadenweg/api';
import { computed } from 'vue';
import { useRoute } from 'vue-router';
import { againstLink } from '../against/against-link.ts';
import SeriesCharts from './SeriesCharts.vue';
import { ms } from '../strands/duration-text.ts';
const props = defineProps<{ strand: Strand }>();
const route = useRoute();
const against = (name: string) => againstLink({ what: 'component', name }, route.query, props.strand.startedAt);
const parties = computed(() => props.strand.identifiers.filter((one) => one.role === 'shared'));
const most = computed(() => Math.max(...props.strand.time.map((share) => share.ms), 0.001));
const KINDS = { work: 'work', waiting: 'waiting for others', queue: 'in the queue', 'lock-wait': 'waiting for a lock', gap: 'nobody works' } as const;
const TONE = { work: 'var(--indigo)', waiting: 'var(--undyed)', queue: 'var(--heather)', 'lock-wait': 'var(--weld)', gap: 'var(--walnut)' } as const;
const shares = computed(() => props.strand.time.filter((share) => share.ms >= 0.0005));
</script>
<template>
  <div>
    <h2>Where {{ ms(strand.durationMs) }} went</h2>
    <table class="time">
      <caption class="visually-hidden">
        Time by component and kind; the shares add up to the whole
      </caption>
      <tbody>
        <tr v-for="share in shares" :key="`${share.component}-${share.kind}`">
          <th scope="row">
            <RouterLink v-if="share.component" :to="against(share.component)" :title="`${share.component} against everybody`">{{
              share.component
            }}</RouterLink><template v-else>between</template><span class="soft kind">{{ KINDS[share.kind] }}</span>
          </th>
          <td class="bar"><span :style="{ width: `${Math.max(1.5, (share.ms / most) * 100)}%`, background: TONE[share.kind] }"></span></td>
          <td class="number mono">{{ ms(share.ms) }}</td>
        </tr>
      </tbody>
    </table>
    <p v-if="parties.length > 0" class="soft">
      Against everybody:
      <template v-for="(one, i) in parties" :key="one.kind + one.value"
        >{{ i === 0 ? '' : ', '
        }}<RouterLink :to="againstLink({ what: 'party', name: one.value, of: one.kind }, route.query, strand.startedAt)"
          >{{ one.label }} {{ one.value }}</RouterLink
        ></template
      >; a component by its name above.
    </p>
    <SeriesCharts v-if="strand.flow" :strand="strand" />
    <h2>Steps</h2>
    <table class="steps">
      <thead>
        <tr>
          <th>Component</th>
          <th class="number">Work</th>
          <th class="number">Usual</th>
          <th class="number">Waits</th>
          <th class="number">Records</th>
        </tr>
      </thead>
      <tbody>
        <tr v-for="step in strand.steps" :key="step.id">
          <td>
            {{ step.component }}<span v-if="step.attempt > 1" class="soft"> attempt {{ step.attempt }}</span
            ><span v-if="step.parallel !== null" class="soft"> beside others</span>
          </td>
          <td class="number">{{ ms(step.workMs) }}</td>
          <td class="number" :class="{ late: step.excessMs }">{{ step.usualMs === null ? '' : ms(step.usualMs) }}</td>
          <td class="number">{{ ms(step.waitMs) }}</td>
          <td class="number">{{ step.records }}</td>
        </tr>
      </tbody>
    </table>
  </div>
</template>
<style scoped>
.late {
  color: var(--weld);
  font-weight: 700;
}
table {
  width: 100%;
  border-collapse: collapse;
  margin: 6px 0 16px;
}
th {
  text-align: left;
  font-weight: 400;
  padding: 2px 8px 2px 0;
  vertical-align: top;
  white-space: nowrap;
}
thead th {
  color: var(--soft-ink);
  font-weight: 600;
}
th.number {
  text-align: right;
}
td {
  padding: 2px 0 2px 8px;
}
.steps td:first-child {
  padding-left: 0;
}
.kind {
  display: block;
  font-size: 12px;
  line-height: 14px;
}
.bar {
  width: 45%;
}
.bar span {
  display: block;
  height: 9px;
  margin-top: 6px;
}
</style>
