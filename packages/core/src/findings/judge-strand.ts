import type { Outcome } from '../path/types.ts';
import { verdictByLeg } from './by-leg.ts';
import { withTwin, type Twin } from './doubled.ts';
import type { JudgedLeg } from './leg.ts';
import type { Verdict } from './types.ts';

/** A strand under judgement. */
export interface JudgedStrand extends Omit<JudgedLeg, 'patience'> {
  /** The earlier strand of its flow with which it shares an identifier that belongs to one only. */
  twin: Twin | null;
}

/**
 * How a strand ended and why. The one verdict: lists show what comes of it, and so does the strand's own page, from the same excerpts of the same
 * records (`excerptOf`).
 */
export function judgeStrand({ twin, ...strand }: JudgedStrand): Verdict & { legs: Outcome[] } {
  const alone = verdictByLeg(strand);
  return twin ? withTwin(alone, strand.records, twin) : alone;
}
