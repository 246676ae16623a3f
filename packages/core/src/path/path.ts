import { steps } from './steps.ts';
import { splitTime } from './split.ts';
import type { Path, StrandRecord } from './types.ts';

/**
 * The path of one leg.
 *
 * @param records at least one, in order of (corrected) time
 */
export function pathOf(records: readonly StrandRecord[]): Path {
  const found = steps(records);
  const { time, silences, from, to } = splitTime(records, found.steps, found.stepOf);
  return { ...found, time, silences, startedAt: from, endedAt: to };
}
