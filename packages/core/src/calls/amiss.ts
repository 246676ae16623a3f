import type { Duration } from '../units.ts';
import { isHeld, isPrivate } from './description.ts';
import type { CallFacts, Side } from './facts.ts';
import { isChallenge } from './transactions.ts';

/** What is amiss with a call. */
export type CallTrouble =
  | 'busy'
  | 'no-answer'
  | 'given-up'
  | 'refused'
  | 'timed-out'
  | 'no-common-codec'
  | 'who-again'
  | 'broken'
  | 'cut'
  | 'dropped-after-change'
  | 'dropped-after-transfer'
  | 'one-way'
  | 'sent-again';
export interface CallAmiss {
  trouble: CallTrouble;
  /** What comes of it, where nothing graver is known; null where it is told alone. */
  outcome: 'failed' | 'refused' | 'stalled' | 'odd' | null;
  /** Index of the record that tells. */
  record: number;
  /** How it is told, a duration where it matters. */
  words: string;
  time: Duration | null;
  /** Known by addresses alone: it may be how calls go there, and means something only where hardly any other has it. */
  byAddress?: true;
}

/** Whoever hangs up so soon behind a change or a transfer that failed does it for that. */
const SOON = 15_000_000;
/** A call that asked so often who somebody is goes round. */
const ROUNDS = 3;
/** Somebody who is called turns a call away, or is not there (RFC 3261, section 21). */
const TURNED_AWAY = new Set([403, 480, 486, 600, 603, 607, 608]);
const NOBODY_THERE = new Set([404, 410, 484, 485, 604]);
const NO_CODEC = new Set([415, 488, 606]);
const TIMED_OUT = new Set([408, 504]);
/** Causes of Q.850 with which nothing is broken. */
const NORMAL_CAUSES = new Set([16, 17, 18, 19, 21, 26, 31]);
const BUSY = new Set([486, 600]);

const who = (facts: CallFacts, side: Side): string => facts[side].name || `the ${side}`;

/** What is amiss with a call by its messages, what ended it first; empty for one that went as it should. */
export function amissOf(facts: CallFacts): CallAmiss[] {
  const found = [notPutThrough(facts), waiting(facts), ended(facts), oneWay(facts), sentAgain(facts)];
  return found.filter((one): one is CallAmiss => one !== null);
}

