import { ref, type Ref } from 'vue';
import { ApiError } from './client.ts';

/** A refusal in words, with what to do about it where that is known. */
function wordsOf(error: unknown): string {
  if (!(error instanceof ApiError)) return (error as Error).message;
  const { title, detail, action } = error.problem;
  return `${title}: ${detail} ${action ?? ''}`.trimEnd();
}

/**
 * Changes that may be refused: while one is under way, and why the last one was.
 *
 * @param ended called after each, whatever came of it
 * @returns `attempt` tells whether it was done
 */
export function useAttempt(ended: () => void = () => {}): {
  attempt: (act: () => Promise<unknown>) => Promise<boolean>;
  refused: Ref<string>;
  busy: Ref<boolean>;
} {
  // prettier-ignore
  const refused = ref('');
  const busy = ref(false);
  const attempt = async (act: () => Promise<unknown>): Promise<boolean> => {
    refused.value = '';
    busy.value = true;
    try {
      await act();
      return true;
    } catch (error) {
      refused.value = wordsOf(error);
      return false;
    } finally {
      busy.value = false;
      ended();
    }
  };
  return { attempt, refused, busy };
}
