<script setup lang="ts">
import { ref } from 'vue';
import DropPanel from '../frame/DropPanel.vue';
import { useSaid } from './use-share.ts';

/** What is shown as a file in an open format, all of it, however much: the browser shows how far it has come, and can cancel. What the page makes itself it makes first. */
type Format = { name: string; about: string; file: string } & ({ href: string } | { make: () => Promise<Blob> });
defineProps<{ what: string; formats: readonly Format[] }>();
const open = ref(false);
const said = useSaid();
const making = ref(false);
async function give({ name, file }: Format, make: () => Promise<Blob>): Promise<void> {
  making.value = true;
  try {
    const url = URL.createObjectURL(await make());
    Object.assign(document.createElement('a'), { href: url, download: file }).click();
    setTimeout(() => URL.revokeObjectURL(url), 60_000);
    open.value = false;
  } catch (error) {
    said.say(`${name} could not be made: ${(error as Error).message}`);
  } finally {
    making.value = false;
  }
}
</script>
<template>
  <DropPanel v-model="open" :label="`Take ${what} along`">
    <template #button><span class="link">take along</span></template>
    <ul class="formats">
      <li v-for="one in formats" :key="one.name">
        <a v-if="'href' in one" :href="one.href" :download="one.file" @click="open = false">{{ one.name }}</a><button
          v-else
          type="button"
          class="link"
          :disabled="making"
          @click="give(one, one.make)"
        >
          {{ one.name }}
        </button>
        <span class="soft">{{ one.about }}</span>
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
