import type { Problem, StepResult } from '@fadenweg/api';
import { findingText, type Runbook, type RunbookStep, type StepSum } from '@fadenweg/core/runbooks';
import { computed, ref, watch, type Ref } from 'vue';
import { api } from '../api/client.ts';
import { problemOf } from '../api/problem-of.ts';
import { dayAndClock } from '../time/format.ts';

export interface RunFrame {
  from: string;
  to: string;
  environment: string | undefined;
}
export type StepState =
  { state: 'waits' } | { state: 'runs' } | { state: 'done'; result: StepResult<StepSum> } | { state: 'failed'; problem: Problem };

/** Runs a runbook's steps, one by one or all; other blanks or another window begin anew. */
export function useRun(runbook: Ref<Runbook | null>, blanks: Ref<Readonly<Record<string, string>>>, frame: Ref<RunFrame | null>) {
  const states = ref<Record<string, StepState>>({});
  let current: AbortController | null = null;
  const stateOf = (step: string): StepState => states.value[step] ?? { state: 'waits' };
  const sums = computed<Record<string, StepSum>>(() =>
    Object.fromEntries(Object.entries(states.value).flatMap(([name, one]) => (one.state === 'done' ? [[name, one.result.sum]] : []))),
  );
  const missing = computed(() => (runbook.value?.blanks ?? []).filter((one) => !blanks.value[one.name]?.trim()));
  const running = computed(() => Object.values(states.value).some((one) => one.state === 'runs'));
  const finding = computed(() => (runbook.value ? findingText(runbook.value.finding, blanks.value, sums.value, dayAndClock) : null));

  /** What a step builds on: its own stretches, and what it takes up from others. */
  const needs = ({ look, around }: RunbookStep): string[] => {
    const named = [...JSON.stringify(look).matchAll(/\{([a-z0-9-]+)\.[a-z]+\}/g)].map((hit) => hit[1]!);
    return [...new Set([...named, ...(around ? [around.step] : []), ...(look.what === 'strands' && look.among !== '' ? [look.among] : [])])];
  };

  async function one(step: RunbookStep, signal: AbortSignal): Promise<boolean> {
    states.value = { ...states.value, [step.name]: { state: 'runs' } };
    try {
      if (!runbook.value || !frame.value) return false;
      const body = { runbook: runbook.value, step: step.name, blanks: blanks.value, ...frame.value, earlier: sums.value };
      const result = await api.post('/runbooks/run', { body }, signal);
      states.value = { ...states.value, [step.name]: { state: 'done', result } };
      return true;
    } catch (error) {
      if (signal.aborted) return false;
      states.value = { ...states.value, [step.name]: { state: 'failed', problem: problemOf(error) } };
      return false;
    }
  }
  /** Runs these, and before each what it builds on. */
  async function run(wanted: readonly RunbookStep[]): Promise<void> {
    stop();
    const { signal } = (current = new AbortController());
    const all = runbook.value?.steps ?? [];
    for (const step of wanted) {
      for (const name of needs(step)) {
        const before = all.find((other) => other.name === name);
        if (before && stateOf(name).state !== 'done' && !(await one(before, signal))) return;
      }
      if (!(await one(step, signal))) return;
    }
  }
  function stop(): void {
    current?.abort();
    states.value = Object.fromEntries(Object.entries(states.value).filter(([, state]) => state.state !== 'runs'));
  }
  function forget(): void {
    stop();
    states.value = {};
  }
  watch(() => JSON.stringify([runbook.value, blanks.value, frame.value]), forget);
  return { stateOf, sums, missing, running, finding, run, stop, forget };
}
