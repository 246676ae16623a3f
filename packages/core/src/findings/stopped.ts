import type { StrandRecord } from '../path/types.ts';
import type { Microseconds } from '../units.ts';
import type { Usual } from '../usual/index-of.ts';
import type { UsualSaying } from '../usual/types.ts';
import { withTraits } from './failed.ts';
import { said, words } from './sentence.ts';
import { signatureOf } from './signature.ts';
import type { Finding, SentencePart } from './types.ts';

/**
 * The last record that tells how far it came: not one that closes what it had begun before others (its stated duration reaches back over
 * records of other components), such as a proxy's that speaks when the answer has gone.
 */
export function lastReached(records: readonly StrandRecord[]): number {
  for (let i = records.length - 1; i > 0; i--) {
    const { at, took, component } = records[i]!;
    const begin = at - took;
    if (!(took > 0) || !records.slice(0, i).some((other) => other.component !== component && other.at > begin)) return i;
  }
  return 0;
}

/** What usually comes behind the last record and did not; undefined where nothing is known to. */
export function missingAfter(records: readonly StrandRecord[], last: number, usual: Usual): UsualSaying['then'][number] | undefined {
  const there = new Set(records.map((record) => usual.placeOf(record)));
  return usual.sayingOf(records[last]!)?.then.find((next) => !there.has(next.saying));
}

/**
 * A leg that did not come to its end.
 *
 * @param last index of the record up to which it came
 * @param telling index of an earlier record that tells this leg from the good ones, where there is one
 */
export function silence(
  records: readonly StrandRecord[],
  last: number,
  evidenceEnd: Microseconds,
  usual: Usual | null,
  telling: number | undefined,
): Finding {
  const record = records[last]!;
  const root = telling ?? last;
  const next = usual ? missingAfter(records, last, usual) : undefined;
  const missing = next ? usual!.of.sayings[next.saying]! : undefined;
  const closing = [...new Set(records.slice(last + 1).map((other) => other.component))];
  const about = {
    kind: 'stopped-before' as const,
    failedIn: record.component,
    component: records[root]!.component,
    missingNext: missing?.component ?? null,
  };
  const sentence: SentencePart[] = [words('Nothing more after '), ...said(record, last), words('.')];
  if (missing && next)
    sentence.push(
      words(' Usually '),
      { kind: 'component', text: missing.component },
      words(' says '),
      { kind: 'words', text: `“${missing.text}” ` },
      { kind: 'duration', time: next.wait.median },
      words(` later (${missing.legs.toLocaleString('en')} of ${usual!.of.legs.toLocaleString('en')} good ones).`),
    );
  if (root !== last)
    sentence.push(words(' Before it, what no good one has: '), ...said(records[root]!, root), ...withTraits(records[root]!), words('.'));
  if (closing.length > 0) sentence.push(words(' '), { kind: 'component', text: closing.join(' and ') }, words(' only closed what had begun before;'));
  sentence.push(
    words(closing.length > 0 ? ' no source names it in the ' : ' No source names it in the '),
    { kind: 'duration', time: evidenceEnd - records[records.length - 1]!.at },
    words(' of evidence after it.'),
  );
  return {
    ...about,
    rank: 1,
    record: root,
    confidence: next ? Math.min(0.95, next.share) : root === last ? 0.6 : 0.8,
    evidence: root === last ? [last] : [root, last],
    sentence,
    excess: null,
    signature: signatureOf(about, records[root]!),
  };
}
