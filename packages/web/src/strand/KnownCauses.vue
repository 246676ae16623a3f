<script setup lang="ts">
import type { Finding, KnownCause } from '@fadenweg/api';
import { computed, ref } from 'vue';
import { api } from '../api/client.ts';
import { useAttempt } from '../api/use-attempt.ts';
import ProblemNote from '../frame/ProblemNote.vue';
import { dayAndClock } from '../time/format.ts';

/** What was found out about findings that are alike, and a place to say it: this was the cause or was not, how it was mended, whose it is. */
const props = defineProps<{ finding: Finding; strand: string }>();
const added = ref<KnownCause[]>([]);
const gone = ref(new Set<number>());
const known = computed(() => [...added.value, ...props.finding.known].filter((one) => !gone.value.has(one.id)));
const saying = ref<boolean | null>(null);
const remedy = ref('');
const owner = ref('');
const { attempt, again, problem } = useAttempt();
const save = (): Promise<boolean> =>
  attempt(async () => {
    if (saying.value === null) return;
    const body = { signature: props.finding.signature, was: saying.value, remedy: remedy.value, owner: owner.value, strand: props.strand };
    added.value = [await api.post('/known-causes', { body }), ...added.value];
    saying.value = null;
    remedy.value = '';
  });
const takeBack = (one: KnownCause): Promise<boolean> =>
  attempt(async () => {
    await api.delete('/known-causes/{id}', { params: { id: one.id } });
    gone.value = new Set([...gone.value, one.id]);
  });
</script>
<template>
  <div class="known">
    <ul v-if="known.length > 0">
      <li v-for="one in known" :key="one.id">
        <b>{{ one.was ? 'This was the cause' : 'This was not the cause' }}</b><template v-if="one.remedy">: {{ one.remedy }}</template>
        <span class="soft">
          <template v-if="one.owner">· {{ one.owner }} </template>· {{ one.by }}, {{ dayAndClock(one.at).slice(0, -3) }}
          <template v-if="one.strand !== strand"
            >, on
            <RouterLink :to="{ name: 'strand', params: { id: one.strand } }" class="mono">{{
              one.strand.replace(/^[^:]*:/, '')
            }}</RouterLink></template
          >
          <template v-else>· <button type="button" class="link" @click="takeBack(one)">take back</button></template>
        </span>
      </li>
    </ul>
    <p v-if="saying === null" class="soft">
      <button type="button" class="link" @click="saying = true">This was the cause</button> ·
      <button type="button" class="link" @click="saying = false">it was not</button>
    </p>
    <form v-else @submit.prevent="save">
      <label
        >{{ saying ? 'How it is mended' : 'What it was instead' }}<textarea v-model="remedy" class="input" maxlength="2000" rows="3"></textarea>
      </label>
      <label>Whose it is<input v-model="owner" class="input" maxlength="100" /></label>
      <p class="soft">Shown at every strand with a finding like this one.</p>
      <p class="acts">
        <v-btn type="submit" size="small" color="primary">Keep</v-btn> <v-btn variant="text" size="small" @click="saying = null">Cancel</v-btn>
      </p>
    </form>
    <ProblemNote v-if="problem" :problem="problem" @again="again" />
  </div>
</template>
<style scoped>
.known {
  margin: 6px 0;
}
p {
  margin: 3px 0;
}
ul {
  list-style: none;
  padding: 0;
  margin: 0;
}
li {
  border-left: 3px solid var(--woad);
  padding-left: 8px;
  margin-bottom: 4px;
  overflow-wrap: anywhere;
}
form,
label {
  display: flex;
  flex-direction: column;
  gap: 4px;
}
textarea {
  resize: vertical;
}
.acts {
  display: flex;
  gap: 8px;
}
</style>
