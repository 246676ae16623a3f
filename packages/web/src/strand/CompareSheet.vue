<script setup lang="ts">
import type { Strand } from '@fadenweg/api';
import { ref, watch } from 'vue';
import BesideStrand from './BesideStrand.vue';
import BesideUsual from './BesideUsual.vue';

/** The strand beside the usual, beside the nearest good one, or beside any other. */
const props = defineProps<{ strand: Strand; /** `usual`, `good`, or the id of another strand. */ beside: string }>();
const emit = defineEmits<{ select: [record: string]; beside: [what: string] }>();
const typed = ref('');
watch(() => props.beside, (now) => (typed.value = now === 'usual' || now === 'good' ? '' : now.replace(/^[^:]*:/, '')), { immediate: true }); // prettier-ignore
/** A number alone is one of the same kind. */
function other(): void {
  const text = typed.value.trim();
  if (text !== '') emit('beside', text.includes(':') ? text : `${props.strand.kind}:${text}`);
}
</script>
<template>
  <div>
    <form class="choice" @submit.prevent="other">
      <span role="group" aria-label="Beside what" class="order">
        <button type="button" :aria-pressed="beside === 'usual'" @click="emit('beside', 'usual')">the usual</button> ·
        <button type="button" :aria-pressed="beside === 'good'" @click="emit('beside', 'good')">the nearest good one</button> ·
      </span>
      <label
        ><span class="visually-hidden">Another strand, by its identifier</span
        ><input v-model="typed" class="input" maxlength="200" placeholder="another one" :class="{ chosen: beside !== 'usual' && beside !== 'good' }"
      /></label>
    </form>
    <BesideUsual v-if="beside === 'usual'" :strand="strand" @select="(id) => emit('select', id)" />
    <BesideStrand v-else :strand="strand" :other="beside === 'good' ? null : beside" @select="(id) => emit('select', id)" />
  </div>
</template>
<style scoped>
.choice {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 6px;
  margin-bottom: 10px;
}
.input {
  width: 130px;
}
.chosen {
  border-color: var(--indigo);
}
</style>
