import type { Problem } from '@fadenweg/api';
import { ref, type Ref } from 'vue';
import { problemOf, wordsOf } from './problem-of.ts';

/**
 * Changes that may be refused: while one is under way, and why the last one was.
 *
 * @param ended called after each, whatever came of it
 * @returns `attempt` tells whether it was done; `refused` is a line, `problem` the same to be shown with what to do; `again` tries the last one anew
 */
export function useAttempt(ended: () => unknown = () => {}): {
  attempt: (act: () => Promise<unknown>) => Promise<boolean>;
  again: () => Promise<boolean>;
  refused: Ref<string>;
  problem: Ref<Problem | null>;
  busy: Ref<boolean>;
} {
  const refused = ref('');
  const problem = ref<Problem | null>(null);
  const busy = ref(false);
  let last: () => Promise<unknown> = () => Promise.resolve();
  const attempt = async (act: () => Promise<unknown>): Promise<boolean> => {
    last = act;
    refused.value = '';
    problem.value = null;
    busy.value = true;
    try {
      await act();
      return true;
    } catch (error) {
      refused.value = wordsOf(error);
      problem.value = problemOf(error);
      return false;
    } finally {
      busy.value = false;
      ended();
    }
  };
  return { attempt, again: () => attempt(last), refused, problem, busy };
}
