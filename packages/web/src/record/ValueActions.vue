<script setup lang="ts">
import { parseSearch, printSearch, withValue } from '@fadenweg/core/search';
import { computed, inject, ref } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import { againstLink, AROUND } from '../against/against-link.ts';

/** What can be done with a value: searched for, left out, highlighted, followed, copied. */
const props = defineProps<{
  field: string;
  value: string;
  /** It names something: the strands that it belongs to can be followed. */
  identifier?: boolean;
  /** It names a party. */
  party?: boolean;
}>();
const emit = defineEmits<{ done: [] }>();
const route = useRoute();
const router = useRouter();
const said = ref('');
const around = inject(AROUND, () => null);
/** To where a party, a component, a host is set against all others. */
const against = computed(() => {
  const { field, value, party } = props;
  if (party) return againstLink({ what: 'party', name: value, of: field }, route.query, around());
  return (field === 'component' || field === 'host') && value !== '' ? againstLink({ what: field, name: value }, route.query, around()) : null;
});
/** In the list of strands these narrow the list itself. */
const ofStrands = computed(() => route.name === 'strands' && ['flow', 'outcome', 'component'].includes(props.field));
function strandsWith(): void {
  emit('done');
  void router.push({ query: { ...route.query, [props.field]: props.value } });
}
/** In Find the search at hand is narrowed; from elsewhere a new one begins. */
function narrow(out: boolean, anew: boolean): void {
  emit('done');
  const find = route.name === 'find';
  const here = find && !anew && typeof route.query.q === 'string' ? parseSearch(route.query.q).search : null;
  const q = printSearch(withValue(here ?? { words: [], condition: null }, props.field, props.value, out));
  const { w, e } = route.query;
  void router.push({ name: 'find', query: find && !anew ? { ...route.query, q, record: undefined } : { w, e, q } });
}
function mark(): void {
  emit('done');
  const known = typeof route.query.mark === 'string' ? route.query.mark.split('\n') : [];
  if (!known.includes(props.value)) void router.replace({ query: { ...route.query, mark: [...known, props.value].join('\n') } });
}
async function copy(): Promise<void> {
  try {
    await navigator.clipboard.writeText(props.value);
    said.value = 'Copied';
  } catch {
    said.value = 'The browser does not allow copying';
  }
  setTimeout(() => {
    said.value = '';
    emit('done');
  }, 900);
}
</script>
<template>
  <ul>
    <li v-if="identifier">
      <RouterLink :to="{ name: 'strands', query: { identifier: value, w: 'all', e: route.query.e } }" @click="emit('done')"
        >Follow: its strands</RouterLink
      >
    </li>
    <li v-if="ofStrands"><button type="button" @click="strandsWith">Only strands with it</button></li>
    <li v-if="route.name === 'strands'"><button type="button" @click="narrow(false, true)">Find its records</button></li>
    <template v-else>
      <li><button type="button" @click="narrow(false, false)">Only this value</button></li>
      <li><button type="button" @click="narrow(true, false)">Leave it out</button></li>
    </template>
    <li v-if="against">
      <RouterLink :to="against" @click="emit('done')">Against everybody</RouterLink>
    </li>
    <li v-if="route.name === 'find' && route.query.q"><button type="button" @click="narrow(false, true)">Search for it alone</button></li>
    <li v-if="route.name === 'find'"><button type="button" @click="mark">Highlight it</button></li>
    <li>
      <button type="button" @click="copy">{{ said || 'Copy' }}</button>
    </li>
  </ul>
</template>
<style scoped>
ul {
  list-style: none;
  margin: 0;
  padding: 0;
}
a,
button {
  display: block;
  box-sizing: border-box;
  width: 100%;
  text-align: left;
  background: none;
  border: 0;
  padding: 4px 10px;
  font: inherit;
  color: inherit;
  cursor: pointer;
  border-radius: 3px;
  text-decoration: none;
}
a:hover,
button:hover {
  background: var(--indigo-wash);
  color: var(--indigo);
}
</style>
