<script setup lang="ts">
import { visiblePath } from '@fadenweg/core/reading';
import type { ImportInfo, Problem } from '@fadenweg/api';
import { computed, ref } from 'vue';
import { addressOf } from '../api/calls.ts';
import { bytes } from '../time/format.ts';
import { ZONE } from '../time/format.ts';
import { droppedFiles, withoutSoleFolder, type Dropped } from './dropped.ts';

const emit = defineEmits<{ sent: [] }>();
const over = ref(false);
const environment = ref('production');
const zone = ref(ZONE);
/** Whoever writes a zone knows it; the browser's own is a guess. */
const stated = computed(() => zone.value.trim() !== '' && zone.value.trim() !== ZONE);
const sending = ref<{ sent: number; total: number; files: number } | null>(null);
const problem = ref('');
let request: XMLHttpRequest | null = null;

async function drop(event: DragEvent): Promise<void> {
  over.value = false;
  if (event.dataTransfer) send(await droppedFiles(event.dataTransfer));
}
function picked(event: Event): void {
  const input = event.target as HTMLInputElement;
  send([...(input.files ?? [])].map((file) => ({ file, path: file.webkitRelativePath || file.name })));
  input.value = '';
}
function send(files: Dropped[]): void {
  problem.value = '';
  if (files.length === 0) {
    problem.value = 'There was no file in it.';
    return;
  }
  const form = new FormData();
  for (const { file, path } of withoutSoleFolder(files)) {
    const name = visiblePath(path);
    form.append(`modified:${name}`, String(file.lastModified));
    form.append('file', file, name);
  }
  sending.value = { sent: 0, total: files.reduce((sum, { file }) => sum + file.size, 0), files: files.length };
  const own = (request = new XMLHttpRequest());
  own.open(
    'POST',
    addressOf('/imports', {
      query: { environment: environment.value.trim() || 'production', zone: zone.value.trim() || ZONE, stated: stated.value },
    }),
  );
  own.upload.onprogress = (event) => {
    if (sending.value) sending.value.sent = event.loaded;
  };
  own.onload = () => {
    sending.value = null;
    const answer = JSON.parse(own.responseText) as ImportInfo | Problem;
    if (own.status >= 400) problem.value = `${(answer as Problem).title}: ${(answer as Problem).detail} ${(answer as Problem).action ?? ''}`;
    emit('sent');
  };
  own.onerror = () => {
    sending.value = null;
    problem.value = 'The upload broke off. What had arrived is kept; drop the files again to bring the rest.';
  };
  own.onabort = () => {
    sending.value = null;
  };
  own.send(form);
}
</script>
<template>
  <section class="drop" :class="{ over }" aria-label="Bring logs in" @dragover.prevent="over = true" @dragleave="over = false" @drop.prevent="drop">
    <div class="words">
      <h1>Bring logs in</h1>
      <p>
        Drop files or a whole folder here, or
        <label class="link">choose files<input type="file" multiple class="visually-hidden" data-testid="files" @change="picked" /></label> or
        <label class="link">a folder<input type="file" webkitdirectory class="visually-hidden" @change="picked" /></label>. Formats and archives (gz,
        zip, tar) are recognised; records, the innermost folder or the file name the component. The same content again adds nothing.
      </p>
      <p v-if="problem" class="bad" role="alert">{{ problem }}</p>
      <p v-if="sending" role="status">
        Sending {{ sending.files }} {{ sending.files === 1 ? 'file' : 'files' }}: {{ bytes(sending.sent) }} of {{ bytes(sending.total) }}
        <button type="button" class="link" @click="request?.abort()">cancel</button>
      </p>
    </div>
    <div class="choices">
      <label>Environment <input v-model="environment" class="input" maxlength="60" /></label>
      <label>Zone of times without an offset <input v-model="zone" class="input" maxlength="60" /></label>
    </div>
  </section>
</template>
<style scoped>
.drop {
  display: flex;
  gap: 24px;
  margin: 14px 20px 8px;
  padding: 12px 16px;
  border: 1.5px dashed var(--strong-seam);
  background: var(--paper);
  border-radius: 3px;
}
.drop.over {
  border-color: var(--indigo);
  background: var(--indigo-wash);
}
.words {
  flex: 1;
}
p {
  margin: 4px 0 0;
  max-width: 720px;
}
.choices {
  display: grid;
  gap: 6px;
  align-content: start;
}
.choices label {
  display: grid;
  grid-template-columns: 210px 150px;
  align-items: center;
}
label.link:focus-within {
  outline: 2px solid var(--indigo);
}
</style>
