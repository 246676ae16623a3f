<script setup lang="ts">
import { problemsOf, type Runbook, type RunbookStep } from '@fadenweg/core/runbooks';
import { computed, ref, watch } from 'vue';
import { copyOf, emptyStep, LOOKS, slugOf } from './empty.ts';

/** Writes a runbook: blanks, steps, and the text of what was found. What is not in order is told where it is. */
const props = defineProps<{ runbook: Runbook; problem: string }>();
const emit = defineEmits<{ save: [runbook: Runbook]; cancel: [] }>();
const draft = ref<Runbook>(copyOf(props.runbook));
watch(
  () => props.runbook,
  (next) => (draft.value = copyOf(next)),
);
const problems = computed(() => problemsOf(draft.value));
const at = (place: string): string =>
  problems.value
    .filter((one) => one.at === place || one.at.startsWith(`${place}.`))
    .map((one) => one.problem)
    .join('; ');
const OUTCOMES = 'failed, stalled, odd, doubled, slow, refused, running, done, out-of-sight';

const addBlank = (): void =>
  void draft.value.blanks.push({ name: `blank-${draft.value.blanks.length + 1}`, label: '', kind: 'text', values: null, usual: '' });
const addStep = (): void => void draft.value.steps.push(emptyStep(draft.value.steps.length + 1));
const addPart = (): void => void draft.value.finding.push({ when: draft.value.steps[0]?.name ?? '', has: 'found', text: '' });
function move<T>(list: T[], from: number, by: number): void {
  const to = from + by;
  if (to < 0 || to >= list.length) return;
  list.splice(to, 0, ...list.splice(from, 1));
}
const turn = (step: RunbookStep, what: RunbookStep['look']['what']): void => void (step.look = LOOKS[what]());
function setAround(step: RunbookStep, name: string): void {
  step.around = name === '' ? null : { ...(step.around ?? { at: 'each', before: '5min', after: '5min' }), step: name };
}
const fieldOf = (values: Runbook['blanks'][number]['values']): string =>
  values && !Array.isArray(values) ? values.field : (values ?? []).join(', ');
