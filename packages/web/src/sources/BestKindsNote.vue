<script setup lang="ts">
import type { BestKinds } from '@fadenweg/api';
import { computed } from 'vue';
import { count } from '../time/format.ts';

const props = defineProps<{ best: BestKinds }>();
const emit = defineEmits<{ accept: [] }>();
const all = computed(() => props.best.kinds.map((kind, i) => ({ ...kind, example: props.best.examples[i] ?? '' })));
const asked = computed(() => all.value.filter((kind) => kind.role === 'business'));
const shared = computed(() => all.value.filter((kind) => kind.role === 'shared'));
</script>
<template>
  <div class="best">
    <h3>What people here seem to ask by</h3>
    <ul>
      <li v-for="kind in asked" :key="kind.name">
        {{ kind.label }}, such as <span class="mono">{{ kind.example }}</span>
      </li>
    </ul>
    <p v-if="shared.length > 0" class="soft">
      Shared by many: <template v-for="(kind, i) in shared" :key="kind.name">{{ i > 0 ? ', ' : '' }}{{ kind.label }}</template>
    </p>
    <p>
      In what was looked at they name {{ count(best.transactions) }} {{ best.transactions === 1 ? 'transaction' : 'transactions' }} over
      {{ count(best.components.length) }} {{ best.components.length === 1 ? 'component' : 'components' }}, {{ Math.round(best.share * 100) }} % of the
      records.
    </p>
    <v-btn color="primary" @click="emit('accept')">Declare {{ best.kinds.length === 1 ? 'it' : `these ${best.kinds.length}` }}</v-btn>
  </div>
</template>
<style scoped>
.best {
  margin: 8px 20px 12px;
  padding: 12px 16px;
  border: 1px solid rgb(var(--v-theme-on-surface), 0.2);
  border-radius: 4px;
  max-width: 860px;
}
h3 {
  margin: 0;
  font-size: 15px;
}
ul {
  margin: 6px 0;
  padding-left: 20px;
}
li span {
  margin-left: 8px;
  overflow-wrap: anywhere;
}
p {
  margin: 6px 0;
}
</style>
