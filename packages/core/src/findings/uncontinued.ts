import type { StrandRecord } from '../path/types.ts';
import type { Microseconds } from '../units.ts';
import { keyOf, surelyContinues } from '../usual/continuing.ts';
import type { Continuation } from '../usual/types.ts';
import type { JudgedLeg } from './leg.ts';
import { said, words } from './sentence.ts';
import { signatureOf } from './signature.ts';
import { SILENT } from './sure.ts';
import type { Finding, Verdict } from './types.ts';

/**
 * That a strand ended well but never went on as nearly all do: the call-back of hours later did not come.
 *
 * @param first how its first leg went
 * @returns null where nothing is missing, where it may still come, or may have come where our evidence has a hole
 */
export function uncontinued(first: Verdict, { records, path, evidenceEnd, usual, reach }: JudgedLeg): Verdict | null {
  if (!usual || first.outcome !== 'done') return null;
  const own = path.legs[0]!.records;
  const end = records[own[own.length - 1]!]!.at;
  const later = new Set(path.legs.slice(1).map((leg) => keyOf(records[leg.records[0]!]!)));
  const missing = surelyContinues(usual.of).find(
    (one) => !later.has(keyOf(one)) && evidenceEnd - end > one.longest && reach(one.component, end, one.longest).kind !== 'hole',
  );
  if (!missing) return null;
  return { outcome: 'stalled', findings: [neverCame(records, own[own.length - 1]!, missing, evidenceEnd), ...first.findings].map((one, i) => ({ ...one, rank: i + 1 })) }; // prettier-ignore
}

function neverCame(records: readonly StrandRecord[], last: number, missing: Continuation, evidenceEnd: Microseconds): Finding {
  const record = records[last]!;
  const about = { kind: 'stopped-before' as const, failedIn: record.component, component: record.component, missingNext: missing.component };
  return {
    ...about,
    rank: 1,
    record: last,
    confidence: SILENT,
    evidence: [last],
    excess: null,
    signature: signatureOf(about, record),
    sentence: [
      words('Ended well with '),
      ...said(record, last),
      words(', but never went on. Usually '),
      { kind: 'component', text: missing.component },
      words(` says “${missing.text}” `),
      { kind: 'duration', time: missing.wait.median },
      words(' later (99 of 100 within '),
      { kind: 'duration', time: missing.wait.p99 },
      words(`; ${missing.legs.toLocaleString('en')} of ${missing.of.toLocaleString('en')} good ones); nothing of it came in the `),
      { kind: 'duration', time: evidenceEnd - record.at },
      words(' of evidence after it.'),
    ],
  };
}
