<script setup lang="ts">
import type { FoundCode } from '@fadenweg/api';
import { systemWord } from '@fadenweg/core/explain';
import { ref, watch } from 'vue';
import { api } from '../api/client.ts';
import { useAttempt } from '../api/use-attempt.ts';
import ProblemNote from '../frame/ProblemNote.vue';

/** What the codes of a record mean, and a place to say what one of one's own means. */
const props = defineProps<{ codes: readonly FoundCode[]; component: string }>();
const emit = defineEmits<{ changed: [] }>();
const adding = ref(false);
const fresh = () => ({ code: '', title: '', means: '', next: '', everywhere: false });
const own = ref(fresh());
watch(() => props.codes, () => (adding.value = false)); // prettier-ignore
const { attempt: tried, problem } = useAttempt();
const attempt = async (act: () => Promise<unknown>): Promise<void> => {
  if (await tried(act)) emit('changed');
};
const save = (): Promise<void> =>
  attempt(async () => {
    const { code, title, means, next, everywhere } = own.value;
    await api.post('/explanations', { body: { items: [{ code, title, means, causes: '', next, component: everywhere ? null : props.component }] } });
    own.value = fresh();
    adding.value = false;
  });
const forget = (code: string): Promise<void> =>
  attempt(async () => {
    const { items } = await api.get('/explanations');
    const one = items.find((each) => each.code === code && (each.component === null || each.component === props.component));
    if (one) await api.delete('/explanations/{id}', { params: { id: one.id } });
  });
</script>
<template>
  <section class="codes" aria-label="Codes explained">
    <dl v-if="codes.length > 0">
      <template v-for="one in codes" :key="`${one.system} ${one.code}`">
        <dt>
          <span class="mono">{{ one.code }}</span> <span class="soft">{{ systemWord(one.system) }}{{ one.field ? `, ${one.field}` : '' }}</span>
        </dt>
        <dd>
          <b>{{ one.title }}</b><template v-if="one.means">: {{ one.means }}.</template>
          <span v-if="one.causes" class="more">Mostly {{ one.causes }}.</span>
          <span v-if="one.next" class="more">Look at {{ one.next }}.</span>
          <button v-if="one.system === 'own'" type="button" class="link soft" @click="forget(one.code)">take away</button>
        </dd>
      </template>
    </dl>
    <p v-if="!adding" class="soft">
      <button type="button" class="link" @click="adding = true">explain a code of your own</button>
    </p>
    <form v-else @submit.prevent="save">
      <label>Code, as it stands in records<input v-model="own.code" class="input mono" required minlength="2" maxlength="60" /></label>
      <label>In a few words<input v-model="own.title" class="input" required maxlength="120" /></label>
      <label>What it means<input v-model="own.means" class="input" maxlength="1000" /></label>
      <label>Where to look next<input v-model="own.next" class="input" maxlength="1000" /></label>
      <label class="one"><input v-model="own.everywhere" type="checkbox" /> for all components, not for {{ component }} alone</label>
      <ProblemNote v-if="problem" :problem="problem" @again="save" />
      <p class="acts">
        <v-btn type="submit" size="small" color="primary">Keep</v-btn> <v-btn variant="text" size="small" @click="adding = false">Cancel</v-btn>
      </p>
    </form>
  </section>
</template>
<style scoped>
.codes {
  border-left: 3px solid var(--woad);
  padding-left: 10px;
  margin: 8px 0;
}
p,
dl,
dd {
  margin: 0;
}
dd {
  margin-bottom: 6px;
  overflow-wrap: anywhere;
}
.more {
  display: block;
}
form,
label {
  display: flex;
  flex-direction: column;
  gap: 3px;
}
form {
  gap: 8px;
}
.one {
  flex-direction: row;
}
.acts {
  display: flex;
  gap: 8px;
}
</style>
