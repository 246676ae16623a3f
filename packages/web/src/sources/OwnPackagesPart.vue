<script setup lang="ts">
import { onMounted, ref } from 'vue';
import { useAttempt } from '../api/use-attempt.ts';
import { useOwnPackages } from '../stores/own-packages.ts';

/** Packages and folders that are one's own: their calls are shown in stack traces, others are folded. */
const packages = useOwnPackages();
const prefix = ref('');
const gone = ref<string | null>(null);
const { attempt, refused: bad } = useAttempt();
onMounted(() => attempt(packages.load));
const declare = (one: string): Promise<boolean> =>
  attempt(async () => {
    await packages.declare(one);
    [prefix.value, gone.value] = ['', null];
  });
const forget = (one: string): Promise<boolean> =>
  attempt(async () => {
    await packages.forget(one);
    gone.value = one;
  });
</script>
<template>
  <section class="packages" aria-labelledby="own-packages">
    <h2 id="own-packages">Own packages</h2>
    <p class="soft">
      Calls of these packages or folders are shown in stack traces, beside those that names of components and loggers or registered source texts tell;
      others are folded.
    </p>
    <form @submit.prevent="declare(prefix.trim())">
      <label>Package or folder <input v-model="prefix" class="input mono" required minlength="2" maxlength="200" placeholder="example.desk" /></label>
      <v-btn type="submit" color="primary">Declare</v-btn>
    </form>
    <p v-if="bad" class="bad" role="alert">{{ bad }}</p>
    <p v-if="gone" role="status">{{ gone }} is taken back: <button type="button" class="link" @click="declare(gone)">undo</button></p>
    <ul v-if="packages.items.length > 0">
      <li v-for="one in packages.items" :key="one.prefix">
        <span class="mono">{{ one.prefix }}</span> <span class="soft">{{ one.changedBy }}</span>
        <button type="button" class="link" :aria-label="`Take ${one.prefix} back`" @click="forget(one.prefix)">take back</button>
      </li>
    </ul>
  </section>
</template>
<style scoped>
.packages {
  margin-top: 24px;
  border-top: 1px solid var(--seam);
  padding-top: 10px;
  max-width: 90ch;
}
h2 {
  font-size: 1rem;
  margin: 0;
}
p {
  margin: 3px 0 8px;
}
form {
  display: flex;
  align-items: center;
  gap: 8px 16px;
}
ul {
  list-style: none;
  padding: 0;
  margin: 8px 0 0;
}
li {
  display: flex;
  gap: 12px;
  min-height: 26px;
  align-items: center;
}
</style>
