import { endOf, EVERYWHERE } from '../coverage/reach.ts';
import type { Usual } from '../usual/index-of.ts';
import { pathOf } from '../path/path.ts';
import type { Leg, Outcome, StrandRecord } from '../path/types.ts';
import { judgedLeg, type JudgedLeg } from './leg.ts';
import type { Finding, Verdict } from './types.ts';
import { uncontinued } from './uncontinued.ts';
import { verdict } from './verdict.ts';

/**
 * How a strand ended and why, and how each of its legs did.
 *
 * Each leg is judged by what is usual for those that begin like it; the strand shows the gravest. Where the first leg did not come to an end and a later one is none
 * that is known, all are judged together: it may have brought the end (an answer that is called back). Where the first came to a good end and lacks a later leg that
 * nearly all go on with, the strand is stalled.
 */
export function verdictByLeg(strand: Omit<JudgedLeg, 'patience'>): Verdict & { legs: Outcome[] } {
  const { records, path, reach } = strand;
  const usual = strand.usual && strand.usual.holding(records[0]!.at);
  const heard = new Set([...records.map((one) => one.component), ...(usual?.of.components ?? []).map((one) => one.component)]);
  const whole = judgedLeg({ ...strand, usual, reach, evidenceEnd: endOf(heard, strand.evidenceEnd, reach) });
  const [first, ...others] = path.legs;
  if (others.length === 0) {
    const found = verdict(judgedLeg({ ...whole, usual: (usual && kindOf(usual, records)) ?? usual }));
    return { ...(uncontinued(found, whole) ?? found), legs: [found.outcome] };
  }
  const own = verdictOf(first!, whole, usual);
  const ended = own.outcome !== 'running' && own.outcome !== 'stalled' && own.outcome !== 'out-of-sight';
  const later = others.map((leg) => laterLeg(leg, whole));
  // what nobody knows as a leg of its own may have brought the end: an answer that is called back
  const one = uncontinued(own, whole) ?? (ended || later.every(({ known }) => known) ? own : verdict(whole));
  return { ...gravest([one, ...later.map((one) => one.verdict)]), legs: [own.outcome, ...later.map((one) => one.verdict.outcome)] };
}

/** What is usual for legs that begin as this one does, at the time when it began. */
const kindOf = (usual: Usual, records: readonly StrandRecord[]): Usual | null => usual.ofKind(records)?.holding(records[0]!.at) ?? null;

/** A later leg is judged by those that begin like it; where none are known, by what its own records say. */
function laterLeg(leg: Leg, whole: JudgedLeg): { verdict: Verdict; known: boolean } {
  const usual = whole.usual && kindOf(whole.usual, leg.records.map((index) => whole.records[index]!)); // prettier-ignore
  if (!usual || !whole.flow) return { verdict: verdictOf(leg, { ...whole, flow: null, reach: EVERYWHERE }, null), known: false };
  // what is declared for the flow is declared for its first leg
  const flow = { ...whole.flow, expects: [], must: [], path: [], longestMs: null };
  return { verdict: verdictOf(leg, { ...whole, flow }, usual), known: true };
}

const GRAVITY: readonly Outcome[] = ['failed', 'stalled', 'doubled', 'refused', 'odd', 'slow'];
/** The strand shows the gravest of what its legs came to, the first one's before that of later ones; findings of all of them, those of the gravest first. */
function gravest(verdicts: readonly Verdict[]): Verdict {
  const gravity = ({ outcome }: Verdict): number => (GRAVITY.includes(outcome) ? GRAVITY.indexOf(outcome) : GRAVITY.length);
  const [first, ...rest] = verdicts.map((one, i) => ({ one, i })).sort((a, b) => gravity(a.one) - gravity(b.one) || a.i - b.i);
  const findings = [first!, ...rest].flatMap(({ one }) => one.findings).map((one, i) => ({ ...one, rank: i + 1 }));
  return { outcome: first!.one.outcome, findings };
}

/** The verdict of one leg of a strand, told in indexes of the strand's records. */
function verdictOf(leg: Leg, strand: JudgedLeg, usual: Usual | null): Verdict {
  const records = leg.records.map((index) => strand.records[index]!);
  const path = pathOf(records, () => false);
  const { outcome, findings } = verdict(judgedLeg({ ...strand, records, path, usual: (usual && kindOf(usual, records)) ?? usual }));
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
