import { endOf, EVERYWHERE } from '../coverage/reach.ts';
import { pathOf } from '../path/path.ts';
import type { Leg, Outcome } from '../path/types.ts';
import { judgedLeg, type JudgedLeg } from './leg.ts';
import type { Finding, Verdict } from './types.ts';
import { uncontinued } from './uncontinued.ts';
import { verdict } from './verdict.ts';

/**
 * How a strand ended and why, and how each of its legs did.
 *
 * The strand is judged by its first leg: a later query, well or badly answered, changes nothing of how the order went. Where the first leg alone did not
 * come to an end, all legs are judged together: a later one may have brought the end (an answer that is called back). Where it came to a good end and lacks a
 * later leg that nearly all go on with, it is stalled.
 */
export function verdictByLeg(strand: Omit<JudgedLeg, 'patience'>): Verdict & { legs: Outcome[] } {
  const { records, path, reach } = strand;
  const usual = strand.usual && strand.usual.holding(records[0]!.at);
  const heard = new Set([...records.map((one) => one.component), ...(usual?.of.components ?? []).map((one) => one.component)]);
  const whole = judgedLeg({ ...strand, usual, reach, evidenceEnd: endOf(heard, strand.evidenceEnd, reach) });
  const [first, ...others] = path.legs;
  if (others.length === 0) {
    const found = verdict(whole);
    return { ...(uncontinued(found, whole) ?? found), legs: [found.outcome] };
  }
  const own = verdictOf(first!, whole);
  const ended = own.outcome !== 'running' && own.outcome !== 'stalled' && own.outcome !== 'out-of-sight';
  const alone = { ...whole, flow: null, usual: null, reach: EVERYWHERE };
  return {
    ...(uncontinued(own, whole) ?? (ended ? own : verdict(whole))),
    legs: [own.outcome, ...others.map((leg) => verdictOf(leg, alone).outcome)],
  };
}

/** The verdict of one leg of a strand, told in indexes of the strand's records. */
function verdictOf(leg: Leg, strand: JudgedLeg): Verdict {
  const records = leg.records.map((index) => strand.records[index]!);
  const path = pathOf(records, () => false);
  const { outcome, findings } = verdict(judgedLeg({ ...strand, records, path }));
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
