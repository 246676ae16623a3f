<script setup lang="ts">
import { ref, watch } from 'vue';

/** What a window is compared with; of another time, another environment and a host it has to be said which. */
const props = defineProps<{
  baseline: string;
  baselines: readonly (readonly [string, string])[];
  other: string;
  environments: readonly string[];
}>();
const emit = defineEmits<{ change: [query: Record<string, string | undefined>] }>();
const [from, to, host] = [ref(''), ref(''), ref('')];
/** As a field of the browser writes an instant, in its zone. */
const local = (iso: string | undefined): string => {
  const at = new Date(iso ?? NaN);
  return Number.isNaN(at.getTime()) ? '' : new Date(at.getTime() - at.getTimezoneOffset() * 60_000).toISOString().slice(0, 16);
};
watch(
  () => [props.baseline, props.other],
  () => {
    const [begin, end] = props.baseline === 'window' ? props.other.split('~') : [];
    from.value = local(begin);
    to.value = local(end);
    host.value = props.baseline === 'host' ? props.other : '';
  },
  { immediate: true },
);
const choose = (name: string): void => emit('change', { baseline: name === 'before' ? undefined : name, other: undefined, shape: undefined });
const say = (other: string): void => emit('change', { other: other || undefined, shape: undefined });
function sayWindow(): void {
  const [begin, end] = [new Date(from.value), new Date(to.value)];
  if (begin < end) say(`${begin.toISOString()}~${end.toISOString()}`);
}
</script>
<template>
  <label class="pick"
    >compared with
    <select class="input" :value="baseline" @change="(event) => choose((event.target as HTMLSelectElement).value)">
      <option v-for="[name, label] in baselines" :key="name" :value="name">{{ label }}</option>
    </select></label
  >
  <form v-if="baseline === 'window'" class="which" @submit.prevent="sayWindow">
    <label>from <input v-model="from" type="datetime-local" class="input" required /></label>
    <label>to <input v-model="to" type="datetime-local" class="input" required /></label>
    <v-btn type="submit" variant="outlined" size="small">Compare</v-btn>
  </form>
  <label v-else-if="baseline === 'environment'" class="pick"
    >which
    <select class="input" :value="other" @change="(event) => say((event.target as HTMLSelectElement).value)">
      <option value="">{{ environments.length === 0 ? 'there is no other' : 'choose one' }}</option>
      <option v-for="name in environments" :key="name">{{ name }}</option>
    </select></label
  >
  <form v-else-if="baseline === 'host'" class="which" @submit.prevent="say(host.trim())">
    <label>host <input v-model="host" class="input" maxlength="200" required spellcheck="false" /></label>
    <v-btn type="submit" variant="outlined" size="small">Compare</v-btn>
  </form>
</template>
<style scoped>
.which {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 4px 10px;
}
</style>
