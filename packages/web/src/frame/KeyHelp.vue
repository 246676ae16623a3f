<script setup lang="ts">
import { ref } from 'vue';
import { useRouter } from 'vue-router';
import { useKeys } from '../keys/use-keys.ts';
const open = ref(false);
const router = useRouter();
const KEYS: [string, string][] = [
  ['/', 'go to the finder'],
  ['j, k', 'next, previous line'],
  ['o', 'open the line'],
  ['], [', 'next, previous knot'],
  ['f', 'fold a step, or all with Shift'],
  ['s', 'on a strand: its told story'],
  ['p', 'on a strand: in proportion to time; + and - zoom, 0 shows all of it'],
  ['a', 'in Find: everything around the line'],
  ['x', 'in Find: leave the line’s component out'],
  ['l', 'in Find: to the strand of the line'],
  ['J, K', 'in Find: choose several lines'],
  ['m', 'in Find: count times from the line; live: from now'],
  ['p', 'live: pause, go on'],
  ['v', 'in Find: all of the screen for the lines'],
  ['h', 'what to do with a value of the line; ← → its other values'],
  ['c', 'copy a link to exactly this view'],
  ['y', 'copy a text for the ticket'],
  ['w', 'set the time window'],
  ['g f', 'go to Find'],
  ['g r', 'go to Rounds'],
  ['g s', 'go to Strands'],
  ['g e', 'go to Changes'],
  ['g b', 'go to Runbooks'],
  ['g q', 'go to Sources'],
  ['t', 'light or dark'],
  ['Esc', 'close the side sheet'],
  ['?', 'this list'],
];
let waiting = 0;
const go = (path: string): void => {
  if (Date.now() - waiting < 1500) void router.push(path);
  waiting = 0;
};
useKeys({
  '?': () => {
    open.value = true;
  },
  g: () => {
    waiting = Date.now();
  },
  r: () => go('/rounds'),
  s: () => go('/strands'),
  f: () => go('/find'),
  q: () => go('/sources'),
  e: () => go('/changes'),
  b: () => go('/runbooks'),
});
</script>
<template>
  <v-dialog v-model="open" max-width="420">
    <div class="keys" role="document" aria-label="Keys">
      <h2>Keys</h2>
      <dl>
        <template v-for="[key, what] in KEYS" :key="key"
          ><dt>
            <kbd v-for="one in key.split(/,? /)" :key="one">{{ one }}</kbd>
          </dt>
          <dd>{{ what }}</dd></template
        >
      </dl>
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
}
dl {
  display: grid;
  grid-template-columns: 90px 1fr;
  gap: 6px 12px;
  margin: 12px 0;
}
dd {
  margin: 0;
}
dt {
  display: flex;
  gap: 4px;
}
</style>
