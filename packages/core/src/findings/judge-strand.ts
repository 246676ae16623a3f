import type { CallFacts } from '../calls/facts.ts';
import { callOf } from '../calls/of-records.ts';
import type { Outcome } from '../path/types.ts';
import { verdictByLeg } from './by-leg.ts';
import { withTwin, type Twin } from './doubled.ts';
import type { JudgedLeg } from './leg.ts';
import { withOwnEnd } from './own-end.ts';
import type { Verdict } from './types.ts';
import { withCall } from './with-call.ts';
import { withRun } from './with-run.ts';

/** A strand under judgement. */
export interface JudgedStrand extends Omit<JudgedLeg, 'patience'> {
  /** The earlier strand of its flow with which it shares an identifier that belongs to one only. */
  twin: Twin | null;
}

/**
 * How a strand ended and why, and what there is to say of it as a call. The one verdict: lists show what comes of it, and so does the strand's own page, from
 * the same excerpts of the same records (`excerptOf`).
 */
export function judgeStrand({ twin, ...strand }: JudgedStrand): Verdict & { legs: Outcome[]; call: CallFacts | null } {
  const { records, evidenceEnd } = strand;
  const call = callOf(records);
  const byLeg = verdictByLeg(strand);
  const { usual } = strand;
  const itself = call
    ? withCall(byLeg, records, call, evidenceEnd, usual && usual.holding(records[0]!.at))
    : withRun(usual === null ? withOwnEnd(byLeg, records, strand.flow) : byLeg, records);
  const alone = { ...itself, call };
  return twin ? withTwin(alone, records, twin) : alone;
}
