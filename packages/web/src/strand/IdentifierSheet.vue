<script setup lang="ts">
import type { Strand, StrandIdentifier } from '@fadenweg/api';
import { computed } from 'vue';
import ValueHandle from '../record/ValueHandle.vue';
import { clock } from '../time/format.ts';
const props = defineProps<{ strand: Strand }>();
defineEmits<{ select: [record: string] }>();
const own = computed(() => props.strand.identifiers.filter((one) => one.role !== 'shared'));
const shared = computed(() => props.strand.identifiers.filter((one) => one.role === 'shared'));
const short = (value: string): string => (value.length > 30 ? `${value.slice(0, 12)}…${value.slice(-8)}` : value);
/** From the founding identifier to this one. */
function chain(one: StrandIdentifier): StrandIdentifier[] {
  const links: StrandIdentifier[] = [one];
  for (let now = one; now.because[0] && links.length < 20;) {
    const { from, fromValue } = now.because[0];
    const before = own.value.find((other) => other.kind === from && other.value === fromValue);
    if (!before || links.includes(before)) break;
    links.unshift(before);
    now = before;
  }
  return links;
}
</script>
<template>
  <div>
    <h2>What ties this strand together</h2>
    <ol class="list">
      <li v-for="one in own" :key="one.kind + one.value">
        <div>
          <span class="soft">{{ one.label }}</span> <ValueHandle :field="one.kind" :value="one.value" identifier />
        </div>
        <div v-if="chain(one).length > 1" class="chain mono">
          <template v-for="(link, index) in chain(one)" :key="index"
            ><span v-if="index" aria-hidden="true"> → </span>{{ short(link.value) }}</template
          >
          <button v-if="one.because[0]" type="button" class="link" @click="$emit('select', one.because[0].recordId)">the record that tells</button>
        </div>
        <div v-else-if="one.because.length === 0" class="soft small">names the strand</div>
        <div v-if="one.discovered" class="soft small">
          discovered in the data, see <RouterLink to="/sources?tab=identifiers">Identifiers</RouterLink>
        </div>
        <div v-if="one.validFrom && one.validTo" class="soft small">
          is used again by others; here valid {{ clock(one.validFrom) }} to {{ clock(one.validTo) }}
        </div>
      </li>
    </ol>
    <template v-if="shared.length"
      ><h2>Shared with others</h2>
      <ul class="list">
        <li v-for="one in shared" :key="one.kind + one.value">
          <span class="soft">{{ one.label }}</span>
          <ValueHandle :field="one.kind" :value="one.value" identifier party />
        </li>
      </ul>
    </template>
  </div>
</template>
<style scoped>
.list {
  list-style: none;
  margin: 6px 0 16px;
  padding: 0;
}
li {
  padding: 5px 0;
  border-bottom: 1px solid var(--seam);
}
.chain {
  color: var(--soft-ink);
  font-size: 11.5px;
  line-height: 17px;
  overflow-wrap: anywhere;
}
.chain .link {
  font-family: 'Source Sans 3 Variable', sans-serif;
  font-size: 12px;
}
.small {
  font-size: 12px;
  line-height: 16px;
}
</style>
