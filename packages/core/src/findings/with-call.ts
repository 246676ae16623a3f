import { amissOf, type CallAmiss } from '../calls/amiss.ts';
import type { CallFacts } from '../calls/facts.ts';
import type { Outcome, StrandRecord } from '../path/types.ts';
import { FEWEST_LEGS } from '../usual/following-on.ts';
import type { Usual } from '../usual/index-of.ts';
import { said, words } from './sentence.ts';
import { signatureOf } from './signature.ts';
import { DIFFERS, SAID } from './sure.ts';
import type { Finding, Verdict } from './types.ts';

/** What messages of a call say is graver than that it came to an end, or went on for longer than others. */
const MILDER: readonly Outcome[] = ['done', 'odd', 'slow', 'running', 'stalled'];
/** Nobody answers for as long as a request is sent again, or for as long as somebody on the way waits (RFC 3261, timers B and C), in microseconds. */
const TIMER_B = 32_000_000;
const TIMER_C = 180_000_000;
/** What more good calls have is no sign of anything. */
const SELDOM = 0.05;

/**
 * A call by its messages: one that was not put through is refused or failed, never done; one that was, and is amiss, is told of. What was found before stays
 * where it is graver, or tells the same record.
 *
 * @param usual what is usual for calls of its flow, null where it is not known
 */
export function withCall<V extends Verdict>(
  verdict: V,
  records: readonly StrandRecord[],
  facts: CallFacts,
  evidenceEnd: number,
  usual: Usual | null,
): V {
  if (isWaitedFor(facts, evidenceEnd)) return verdict.outcome === 'done' ? { ...verdict, outcome: 'running' } : verdict;
  const amiss = amissOf(facts).flatMap((one) => (one.byAddress ? weighed(one, usual) : one));
  if (amiss.length === 0) return verdict;
  const telling = amiss[0]!;
  // that somebody turned it away is what its answer says by itself, which may be more
  const byAnswer = verdict.outcome === 'refused' && telling.outcome === 'failed' && verdict.findings[0]?.record === telling.record;
  const milder = byAnswer || MILDER.includes(verdict.outcome);
  const takes = telling.outcome !== null && milder && !(telling.outcome === 'odd' && verdict.outcome !== 'done');
  const own = amiss.map((one) => findingOf(one, records)).filter((one) => takes || !verdict.findings.some(({ record }) => record === one.record));
  const findings = (takes ? [...own, ...verdict.findings.filter(({ record }) => !own.some((one) => one.record === record))] : [...verdict.findings, ...own]).map((one, i) => ({ ...one, rank: i + 1 })); // prettier-ignore
  return { ...verdict, outcome: takes ? telling.outcome! : verdict.outcome, findings };
}

/**
 * What addresses alone tell, by how many good calls have it: in many networks all of them do, since what stands between carries the media. Where that is not known
 * it is told, and nothing comes of it.
 */
function weighed(one: CallAmiss, usual: Usual | null): CallAmiss[] {
  const { legs, unreached } = usual?.of.calls ?? { legs: 0, unreached: 0 };
  if (legs < FEWEST_LEGS) return [{ ...one, outcome: null }];
  return unreached > legs * SELDOM ? [] : [one];
}

/** Whether an answer may still come. Whoever was sent again is sent once more after twice the time between (RFC 3261, section 17.1.1.2): later nobody waits. */
function isWaitedFor({ state, tried, begunAt, lastAsked }: CallFacts, evidenceEnd: number): boolean {
  if (state !== 'asked' && state !== 'ringing') return false;
  if (state === 'ringing' || tried) return evidenceEnd - begunAt <= TIMER_C;
  const givenUp = lastAsked > begunAt && evidenceEnd - lastAsked > 2 * (lastAsked - begunAt);
  return !givenUp && evidenceEnd - begunAt <= TIMER_B;
}

function findingOf({ outcome, record: index, words: text, time, trouble }: CallAmiss, records: readonly StrandRecord[]): Finding {
  const record = records[index]!;
  const kind =
    outcome === 'failed'
      ? ('failed-at' as const)
      : outcome === 'stalled'
        ? ('stopped-before' as const)
        : outcome === 'refused'
          ? ('refused' as const)
          : ('went-astray' as const);
  const about = { kind, failedIn: record.component, component: record.component, missingNext: null };
  return {
    ...about,
    rank: 1,
    record: index,
    confidence: outcome === 'odd' || outcome === null ? DIFFERS : SAID,
    evidence: [index],
    sentence: [words(text), ...(time === null ? (/\s$/.test(text) ? [words('a time that is not known.')] : []) : [{ kind: 'duration' as const, time }, words('.')]), words(' So told '), ...said(record, index), words('.')], // prettier-ignore
    excess: null,
    signature: `${signatureOf(about, record)}|${trouble}`,
  };
}
