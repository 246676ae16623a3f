import { EVERYWHERE } from '../coverage/reach.ts';
import { verdictByLeg } from '../findings/by-leg.ts';
import type { FlowRules } from '../findings/types.ts';
import type { Path, StrandRecord } from '../path/types.ts';
import type { Microseconds } from '../units.ts';
import { FEWEST_LEGS } from './following-on.ts';
import type { Lesson } from './good-ones.ts';

/** Strands of each flow from which the usual is learned. */
const LESSONS = 600;
/** Longer ones are no help. */
const MOST_RECORDS = 2000;

/**
 * Strands from which the usual of each flow is learned: always the same ones for the same strands, those with the smallest keys, which are hashes. Flows of which there are
 * too few are left out.
 */
export class ChosenLessons {
  private readonly byFlow = new Map<FlowRules, number[]>();

  /** To be called in ascending order of the founders' keys. */
  note(founder: number, flow: FlowRules): void {
    const own = this.byFlow.get(flow);
    if (!own) this.byFlow.set(flow, [founder]);
    else if (own.length < LESSONS) own.push(founder);
  }
  /** Founders with their flows. */
  chosen(): Map<number, FlowRules> {
    const found = new Map<number, FlowRules>();
    for (const [flow, own] of this.byFlow) if (own.length >= FEWEST_LEGS) for (const founder of own) found.set(founder, flow);
    return found;
  }
}

/**
 * What a strand teaches: its first leg, how that went as far as its own records tell, and where later legs began. Null where it is too long.
 *
 * @param records arranged, those of `path`
 * @param total how many records it has
 */
export function lessonOf(records: readonly StrandRecord[], path: Path, flow: FlowRules, evidenceEnd: Microseconds, total: number): Lesson | null {
  if (total > MOST_RECORDS) return null;
  const legs = path.legs.map((leg) => leg.records.map((index) => records[index]!));
  const { legs: outcomes } = verdictByLeg({ records, path, flow, evidenceEnd, usual: null, reach: EVERYWHERE });
  return {
    records: legs[0]!,
    outcome: outcomes[0]!,
    others: legs.slice(1).map((own, i) => ({ records: own, outcome: outcomes[i + 1]! })),
    later: path.legs.slice(1).map((one) => records[one.records[0]!]!),
    until: evidenceEnd,
    patient: flow.patienceMs !== null,
  };
}
