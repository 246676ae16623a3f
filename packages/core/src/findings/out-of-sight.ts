import type { StrandRecord } from '../path/types.ts';
import type { Microseconds } from '../units.ts';
import type { JudgedLeg } from './leg.ts';
import { said, words } from './sentence.ts';
import { signatureOf } from './signature.ts';
import { missingAfter } from './stopped.ts';
import { UNSEEN } from './sure.ts';
import type { Finding, SentencePart } from './types.ts';

export interface Hole {
  /** Whose evidence has it. */
  component: string;
  /** Null where nothing is known of it before. */
  from: Microseconds | null;
  to: Microseconds;
}

/** A hole in the evidence of who should speak after a record (`due`, or who usually does); null where there is none, or nobody is known to speak. */
export function holeAfter({ records, usual, reach, patience }: JudgedLeg, last: number, due: string | null): Hole | null {
  if (!usual) return null;
  const next = due === null ? missingAfter(records, last, usual) : undefined;
  const component = due ?? (next && usual.of.sayings[next.saying]!.component);
  if (!component) return null;
  const found = reach(component, records[last]!.at, patience);
  return found.kind === 'hole' ? { component, from: found.from, to: found.to } : null;
}

/** That it went on where nobody can see it: no fault, and no end either. */
export function outOfSight(records: readonly StrandRecord[], last: number, { component, from, to }: Hole): Finding {
  const record = records[last]!;
  const about = { kind: 'stopped-before' as const, failedIn: record.component, component: record.component, missingNext: component };
  const sentence: SentencePart[] = [
    words('Out of sight after '),
    ...said(record, last),
    words('. Usually '),
    { kind: 'component', text: component },
    words(' speaks next, but our evidence of it '),
    ...(from === null
      ? [words('begins only at '), { kind: 'time' as const, at: to }]
      : [words('has a hole from '), { kind: 'time' as const, at: from }, words(' to '), { kind: 'time' as const, at: to }]),
    words('.'),
  ];
  return { ...about, rank: 1, record: last, sentence, confidence: UNSEEN, evidence: [last], excess: null, signature: signatureOf(about, record) };
}
