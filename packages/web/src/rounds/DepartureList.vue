<script setup lang="ts">
import type { Departure, Departures } from '@fadenweg/api';
import { computed, ref } from 'vue';
import DepartureLine from './DepartureLine.vue';

/** What departs from the usual, the gravest first; what is in hand or tolerated stands below, until it gets worse. */
const props = defineProps<{ departures: Departures }>();
defineEmits<{ noted: [] }>();
const settled = ({ noted }: Departure): boolean => noted !== null && !noted.worse;
const open = computed(() => props.departures.items.filter((one) => !settled(one)));
const rest = computed(() => props.departures.items.filter(settled));
const all = ref(false);
const MOST = 30;
const shown = computed(() => (all.value ? open.value : open.value.slice(0, MOST)));
</script>
<template>
  <section class="list" aria-labelledby="departs">
    <header>
      <h2 id="departs">Departs from the usual</h2>
      <span class="soft">gravest first</span>
    </header>
    <p v-if="departures.nothingBefore && open.length > 0" class="soft note">
      Nothing earlier is known: these are the findings of this window, and none is said to be unusual.
    </p>
    <p v-if="open.length === 0" class="soft note">
      Nothing departs from the usual. What failed did so as often as it does; all of it stands in <RouterLink to="/strands">Strands</RouterLink>.
    </p>
    <ol>
      <li v-for="one in shown" :key="one.key"><DepartureLine :departure="one" @noted="$emit('noted')" /></li>
    </ol>
    <p v-if="!all && open.length > MOST" class="note">
      <button type="button" class="link" @click="all = true">{{ open.length - MOST }} more</button>
    </p>
    <p v-if="departures.more > 0" class="soft note">{{ departures.more }} less grave ones are not listed.</p>
    <details v-if="rest.length > 0">
      <summary>{{ rest.length }} in hand or tolerated</summary>
      <ol>
        <li v-for="one in rest" :key="one.key"><DepartureLine :departure="one" @noted="$emit('noted')" /></li>
      </ol>
    </details>
  </section>
</template>
<style scoped>
.list {
  width: 372px;
  flex: none;
  overflow: auto;
  background: var(--paper);
  border-left: 1px solid var(--seam);
  padding: 12px 18px;
  box-sizing: border-box;
}
header {
  display: flex;
  justify-content: space-between;
  border-bottom: 1px solid var(--seam);
  padding-bottom: 6px;
}
ol {
  list-style: none;
  padding: 0;
  margin: 0;
}
li {
  border-bottom: 1px solid var(--seam);
  padding: 8px 0;
}
.note {
  margin: 8px 0;
}
summary {
  cursor: pointer;
  padding: 8px 0;
}
@media (max-width: 1100px) {
  .list {
    width: 300px;
  }
}
</style>