function notPutThrough(facts: CallFacts): CallAmiss | null {
  const { state, status, ringing, records, phrase } = facts;
  if (state !== 'refused' && state !== 'given-up') return null;
  const record = records.answer ?? records.end ?? records.begin;
  const told = `${status} ${phrase}`.trim();
  const amiss = (trouble: CallTrouble, outcome: CallAmiss['outcome'], words: string, time: Duration | null = null): CallAmiss => ({ trouble, outcome, record, words, time }); // prettier-ignore
  if (state === 'given-up')
    return ringing === null
      ? amiss('given-up', 'refused', `Given up by ${who(facts, 'caller')} before it rang.`)
      : amiss('given-up', 'refused', `Given up by ${who(facts, 'caller')}; nobody took it, and it had rung for `, ringing);
  if (isChallenge(status!) || facts.challenges >= ROUNDS)
    return amiss('who-again', 'failed', `${who(facts, 'caller')} had to say ${facts.challenges} times who it is, and was not believed.`);
  if (BUSY.has(status!)) return amiss('busy', 'refused', `${who(facts, 'called')} was busy (${told}).`);
  if (NO_CODEC.has(status!))
    return amiss(
      'no-common-codec',
      'failed',
      `The two could not agree on how to speak (${told}); offered was ${facts.offered.join(', ') || 'nothing'}.`,
    );
  if (TIMED_OUT.has(status!)) return amiss('timed-out', 'failed', `No answer in time (${told}) after `, facts.setUp);
  if (status === 480 && ringing !== null && ringing > 0)
    return amiss('no-answer', 'refused', `${who(facts, 'called')} did not take it (${told}); it had rung for `, ringing);
  if (TURNED_AWAY.has(status!)) return amiss('refused', 'refused', `Refused by ${who(facts, 'called')} (${told}).`);
  if (NOBODY_THERE.has(status!))
    return amiss('refused', 'refused', `Nobody is to be reached as ${facts.called.written || who(facts, 'called')} (${told}).`);
  return amiss('broken', 'failed', `It was not put through: ${told}, after `, facts.setUp);
}
/** Nobody answers, though it was asked again and again (RFC 3261, section 17.1.1.2). */
function waiting({ state, repeated, records, called, tried }: CallFacts): CallAmiss | null {
  if (state === 'ringing') return { trouble: 'timed-out', outcome: 'stalled', record: records.begin, words: 'It rang, and neither an answer nor an end came.', time: null }; // prettier-ignore
  if (state !== 'asked') return null;
  if (tried || repeated.invite === 0) return { trouble: 'timed-out', outcome: 'failed', record: records.begin, words: `${called.name || 'The other side'} was asked, and neither an answer nor an end came.`, time: null }; // prettier-ignore
  return { trouble: 'timed-out', outcome: 'failed', record: records.begin, words: `${called.name || 'The other side'} said nothing, though it was asked ${repeated.invite + 1} times.`, time: null }; // prettier-ignore
}
function ended(facts: CallFacts): CallAmiss | null {
  const { endedAt, endedBy, reason, records, refusedChanges, transfers } = facts;
  if (facts.state !== 'ended' || endedAt === null || records.end === null) return null;
  const by = endedBy === null ? '' : `${who(facts, endedBy)} hung up `;
  const change = refusedChanges.findLast(({ at }) => endedAt - at <= SOON);
  if (change)
    return { trouble: 'dropped-after-change', outcome: 'failed', record: change.record, words: `A change of it was refused by ${who(facts, change.by)} (${change.status} ${change.phrase}); ${by}after `, time: endedAt - change.at }; // prettier-ignore
  const transfer = transfers.findLast(({ at, taken }) => taken === false && endedAt - at <= SOON);
  if (transfer)
    return { trouble: 'dropped-after-transfer', outcome: 'failed', record: transfer.record, words: `It was to be handed on to ${transfer.to}, which failed${transfer.status === null ? '' : ` (${transfer.status})`}; ${by}after `, time: endedAt - transfer.at }; // prettier-ignore
  if (reason?.protocol === 'Q.850' && reason.code !== null && !NORMAL_CAUSES.has(reason.code))
    return { trouble: 'cut', outcome: 'failed', record: records.end, words: `Cut with cause ${reason.code}${reason.text ? ` (${reason.text})` : ''} after talking for `, time: facts.talking }; // prettier-ignore
  return null;
}
/** Whether a call's addresses look as if one side could not be heard. */
export const unreachedBy = (facts: CallFacts): boolean => oneWay(facts)?.byAddress === true;
/** A side that cannot be heard, as far as signalling tells: it takes no media, says not to send any, or names an address that the other cannot reach. */
function oneWay({ state, media, talking, records, holds }: CallFacts): CallAmiss | null {
  if ((state !== 'ended' && state !== 'talking') || talking === 0 || records.answer === null) return null;
  const audio = media.filter(({ media: one }) => one.kind === 'audio');
  const caller = audio.find(({ side }) => side === 'caller')?.media;
  const called = audio.find(({ side }) => side === 'called')?.media;
  if (!caller || !called) return null;
  const amiss = (words: string): CallAmiss => ({ trouble: 'one-way', outcome: 'odd', record: records.answer!, words, time: null });
  for (const [side, own, other] of [
    ['caller', caller, called],
    ['called', called, caller],
  ] as const) {
    if (isPrivate(own.address) && other.address !== '' && !isPrivate(other.address))
      return {
        ...amiss(`One side may hear nothing: the ${side} wants media at ${own.address}, which the other side cannot reach.`),
        byAddress: true,
      };
    if (holds === 0 && (isHeld(own) || own.direction === 'recvonly' || own.port === 0))
      return amiss(`One side may hear nothing: the media of the ${side} is ${own.port === 0 ? 'turned off' : own.direction}, and it was not held.`);
  }
  return null;
}
/** More than once is no chance. */
function sentAgain({ state, repeated, records }: CallFacts): CallAmiss | null {
  if (state === 'asked') return null;
  if (repeated.invite < 2 && repeated.answer < 2) return null;
  const record = repeated.invite >= 2 ? records.begin : (records.answer ?? records.begin);
  const what = repeated.invite >= 2 ? `The INVITE was sent ${repeated.invite + 1} times` : `Its answer was sent ${repeated.answer + 1} times`;
  return { trouble: 'sent-again', outcome: null, record, words: `${what}: messages were lost, or an answer came late.`, time: null };
}
