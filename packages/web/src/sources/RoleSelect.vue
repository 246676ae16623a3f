<script setup lang="ts">
import type { Role } from '@fadenweg/api';
import { ROLES } from './roles.ts';

/** Which role the values of a kind have. */
defineProps<{ label: string }>();
const role = defineModel<Role>({ required: true });
</script>
<template>
  <select v-model="role" class="input" :aria-label="`Role of ${label}`">
    <option v-for="(words, name) in ROLES" :key="name" :value="name">{{ words }}</option>
  </select>
</template>
