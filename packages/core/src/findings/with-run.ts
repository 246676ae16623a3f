import { rowsIn } from '../jobs/rows-told.ts';
import type { Outcome, StrandRecord } from '../path/types.ts';
import { said, words } from './sentence.ts';
import { signatureOf } from './signature.ts';
import { SAID } from './sure.ts';
import type { Finding, Verdict } from './types.ts';

/** A run that says so of itself came to an end, but not to a whole one: English and German. */
const PARTLY = /(?<![\p{L}\p{N}_])(?:partial|partially|partly|incomplete|teilweise|unvollständig)(?![\p{L}\p{N}_])/iu;
/** “not partial”, `partial=0`, “0 partial”. */
const NOT_PARTLY =
  /(?<!\p{L})(?:no|not|none|nicht|kein\p{L}*|0)\s+(?:partial|partially|partly|incomplete|teilweise|unvollständig)|(?:partial|incomplete)\s?[=:]\s?(?:0|no|false|none)(?![\p{L}\p{N}])/iu;
/** A status told at the end, by the words of shells and schedulers. */
const STATUS = /(?<![\p{L}\p{N}_])(?:exit(?:ed)?(?:\s+with)?(?:[\s_]+(?:code|status))?|return[\s_]code|rc)\s*[=:]?\s*(-?\d{1,10})(?![\p{L}\p{N}.])/iu;
const MILDER: readonly Outcome[] = ['done', 'slow', 'running'];
/** What a run says last is looked for in so many records from its end. */
const LAST = 3;
/** Others speak behind it, so many at most. */
const LOOKED = 12;

/** A run (a strand that tells of rows) that says at its end that it came through partly, or ended with a status other than 0: that is no good end. */
export function withRun<V extends Verdict>(verdict: V, records: readonly StrandRecord[]): V {
  // hardly any strand says such: the rest is not looked at
  if (!MILDER.includes(verdict.outcome) || !records.slice(-LOOKED).some((one) => PARTLY.test(lineOf(one)) || STATUS.test(lineOf(one))))
    return verdict;
  if (!records.some(({ message }) => Object.keys(rowsIn(message)).length > 0)) return verdict;
  const own = records[records.findLastIndex(({ message }) => Object.keys(rowsIn(message)).length > 0)]!.component;
  const last = records.flatMap((record, index) => (record.component === own ? [index] : [])).slice(-LAST);
  const partly = last.findLast((index) => PARTLY.test(lineOf(records[index]!)) && !NOT_PARTLY.test(lineOf(records[index]!)));
  const status = last.findLast((index) => Number(STATUS.exec(lineOf(records[index]!))?.[1] ?? 0) !== 0);
  if (partly === undefined && status === undefined) return verdict;
  const failed = status !== undefined;
  const index = failed ? status : partly!;
  const record = records[index]!;
  const about = {
    kind: failed ? ('failed-at' as const) : ('odd-result' as const),
    failedIn: record.component,
    component: record.component,
    missingNext: null,
  };
  const finding: Finding = {
    ...about,
    rank: 1,
    record: index,
    confidence: SAID,
    evidence: [index],
    sentence: [
      words(failed ? 'Failed by the status that it ended with, in ' : 'Came through partly, by its own words, in '),
      ...said(record, index),
      words('.'),
    ],
    excess: null,
    signature: signatureOf(about, record),
  };
  const findings = [finding, ...verdict.findings.filter((one) => one.record !== index)].map((one, i) => ({ ...one, rank: i + 1 }));
  return { ...verdict, outcome: failed ? 'failed' : 'odd', findings };
}
const lineOf = ({ message }: StrandRecord): string => message.split('\n', 1)[0]!.slice(0, 600);
