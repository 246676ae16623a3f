import { EVERYWHERE, type Reach } from '../coverage/reach.ts';
import { pathOf } from '../path/path.ts';
import type { Leg, Outcome, Path, StrandRecord } from '../path/types.ts';
import type { Microseconds } from '../units.ts';
import type { Usual } from '../usual/index-of.ts';
import type { Finding, FlowRules, Verdict } from './types.ts';
import { uncontinued } from './uncontinued.ts';
import { verdict } from './verdict.ts';

/**
 * How a strand ended and why, and how each of its legs did.
 *
 * The strand is judged by its first leg: a later query, well or badly answered, changes nothing of how the order went. Where the first leg alone did not
 * come to an end, all legs are judged together: a later one may have brought the end (an answer that is called back). Where it came to a good end and lacks a
 * later leg that nearly all go on with, it is stalled.
 *
 * @param evidenceEnd until when the sources concerned have spoken
 * @param known what is usual for the flow's first leg, null where it is not known
 * @param reach how far the evidence of each component reaches
 */
export function verdictByLeg(
  records: readonly StrandRecord[],
  path: Path,
  flow: FlowRules | null,
  evidenceEnd: Microseconds,
  known: Usual | null,
  reach: Reach = EVERYWHERE,
): Verdict & { legs: Outcome[] } {
  const usual = known && known.holding(records[0]!.at);
  const [first, ...others] = path.legs;
  if (others.length === 0) {
    const whole = verdict(records, path, flow, evidenceEnd, usual, reach);
    return { ...(uncontinued(whole, records, path, evidenceEnd, usual, reach) ?? whole), legs: [whole.outcome] };
  }
  const own = verdictOf(first!, records, flow, evidenceEnd, usual, reach);
  const ended = own.outcome !== 'running' && own.outcome !== 'stalled' && own.outcome !== 'out-of-sight';
  return {
    ...(uncontinued(own, records, path, evidenceEnd, usual, reach) ?? (ended ? own : verdict(records, path, flow, evidenceEnd, usual, reach))),
    legs: [own.outcome, ...others.map((leg) => verdictOf(leg, records, null, evidenceEnd, null, EVERYWHERE).outcome)],
  };
}

/** The verdict of one leg, told in indexes of the strand's records. */
function verdictOf(
  leg: Leg,
  records: readonly StrandRecord[],
  flow: FlowRules | null,
  evidenceEnd: Microseconds,
  usual: Usual | null,
  reach: Reach,
): Verdict {
  const own = leg.records.map((index) => records[index]!);
  const { outcome, findings } = verdict(
    own,
    pathOf(own, () => false),
    flow,
    evidenceEnd,
    usual,
    reach,
  );
  const whole = (index: number): number => leg.records[index]!;
  return {
    outcome,
    findings: findings.map((finding): Finding => ({
      ...finding,
      record: whole(finding.record),
      evidence: finding.evidence.map(whole),
      sentence: finding.sentence.map((part) => (part.kind === 'quote' ? { ...part, record: whole(part.record) } : part)),
    })),
  };
}