function setValues(i: number, text: string): void {
  const blank = draft.value.blanks[i]!;
  const list = text.split(',').map((one) => one.trim()).filter(Boolean); // prettier-ignore
  blank.values = blank.kind === 'text' || list.length === 0 ? null : list.length === 1 ? { field: list[0]! } : list;
}
function save(): void {
  const name = props.runbook.title === '' ? slugOf(draft.value.title) : draft.value.name;
  emit('save', { ...draft.value, name });
}
</script>
<template>
  <form class="editor" @submit.prevent="save">
    <h2>{{ runbook.title === '' ? 'A new runbook' : runbook.title }}</h2>
    <label>Question <input v-model="draft.title" class="input wide" maxlength="200" required placeholder="Which orders …?" /></label>
    <label>What it is for <textarea v-model="draft.about" class="input wide" rows="2" maxlength="1000"></textarea></label>

    <h3>Blanks</h3>
    <p class="soft">Asked for before it runs. In searches and texts a blank stands as its name in braces.</p>
    <div v-for="(one, i) in draft.blanks" :key="i" class="row">
      <label>Name <input v-model="one.name" class="input mono short" maxlength="40" required /></label>
      <label>Label <input v-model="one.label" class="input" maxlength="100" required /></label>
      <label
        >Kind
        <select v-model="one.kind" class="input">
          <option>text</option>
          <option>choice</option>
        </select></label
      >
      <label v-if="one.kind === 'choice'"
        >Values, or the field whose values they are
        <input class="input" :value="fieldOf(one.values)" @change="(event) => setValues(i, (event.target as HTMLInputElement).value)"
      /></label>
      <label>At first <input v-model="one.usual" class="input short" maxlength="200" /></label>
      <button type="button" class="link" @click="draft.blanks.splice(i, 1)">take away</button>
      <p v-if="at(`blanks.${i}`)" class="bad" role="alert">{{ at(`blanks.${i}`) }}</p>
    </div>
    <p v-if="at('blanks') && !draft.blanks.some((_, i) => at(`blanks.${i}`))" class="bad" role="alert">{{ at('blanks') }}</p>
    <button type="button" class="link" @click="addBlank">add a blank</button>

    <h3>Steps</h3>
    <fieldset v-for="(step, i) in draft.steps" :key="i" class="step">
      <legend>Step {{ i + 1 }}</legend>
      <div class="row">
        <label>Name <input v-model="step.name" class="input mono short" maxlength="40" required /></label>
        <label class="grow">Title <input v-model="step.title" class="input wide" maxlength="200" required /></label>
        <label
          >Looks at
          <select class="input" :value="step.look.what" @change="(event) => turn(step, (event.target as HTMLSelectElement).value as never)">
            <option value="records">records</option>
            <option value="strands">strands</option>
            <option value="changes">changes</option>
          </select></label
        >
      </div>
      <div class="row">
        <template v-if="step.look.what === 'records'">
          <label class="grow">Search <input v-model="step.look.q" class="input mono wide" maxlength="4000" /></label>
          <label>Counted by <input v-model="step.look.by" class="input mono short" maxlength="100" placeholder="strand" /></label>
        </template>
        <template v-else-if="step.look.what === 'strands'">
          <label>Identifier <input v-model="step.look.identifier" class="input mono short" maxlength="200" /></label>
          <label>Outcomes <input v-model="step.look.outcome" class="input" maxlength="200" :title="OUTCOMES" placeholder="failed,stalled" /></label>
          <label>Gave up in <input v-model="step.look.failedIn" class="input mono short" maxlength="200" /></label>
          <label>Passes through <input v-model="step.look.component" class="input mono short" maxlength="200" /></label>
          <label>Flow <input v-model="step.look.flow" class="input mono short" maxlength="200" /></label>
          <label
            >Counted by
            <select v-model="step.look.by" class="input">
              <option value="none">strand</option>
              <option value="finding">finding</option>
              <option value="failedIn">where they gave up</option>
              <option value="flow">flow</option>
              <option value="party">party</option>
              <option value="caused-by">what caused them</option>
            </select></label
          >
          <label
            >Only of step
            <select v-model="step.look.among" class="input">
              <option value="">all</option>
              <option v-for="other in draft.steps.slice(0, i)" :key="other.name">{{ other.name }}</option>
            </select></label
          >
        </template>
        <label v-else>Component, or all <input v-model="step.look.component" class="input mono" maxlength="200" /></label>
      </div>
      <div class="row">
        <label
          >When
          <select class="input" :value="step.around?.step ?? ''" @change="(event) => setAround(step, (event.target as HTMLSelectElement).value)">
            <option value="">in the whole window</option>
            <option v-for="other in draft.steps.slice(0, i)" :key="other.name" :value="other.name">around step {{ other.name }}</option>
          </select></label
        >
        <template v-if="step.around">
          <label
            >At
            <select v-model="step.around.at" class="input">
              <option value="first">the first</option>
              <option value="each">each</option>
            </select></label
          >
          <label>From so long before <input v-model="step.around.before" class="input mono short" maxlength="20" /></label>
          <label>to so long behind <input v-model="step.around.after" class="input mono short" maxlength="20" /></label>
        </template>
      </div>
      <label
        >If there are hits: what it means, and where to look next
        <textarea v-model="step.found" class="input wide" rows="2" maxlength="1000"></textarea>
      </label>
      <label>If there are none <textarea v-model="step.nothing" class="input wide" rows="2" maxlength="1000"></textarea></label>
      <p v-if="at(`steps.${i}`)" class="bad" role="alert">{{ at(`steps.${i}`) }}</p>
      <p class="ends">
        <button type="button" class="link" :disabled="i === 0" @click="move(draft.steps, i, -1)">up</button>
        <button type="button" class="link" :disabled="i === draft.steps.length - 1" @click="move(draft.steps, i, 1)">down</button>
        <button v-if="draft.steps.length > 1" type="button" class="link" @click="draft.steps.splice(i, 1)">take away</button>
      </p>
    </fieldset>
    <button type="button" class="link" @click="addStep">add a step</button>

    <h3>Text of what was found</h3>
    <p class="soft">
      Parts that hold by what steps came to. <span class="mono">{step.count}</span>, <span class="mono">first</span>, <span class="mono">last</span>,
      <span class="mono">values</span>, <span class="mono">top</span> and <span class="mono">sentence</span> name what a step found.
    </p>
    <div v-for="(part, i) in draft.finding" :key="i" class="row">
      <label
        >If
        <select v-model="part.when" class="input">
          <option value="">always</option>
          <option v-for="step in draft.steps" :key="step.name">{{ step.name }}</option>
        </select></label
      >
      <label v-if="part.when"
        >has
        <select v-model="part.has" class="input">
          <option>found</option>
          <option>nothing</option>
        </select></label
      >
      <label class="grow">Text <input v-model="part.text" class="input wide" maxlength="1000" /></label>
      <button type="button" class="link" @click="draft.finding.splice(i, 1)">take away</button>
      <p v-if="at(`finding.${i}`)" class="bad" role="alert">{{ at(`finding.${i}`) }}</p>
    </div>
    <button type="button" class="link" @click="addPart">add a part</button>

    <p v-if="problem" class="bad" role="alert">{{ problem }}</p>
    <p class="ends">
      <v-btn type="submit" color="primary" :disabled="problems.length > 0 || draft.title.trim() === ''">Keep</v-btn>
      <v-btn variant="text" @click="emit('cancel')">Leave without keeping</v-btn>
      <span v-if="problems.length > 0" class="soft"
        >{{ problems.length }} {{ problems.length === 1 ? 'thing is' : 'things are' }} not in order yet</span
      >
    </p>
  </form>
</template>
<style scoped>
.editor label {
  display: flex;
  flex-direction: column;
  font-size: 13px;
  margin-bottom: 6px;
}
.row {
  display: flex;
  flex-wrap: wrap;
  align-items: end;
  gap: 4px 12px;
}
.row > .link {
  margin-bottom: 10px;
}
.grow {
  flex: 1;
  min-width: 240px;
}
.wide {
  width: 100%;
  box-sizing: border-box;
}
.short {
  width: 120px;
}
textarea {
  font: inherit;
  resize: vertical;
}
h3 {
  margin: 16px 0 4px;
}
.step {
  border: 1px solid var(--seam);
  background: var(--paper);
  border-radius: 3px;
  margin: 0 0 10px;
  padding: 6px 14px;
}
.bad {
  color: var(--madder);
  margin: 0 0 6px;
  flex-basis: 100%;
}
.ends {
  display: flex;
  gap: 12px;
  align-items: center;
  margin: 6px 0;
}
h2 {
  margin: 0 0 8px;
}
</style>
