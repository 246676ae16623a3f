<script setup lang="ts">
import { parseSearch, printSearch, withValue } from '@fadenweg/core';
import { ref } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import DropPanel from '../frame/DropPanel.vue';

/** A value that can be taken in hand: searched for, left out, copied. */
const props = defineProps<{
  field: string;
  value: string;
  /** It names something: the strands that it belongs to can be followed. */
  identifier?: boolean;
}>();
const route = useRoute();
const router = useRouter();
const open = ref(false);
const copied = ref(false);
/** In Find the search at hand is narrowed; from elsewhere a new one begins. */
function narrow(out: boolean, anew: boolean): void {
  open.value = false;
  const here = route.name === 'find' && !anew && typeof route.query.q === 'string' ? parseSearch(route.query.q).search : null;
  const q = printSearch(withValue(here ?? { words: [], condition: null }, props.field, props.value, out));
  const { w, e } = route.query;
  void router.push({ name: 'find', query: { w, e, q } });
}
function mark(): void {
  open.value = false;
  const known = typeof route.query.mark === 'string' ? route.query.mark.split('\n') : [];
  if (!known.includes(props.value)) void router.replace({ query: { ...route.query, mark: [...known, props.value].join('\n') } });
}
async function copy(): Promise<void> {
  await navigator.clipboard.writeText(props.value);
  copied.value = true;
  setTimeout(() => {
    copied.value = false;
    open.value = false;
  }, 700);
}
</script>
<template>
  <DropPanel v-model="open" :label="`${field}: what to do with this value`">
    <template #button>
      <span class="handle mono">{{ value }}</span>
    </template>
    <ul>
      <li v-if="identifier">
        <RouterLink :to="{ name: 'strands', query: { identifier: value, w: 'all', e: route.query.e } }" @click="open = false"
          >Follow: its strands</RouterLink
        >
      </li>
      <li><button type="button" @click="narrow(false, false)">Only this value</button></li>
      <li><button type="button" @click="narrow(true, false)">Leave it out</button></li>
      <li v-if="route.name === 'find' && route.query.q"><button type="button" @click="narrow(false, true)">Search for it alone</button></li>
      <li v-if="route.name === 'find'"><button type="button" @click="mark">Highlight it</button></li>
      <li>
        <button type="button" @click="copy">{{ copied ? 'Copied' : 'Copy' }}</button>
      </li>
    </ul>
  </DropPanel>
</template>
<style scoped>
li a {
  display: block;
  padding: 4px 10px;
  text-decoration: none;
}
li a:hover {
  background: var(--indigo-wash);
  color: var(--indigo);
}
.handle {
  cursor: pointer;
  text-align: left;
  overflow-wrap: anywhere;
  text-decoration: underline;
  text-decoration-color: transparent;
  text-underline-offset: 3px;
  display: inline-block;
  line-height: 18px;
  padding: 3px 0;
}
.handle:hover {
  text-decoration-color: var(--indigo);
}
ul {
  list-style: none;
  margin: 0;
  padding: 0;
}
button {
  display: block;
  width: 100%;
  text-align: left;
  background: none;
  border: 0;
  padding: 4px 10px;
  font: inherit;
  color: inherit;
  cursor: pointer;
  border-radius: 3px;
}
button:hover {
  background: var(--indigo-wash);
  color: var(--indigo);
}
</style>
