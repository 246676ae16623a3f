import type { Duration, Microseconds } from '../units.ts';
import { nameOf, numberOf, partyOf, uriOf, type Party } from './address.ts';
import { isHeld, mediaOf, type Media } from './description.ts';
import { header } from './headers.ts';
import { reasonOf, type Reason } from './reason.ts';
import { finalOf, isChallenge, tagOf, transactionsOf, type SeenMessage, type Transaction } from './transactions.ts';
import { handedOn, type HandedOn } from './handed-on.ts';

export type Side = 'caller' | 'called';
/** One side of a call. */
export interface CallSide {
  /** As it is called in lists: the number in E.164, an extension, a name, or `anonymous`. */
  name: string;
  /** As written in the address: the called one as dialled. */
  written: string;
  display: string;
  /** What it says of its device: User-Agent or Server. */
  device: string | null;
}
export type CallState = 'asked' | 'ringing' | 'talking' | 'ended' | 'refused' | 'given-up';

/** What there is to say of a call by its messages. Times in microseconds. */
export interface CallFacts {
  state: CallState;
  caller: CallSide;
  called: CallSide;
  /** Who was reached in the end: a party it was handed on to, or the number that was asked for last. */
  final: string;
  begunAt: Microseconds;
  /** Until something was heard of it: a ring tone, an announcement. */
  postDial: Duration | null;
  ringing: Duration | null;
  /** From the first INVITE until it was taken or turned away. */
  setUp: Duration | null;
  talking: Duration | null;
  endedAt: Microseconds | null;
  /** The final answer to its INVITE. */
  status: number | null;
  phrase: string;
  /** Who turned it away, gave it up or hung up; null where it is not seen. */
  endedBy: Side | null;
  reason: Reason | null;
  /** Names of codecs, and what both can. */
  offered: string[];
  agreed: string[];
  /** The media that either side wants last before the end. */
  media: { side: Side; media: Media }[];
  /** Somebody on the way said that it is tried. */
  tried: boolean;
  /** When its INVITE was sent for the last time. */
  lastAsked: Microseconds;
  /** Messages that were sent again. */
  repeated: { invite: number; answer: number; other: number };
  /** How often somebody had to say who he is. */
  challenges: number;
  holds: number;
  transfers: HandedOn[];
  /** Changes of a call that goes on which were turned away. */
  refusedChanges: { record: number; at: Microseconds; status: number; phrase: string; by: Side }[];
  /** Dialogs of it: several where it passed somebody who calls by himself. */
  callIds: string[];
  /** Indexes of records: what began it, what answered it, what ended it. */
  records: { begin: number; answer: number | null; end: number | null };
}

/**
 * The facts of a call, from its messages in order of time. What several places saw is told as that place saw it which saw it first.
 *
 * @returns null where no request is among them
 */
export function callFacts(messages: readonly SeenMessage[]): CallFacts | null {
  const all = transactionsOf(messages);
  const first = all.find((one) => one.method === 'INVITE' && !one.within && one.request) ?? all.find((one) => one.request);
  if (!first) return null;
  const { place, callId } = first;
  const begin = first.request!;
  const own = all.filter((one) => one.place === place && one.callId === callId);
  const attempts = own.filter((one) => one.method === 'INVITE' && !one.within && sender(one) === sender(first));
  const isBegun = first.method === 'INVITE' && !first.within;
  const last = attempts.findLast((one) => one.request) ?? first;
  const final = isBegun ? finalOf(last) : null;
  const status = final?.message.status ?? null;
  const heard = attempts.flatMap((one) => one.answers).filter(({ message }) => message.status! > 100 && message.status! < 199);
  const answered = final !== null && status! < 300;
  const callerTag = tagOf(begin.message, 'from');
  const sideOf = (seen: SeenMessage): Side => (tagOf(seen.message, 'from') === callerTag ? 'caller' : 'called');
  const goodbye = own.find((one) => one.method === 'BYE' && one.request)?.request ?? null;
  const cancel = own.find((one) => one.method === 'CANCEL' && one.request)?.request ?? null;
  // 487 answers what was cancelled (RFC 3261, section 15.1.2), also where the CANCEL was not seen
  const givenUp = cancel !== null || status === 487;
  const ack = own.find((one) => one.method === 'ACK' && one.number === last.number && one.request)?.request ?? null;
  const confirmed = answered ? (ack?.at ?? final!.at) : null;
  const end = goodbye ?? (answered ? null : (final ?? null));
  const endedBy: Side | null = goodbye ? sideOf(goodbye) : answered || !final ? null : givenUp ? 'caller' : 'called';
  const from = partyOf(header(begin.message.headers, 'from'));
  const to = partyOf(header(begin.message.headers, 'to'));
  const asked = begin.message.uri === null ? null : uriOf(begin.message.uri);
  const changes = own.filter((one) => one.method === 'INVITE' && one.within);
  const talk = { place, callId, sideOf, messages };
  const offers = mediaIn(last, changes, sideOf);
  const transfers = handedOn(all, talk);
  return {
    state: stateOf({ answered, goodbye, givenUp, final, heard: heard.length > 0 }),
    caller: sideText(from, from?.user ?? '', device(own, 'caller', sideOf)),
    called: sideText(asked?.user ? partyLike(asked, to) : to, asked?.user || to?.user || '', device(own, 'called', sideOf)),
    final: transfers.findLast((one) => one.taken)?.to ?? finalNumber(all, asked, to),
    begunAt: begin.at,
    postDial: heard[0] ? heard[0].at - begin.at : null,
    ringing: heard[0] && final ? Math.max(0, final.at - heard[0].at) : null,
    setUp: final ? final.at - begin.at : null,
    talking: confirmed !== null && goodbye ? Math.max(0, goodbye.at - confirmed) : null,
    endedAt: end?.at ?? null,
    status,
    phrase: final?.message.phrase ?? '',
    endedBy,
    reason: reasonOf(goodbye?.message ?? cancel?.message ?? null) ?? reasonOf(final?.message ?? null),
    offered: offers.offered,
    agreed: offers.agreed,
    media: offers.media,
    tried: attempts.some((one) => one.answers.some(({ message }) => message.status! < 200)),
    lastAsked: Math.max(begin.at, ...attempts.flatMap((one) => [one.request?.at ?? begin.at, ...one.repeats.filter(({ message }) => message.method !== null).map(({ at }) => at)])), // prettier-ignore
    repeated: repeatedIn(own),
    challenges: own.reduce((sum, one) => sum + one.answers.filter(({ message }) => isChallenge(message.status!)).length, 0),
    holds: changes.filter((one) => one.request && mediaOf(one.request.message.body).some(isHeld)).length,
    transfers,
    refusedChanges: changes.flatMap((one) => {
      const answer = finalOf(one);
      const code = answer?.message.status ?? 0;
      if (!answer || !one.request || code < 400 || isChallenge(code) || code === 491) return [];
      const by: Side = sideOf(one.request) === 'caller' ? 'called' : 'caller';
      return [{ record: answer.record, at: answer.at, status: code, phrase: answer.message.phrase, by }];
    }),
    callIds: [...new Set(all.filter((one) => one.method === 'INVITE').map((one) => one.callId))],
    records: { begin: begin.record, answer: final?.record ?? null, end: end?.record ?? null },
  };
}

