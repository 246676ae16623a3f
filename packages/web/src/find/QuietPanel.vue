<script setup lang="ts">
import type { LogRecord, QuietRuleBody, QuietRuleInfo } from '@fadenweg/api';
import { HEARTBEATS, SETTLED_FAULTS } from '@fadenweg/core/quiet';
import { computed, ref, toRef } from 'vue';
import { api } from '../api/client.ts';
import { useAttempt } from '../api/use-attempt.ts';
import { useRequest } from '../api/use-request.ts';
import ProblemNote from '../frame/ProblemNote.vue';
import { count } from '../time/format.ts';
import type { Asked } from './use-find.ts';
import { likeRecord, nameFor, useTrial } from './use-trial.ts';

/** The quiet rules: what each hides here, on and off; and a new one made from a record, tried before it is saved. */
const props = defineProps<{ asked: Asked; hidden: Record<string, number>; record: LogRecord | null }>();
const emit = defineEmits<{ changed: [] }>();
const { answer, problem, again } = useRequest([], (signal) => api.get('/quiet-rules', {}, signal));
const rules = computed(() => answer.value?.items ?? []);
/** What makes its own search has found nothing for it. */
const isEmpty = ({ name, q }: QuietRuleInfo): boolean => [HEARTBEATS.name, SETTLED_FAULTS.name].includes(name) && q === '';
const removed = ref<QuietRuleInfo | null>(null);

const { attempt: change, refused: failed } = useAttempt();
const attempt = (work: () => Promise<unknown>): Promise<boolean> =>
  change(async () => {
    await work();
    await again();
    emit('changed');
  });
const put = ({ name, label, why, q, on }: QuietRuleBody): Promise<unknown> =>
  api.put('/quiet-rules/{name}', { params: { name }, body: { name, label, why, q, on } });
const turn = (rule: QuietRuleInfo): Promise<boolean> => attempt(() => put({ ...rule, on: !rule.on }));
async function remove(rule: QuietRuleInfo): Promise<void> {
  if (await attempt(() => api.delete('/quiet-rules/{name}', { params: { name: rule.name } }))) removed.value = rule;
}
async function undo(): Promise<void> {
  const rule = removed.value;
  removed.value = null;
  if (rule) await attempt(() => put(rule));
}

const draft = ref('');
const label = ref('');
const open = ref(false);
/** The rule that a record proposes. */
function propose(): void {
  const { record } = props;
  if (!record) return;
  draft.value = likeRecord(record);
  label.value = `${record.component}: ${record.shape}`.slice(0, 80);
  open.value = true;
}
/** How much of what is found the draft would hide. */
const { parsed, tried, failed: untried, attempt: attemptDraft } = useTrial(draft, toRef(props, 'asked'));
async function save(): Promise<void> {
  const name = nameFor(label.value, rules.value);
  if (await attempt(() => put({ name, label: label.value, why: '', q: draft.value, on: true }))) {
    open.value = false;
    draft.value = '';
  }
}
</script>
<template>
  <div>
    <p class="soft first">Rules take noise out of sight and tell how much. The evidence of a finding is never hidden.</p>
    <ProblemNote v-if="problem" :problem="problem" @again="again" />
    <ul>
      <li v-for="rule in rules" :key="rule.name">
        <label>
          <input type="checkbox" :checked="rule.on" :disabled="isEmpty(rule)" @change="turn(rule)" />
          <span
            ><b>{{ rule.label }}</b> <span v-if="rule.on && hidden[rule.name]" class="number"> {{ count(hidden[rule.name]!) }} hidden</span
            ><span v-if="isEmpty(rule)" class="soft"> none {{ rule.name === HEARTBEATS.name ? 'seen' : 'so far' }}</span></span
          >
        </label>
        <p v-if="rule.why" class="soft">{{ rule.why }}</p>
        <details v-if="rule.q">
          <summary class="soft">its search</summary>
          <p class="mono q">{{ rule.q }}</p>
        </details>
        <button v-if="!rule.supplied" type="button" class="link" @click="remove(rule)">take away</button>
      </li>
    </ul>
    <p v-if="removed" role="status">“{{ removed.label }}” is taken away. <button type="button" class="link" @click="undo">undo</button></p>
    <p v-if="failed || untried" class="bad" role="alert">{{ failed || untried }}</p>
    <h2>A rule of your own</h2>
    <p v-if="!open && !record" class="soft">Choose a line that is noise (<kbd>j</kbd>, <kbd>k</kbd>), then come back here.</p>
    <p v-else-if="!open"><v-btn variant="outlined" size="small" @click="propose">Hide what looks like the chosen line</v-btn></p>
    <form v-else @submit.prevent="save">
      <label>Name <input v-model="label" class="input" maxlength="80" required /></label>
      <label
        >Hides what this finds <textarea v-model="draft" class="input mono" rows="4" maxlength="4000" required spellcheck="false"></textarea>
      </label>
      <p v-if="parsed.problem" class="bad" role="alert">Character {{ parsed.problem.from + 1 }}: {{ parsed.problem.message }}.</p>
      <p v-else-if="tried" role="status">
        hides <b>{{ count(tried.hits) }}</b> of {{ tried.total ? count(tried.total) : '…' }} records of this search
      </p>
      <p class="buttons">
        <v-btn variant="outlined" size="small" :disabled="!!parsed.problem" @click="attemptDraft">Try it</v-btn>
        <v-btn color="primary" size="small" type="submit" :disabled="!!parsed.problem || !tried || tried.searched < 1">Save</v-btn>
        <button type="button" class="link" @click="open = false">cancel</button>
      </p>
    </form>
  </div>
</template>
<style scoped>
.first {
  margin: 0 0 8px;
}
ul {
  list-style: none;
  margin: 0 0 10px;
  padding: 0;
}
li {
  padding: 6px 0;
  border-bottom: 1px solid var(--seam);
}
li label {
  display: flex;
  gap: 8px;
  align-items: baseline;
}
li p {
  margin: 0 0 0 22px;
  font-size: 12.5px;
  line-height: 17px;
}
details {
  margin-left: 22px;
  font-size: 12.5px;
}
.q {
  overflow-wrap: anywhere;
  margin: 0;
  line-height: 17px;
}
li .link {
  margin-left: 22px;
  font-size: 12.5px;
}
form {
  display: flex;
  flex-direction: column;
  gap: 8px;
  margin-top: 6px;
}
form label {
  display: flex;
  flex-direction: column;
  gap: 2px;
}
.buttons {
  display: flex;
  gap: 10px;
  align-items: center;
  margin: 0;
}
</style>
