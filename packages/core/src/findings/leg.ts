import { EVERYWHERE, type Reach } from '../coverage/reach.ts';
import type { Path, StrandRecord } from '../path/types.ts';
import type { Duration, Microseconds } from '../units.ts';
import type { Usual } from '../usual/index-of.ts';
import { patienceBehind } from '../usual/patience.ts';
import type { Finding, FlowRules } from './types.ts';

/** A leg under judgement: all that what looks at it may want to know. */
export interface JudgedLeg {
  /** In the order in which they most likely happened. */
  records: readonly StrandRecord[];
  path: Path;
  /** What is declared for its flow, null where it is of none. */
  flow: FlowRules | null;
  /** What is usual for it, null where too few good legs are known. */
  usual: Usual | null;
  /** Until when the sources have spoken: silence before it is telling, after it is not. */
  evidenceEnd: Microseconds;
  /** How far the evidence of the component reaches that should have spoken next: silence in a hole of it tells nothing. */
  reach: Reach;
  /** Silence after which something does not come any more. */
  patience: Duration;
}
/** What looks for one kind of thing that departs. */
export type Detector = (leg: JudgedLeg) => Finding[];

/** A leg, with what follows from the rest: patience by its flow and by what is usual. */
export const judgedLeg = (leg: Omit<JudgedLeg, 'patience' | 'reach'> & { reach?: Reach }): JudgedLeg => ({
  ...leg,
  reach: leg.reach ?? EVERYWHERE,
  patience: patienceBehind(leg.flow?.patienceMs ?? null, leg.usual, leg.records),
});
