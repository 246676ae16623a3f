<script setup lang="ts">
import { ref } from 'vue';
import DropPanel from '../frame/DropPanel.vue';

/** What is shown as a file in an open format, all of it, however much: the browser shows how far it has come, and can cancel. */
defineProps<{ what: string; formats: readonly { name: string; about: string; file: string; href: string }[] }>();
const open = ref(false);
</script>
<template>
  <DropPanel v-model="open" :label="`Take ${what} along`">
    <template #button><span class="link">take along</span></template>
    <ul class="formats">
      <li v-for="one in formats" :key="one.name">
        <a :href="one.href" :download="one.file" @click="open = false">{{ one.name }}</a> <span class="soft">{{ one.about }}</span>
      </li>
    </ul>
  </DropPanel>
</template>
<style scoped>
.formats {
  list-style: none;
  margin: 0;
  padding: 0;
  width: 300px;
}
li {
  padding: 3px 0;
}
</style>
