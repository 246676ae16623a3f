import type { Microseconds } from '../units.ts';
import { partyOf } from './address.ts';
import { header } from './headers.ts';
import { callIdOf, sequenceOf, topVia, type SipMessage } from './message.ts';

/** A message as it was seen somewhere. */
export interface SeenMessage {
  /** Index of its record. */
  record: number;
  at: Microseconds;
  /** Where it was seen: traces of several places tell the same message each. */
  place: string;
  message: SipMessage;
}

/** A request and its answers, as one place saw them (RFC 3261, section 17). */
export interface Transaction {
  place: string;
  callId: string;
  method: string;
  number: number;
  /** Topmost Via of the request: who sent it, and for which branch. */
  via: string;
  request: SeenMessage | null;
  /** In order of time, repeated ones left out. */
  answers: SeenMessage[];
  /** Messages that were seen before, word for word: how often. */
  repeatedRequests: number;
  repeatedAnswers: number;
  /** Where and when it was repeated. */
  repeats: SeenMessage[];
  /** Inside a dialog: the request names both sides. */
  within: boolean;
}

export const tagOf = (message: SipMessage, side: 'from' | 'to'): string | null => partyOf(header(message.headers, side))?.tag ?? null;

/** The transactions of messages in order of time. An ACK is one by itself. */
export function transactionsOf(messages: readonly SeenMessage[]): Transaction[] {
  const all: Transaction[] = [];
  const byVia = new Map<string, Transaction>();
  const latest = new Map<string, Transaction>();
  for (const seen of messages) {
    const { message, place } = seen;
    const sequence = sequenceOf(message);
    if (!sequence) continue;
    const callId = callIdOf(message);
    const about = `${place}\n${callId}\n${sequence.number} ${sequence.method}`;
    const via = topVia(message);
    let own = byVia.get(`${about}\n${via}`);
    // an answer whose request names another hop, or was not seen: the latest of its number
    if (!own && message.method === null) own = latest.get(about);
    if (!own) {
      own = { place, callId, method: sequence.method, number: sequence.number, via, request: null, answers: [], repeatedRequests: 0, repeatedAnswers: 0, repeats: [], within: tagOf(message, 'to') !== null }; // prettier-ignore
      all.push(own);
      byVia.set(`${about}\n${via}`, own);
      latest.set(about, own);
    }
    if (message.method !== null) {
      if (own.request) {
        own.repeatedRequests++;
        own.repeats.push(seen);
      } else own.request = seen;
      own.within = tagOf(message, 'to') !== null;
    } else if (own.answers.some((one) => isSame(one.message, message))) {
      own.repeatedAnswers++;
      own.repeats.push(seen);
    } else own.answers.push(seen);
  }
  return all;
}
const isSame = (one: SipMessage, other: SipMessage): boolean =>
  one.status === other.status && one.phrase === other.phrase && tagOf(one, 'to') === tagOf(other, 'to') && topVia(one) === topVia(other);

/** The final answer: what was taken, else the last that is no provisional one. */
export function finalOf({ answers }: Transaction): SeenMessage | null {
  const final = answers.filter(({ message }) => message.status! >= 200);
  return final.find(({ message }) => message.status! < 300) ?? final.at(-1) ?? null;
}
/** Somebody is asked who he is: no answer to what was asked (RFC 3261, section 22). */
export const isChallenge = (status: number): boolean => status === 401 || status === 407;