const sender = (one: Transaction): string => one.via.split(';')[0]!;

function stateOf(seen: { answered: boolean; goodbye: unknown; givenUp: boolean; final: unknown; heard: boolean }): CallState {
  // a BYE before it was taken ends no talk (RFC 3261, section 15)
  if (seen.goodbye && (seen.answered || !seen.final)) return 'ended';
  if (seen.answered) return 'talking';
  if (seen.givenUp) return 'given-up';
  if (seen.final) return 'refused';
  return seen.heard ? 'ringing' : 'asked';
}
const partyLike = (asked: { scheme: string; user: string; host: string }, to: Party | null): Party => ({
  ...asked,
  display: to?.display ?? '',
  uri: `${asked.scheme}:${asked.user}`,
  tag: null,
});
function sideText(party: Party | null, written: string, device: string | null): CallSide {
  return { name: party ? nameOf(party) : '', written, display: party?.display ?? '', device };
}
/** What a side says of itself: callers in requests, the called in answers. */
function device(own: readonly Transaction[], side: Side, sideOf: (seen: SeenMessage) => Side): string | null {
  for (const one of own) {
    const asking = one.request && sideOf(one.request);
    const said = asking === side ? [one.request!] : asking === null ? [] : one.answers.filter(({ message }) => message.status! > 100);
    for (const { message } of said) {
      const name = header(message.headers, 'user-agent') ?? header(message.headers, 'server');
      if (name) return name.slice(0, 120);
    }
  }
  return null;
}
/** The number that was asked for by the last INVITE that was taken, whoever sent it. */
function finalNumber(all: readonly Transaction[], asked: { user: string } | null, to: Party | null): string {
  const taken = all.filter((one) => one.method === 'INVITE' && !one.within && (finalOf(one)?.message.status ?? 999) < 300 && one.request);
  const user = uriOf(taken.at(-1)?.request?.message.uri ?? '')?.user || asked?.user || to?.user || '';
  return numberOf(user) ?? user;
}

function mediaIn(
  begun: Transaction,
  changes: readonly Transaction[],
  sideOf: (seen: SeenMessage) => Side,
): Pick<CallFacts, 'offered' | 'agreed' | 'media'> {
  const rounds = [begun, ...changes].map((one) => {
    const taken = one.answers.findLast(({ message }) => message.status! < 300 && mediaOf(message.body).length > 0);
    const asked = one.request ? mediaOf(one.request.message.body) : [];
    return { asked, answer: taken ? mediaOf(taken.message.body) : [], by: one.request ? sideOf(one.request) : ('caller' as Side), refused: (finalOf(one)?.message.status ?? 0) >= 300 }; // prettier-ignore
  });
  const offered = [...new Set(rounds.flatMap(({ asked }) => asked.flatMap((one) => one.codecs)))];
  const settled = rounds.findLast(({ asked, answer, refused }) => !refused && asked.length > 0 && answer.length > 0);
  if (!settled) return { offered, agreed: [], media: rounds[0]!.asked.map((media) => ({ side: rounds[0]!.by, media })) };
  const other: Side = settled.by === 'caller' ? 'called' : 'caller';
  const wanted = new Set(settled.asked.flatMap((one) => one.codecs));
  return {
    offered,
    agreed: [...new Set(settled.answer.flatMap((one) => (one.port > 0 ? one.codecs : [])))].filter((name) => wanted.has(name)),
    media: [...settled.asked.map((media) => ({ side: settled.by, media })), ...settled.answer.map((media) => ({ side: other, media }))],
  };
}
function repeatedIn(own: readonly Transaction[]): CallFacts['repeated'] {
  const repeated = { invite: 0, answer: 0, other: 0 };
  for (const one of own) {
    if (one.method === 'INVITE') {
      repeated.invite += one.repeatedRequests;
      repeated.answer += one.repeats.filter(({ message }) => (message.status ?? 0) >= 200).length;
      repeated.other += one.repeats.filter(({ message }) => message.status !== null && message.status < 200).length;
    } else repeated.other += one.repeatedRequests + one.repeatedAnswers;
  }
  return repeated;
}
