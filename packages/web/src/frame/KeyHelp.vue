<script setup lang="ts">
import { computed, ref } from 'vue';
import { useRouter } from 'vue-router';
import { commandsNow, keyWords, useCommands, usePlaces } from '../keys/commands.ts';
import { lead, useKeys } from '../keys/use-keys.ts';
const open = ref(false);
const router = useRouter();
useCommands('', [{ name: 'this list of keys', keys: ['?'], run: () => (open.value = true) }]);
useKeys({ g: lead });
const place = (name: string, letter: string, path = `/${name.toLowerCase()}`) => ({ name, letter, go: () => void router.push(path) });
usePlaces([
  place('Rounds', 'r'),
  place('Find', 'f'),
  place('Strands', 's'),
  place('Calls', 'l'),
  place('Jobs', 'n'),
  place('Faults', 'u'),
  place('Shapes', 'd'),
  place('Changes', 'e'),
  place('Runbooks', 'b'),
  place('Sources', 'q'),
]);
/** What has a key, by the view that it is of; what two parts of a view say alike once. */
const parts = computed(() => {
  const found = new Map<string, Map<string, readonly string[]>>();
  for (const { name, where, keys } of open.value ? commandsNow() : [])
    if (keys.length > 0) found.set(where, (found.get(where) ?? new Map<string, readonly string[]>()).set(name, keys));
  return [...found].map(([where, commands]) => ({ where, commands: [...commands] }));
});
</script>
<template>
  <v-dialog v-model="open" max-width="760" aria-label="Keys">
    <div class="keys" role="document">
      <h2>Keys</h2>
      <div class="parts">
        <section v-for="part in parts" :key="part.where">
          <h3>{{ part.where || 'Everywhere' }}</h3>
          <dl>
            <template v-for="[name, keys] in part.commands" :key="name"
              ><dt>
                <kbd v-for="one in keys.flatMap((key) => key.split(' '))" :key="one">{{ keyWords(one) }}</kbd>
              </dt>
              <dd>{{ name }}</dd></template
            >
          </dl>
        </section>
      </div>
      <p class="soft"><kbd>Ctrl</kbd> <kbd>K</kbd> finds what can be done by its name.</p>
      <v-btn variant="text" @click="open = false">Close</v-btn>
    </div>
  </v-dialog>
</template>
<style scoped>
.keys {
  background: var(--paper);
  border: 1px solid var(--strong-seam);
  padding: 16px 20px;
  border-radius: 3px;
  overflow-y: auto;
}
.parts {
  columns: 2;
  column-gap: 28px;
}
h3 {
  font-size: 14px;
  line-height: 20px;
  margin: 0;
  padding-top: 8px;
  break-after: avoid;
}
dl {
  display: grid;
  grid-template-columns: 90px 1fr;
  gap: 6px 12px;
  margin: 4px 0 12px;
}
dd {
  margin: 0;
}
dt,
dd {
  break-inside: avoid;
}
dt {
  display: flex;
  gap: 4px;
}
</style>
