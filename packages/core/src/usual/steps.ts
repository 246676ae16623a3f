import type { Path, StrandRecord } from '../path/types.ts';
import type { Duration } from '../units.ts';
import type { Usual } from './index-of.ts';

export interface StepUsual {
  /** How long what was waited for within the step usually takes: medians, added up. */
  usual: Duration;
  /** How much longer it took here, where that is beyond what the usual varies by; 0 where it is not. */
  excess: Duration;
}

/**
 * How long each step usually takes, by the waits between its own records that are known.
 *
 * @returns by the step's number; steps of which nothing is known are left out
 */
export function usualOfSteps(records: readonly StrandRecord[], path: Path, usual: Usual): Map<number, StepUsual> {
  const last = new Map<number, number>();
  const found = new Map<number, StepUsual>();
  const ordered = path.legs[0]?.records ?? [];
  for (const index of ordered) {
    const record = records[index]!;
    const place = usual.placeOf(record);
    const after = place < 0 ? null : usual.of.sayings[place]!.after;
    const since = after ? last.get(after.saying) : undefined;
    if (place >= 0) last.set(place, index);
    if (!after || since === undefined || path.stepOf[since] !== path.stepOf[index]) continue;
    const step = path.steps[path.stepOf[index]!]!.id;
    const own = found.get(step) ?? { usual: 0, excess: 0 };
    const took = record.at - records[since]!.at;
    const wait = usual.at(after.wait, record.at);
    own.usual += wait.median;
    if (took > wait.fence) own.excess += took - wait.median;
    found.set(step, own);
  }
  return found;
}
