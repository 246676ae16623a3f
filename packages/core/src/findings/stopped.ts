import type { StrandRecord } from '../path/types.ts';
import type { Usual } from '../usual/index-of.ts';
import type { UsualSaying } from '../usual/types.ts';
import { withTraits } from './failed.ts';
import type { JudgedLeg } from './leg.ts';
import { because } from './reason.ts';
import { said, words } from './sentence.ts';
import { signatureOf } from './signature.ts';
import { DIFFERS, SILENT } from './sure.ts';
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

/**
 * What usually comes behind the last record and did not; where that is no record that good legs have, what usually comes behind the closest one before it.
 *
 * @returns undefined where nothing is known to; `behind` is the record behind which it comes
 */
export function missingAfter(
  records: readonly StrandRecord[],
  last: number,
  usual: Usual,
): (UsualSaying['then'][number] & { behind: number }) | undefined {
  const there = new Set(usual.placesOf(records));
  for (let behind = last; behind >= 0; behind--) {
    const saying = usual.sayingOf(records[behind]!);
    const next = saying?.then.find((one) => !there.has(one.saying));
    if (next) return { ...next, behind };
    if (saying && saying.legs > 0) return undefined;
  }
  return undefined;
}

/**
 * A leg that did not come to its end.
 *
 * @param last index of the record up to which it came
 * @param telling index of an earlier record that tells this leg from the good ones, where there is one
 * @param due what should have followed, and who would have said it, where that is known otherwise
 */
export function silence(
  { records, evidenceEnd, usual }: Pick<JudgedLeg, 'records' | 'evidenceEnd' | 'usual'>,
  last: number,
  telling: number | undefined,
  due?: { saying: UsualSaying | null; component: string | null },
): Finding {
  const record = records[last]!;
  const root = telling ?? last;
  const next = usual && !due ? missingAfter(records, last, usual) : undefined;
  const missing = due?.saying ?? (next ? usual!.of.sayings[next.saying]! : undefined);
  const wait = next
    ? next.behind === last && next.wait
    : usual?.sayingOf(record)?.then.find(({ saying }) => usual.of.sayings[saying] === missing)?.wait;
  const after = [...new Set(records.slice(last + 1).map((other) => other.component))];
  const about = {
    kind: 'stopped-before' as const,
    failedIn: record.component,
    component: records[root]!.component,
    missingNext: missing?.component ?? due?.component ?? null,
  };
  const sentence: SentencePart[] = [
    words(due && after.length > 0 ? 'Went no further than ' : 'Nothing more after '),
    ...said(record, last),
    words('.'),
  ];
  if (missing && usual)
    sentence.push(
      words(' Usually '),
      { kind: 'component', text: missing.component },
      words(' says '),
      { kind: 'words', text: `“${missing.text}” ` },
      ...(wait ? [{ kind: 'duration' as const, time: wait.median }, words(' later ')] : [words('behind it ')]),
      words(`(${missing.legs.toLocaleString('en')} of ${usual!.of.legs.toLocaleString('en')} good ones).`),
    );
  else if (due?.component === record.component)
    sentence.push(words(' '), { kind: 'component', text: record.component }, words(' always goes on behind that.'));
  if (root !== last)
    sentence.push(
      words(' Before it, what no good one has: '),
      ...said(records[root]!, root),
      ...because(records[root]!, root),
      ...withTraits(records[root]!),
      words('.'),
    );
  if (due && after.length > 0)
    sentence.push(words(' What '), { kind: 'component', text: after.join(', ') }, words(' said later does not stand for it;'));
  else if (after.length > 0)
    sentence.push(words(' '), { kind: 'component', text: after.join(' and ') }, words(' only closed what had begun before;'));
  sentence.push(
    words(after.length === 0 ? ' No source names it in the ' : due ? ' nothing of it came in the ' : ' no source names it in the '),
    { kind: 'duration', time: evidenceEnd - records[records.length - 1]!.at },
    words(' of evidence after it.'),
  );
  return {
    ...about,
    rank: 1,
    record: root,
    confidence: root === last ? SILENT : DIFFERS,
    evidence: root === last ? [last] : [root, last],
    sentence,
    excess: null,
    signature: signatureOf(about, records[root]!),
  };
}
