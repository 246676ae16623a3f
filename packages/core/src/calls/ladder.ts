import type { Duration, Microseconds } from '../units.ts';
import { nameOf, partyOf } from './address.ts';
import { mediaOf } from './description.ts';
import { header } from './headers.ts';
import { callIdOf, sequenceOf, topVia, type SipMessage } from './message.ts';
import { tagOf, transactionsOf, type SeenMessage } from './transactions.ts';

/** A message as a trace tells it: which way it went as seen from there, and the far end where it is named. */
export interface TracedMessage extends SeenMessage {
  direction: 'in' | 'out' | 'unknown';
  peer: string | null;
  /** Component and host of the place. */
  component: string;
  host: string;
}
/** A lane of the ladder. */
export interface LadderParty {
  /** What it is called, and where it is: an address, a host. */
  label: string;
  detail: string;
}
export interface LadderMessage {
  /** Indexes of its records: as it was sent, as it came in, where both were seen. */
  records: number[];
  at: Microseconds;
  /** How much later it came in, where both ends were seen; of two clocks. */
  under: Duration | null;
  /** Lanes. */
  from: number;
  to: number;
  /** `INVITE`, `180 Ringing`. */
  label: string;
  /** Of its request. */
  method: string;
  number: number;
  status: number | null;
  /** Place of its dialog among `callIds`. */
  dialog: number;
  again: boolean;
  /** What it says of media, '' for nothing. */
  media: string;
}
export interface Ladder {
  parties: LadderParty[];
  messages: LadderMessage[];
  callIds: string[];
}

/** Two places tell of one message where they did so within this time, in microseconds. */
const TOGETHER = 10_000_000;

/** Who is who: ends of hops that are one. */
class Ends {
  private readonly up = new Map<string, string>();
  of(end: string): string {
    let top = end;
    for (let next = this.up.get(top); next !== undefined; next = this.up.get(top)) top = next;
    return top;
  }
  join(one: string, other: string): void {
    const [a, b] = [this.of(one), this.of(other)];
    if (a !== b) this.up.set(b, a);
  }
}

/**
 * Lays messages of a call out between those who sent them. A message that two places saw, out of one and into the other, is one arrow, and the two places
 * are the two ends.
 *
 * @param messages in order of time
 */
export function ladderOf(messages: readonly TracedMessage[]): Ladder {
  const repeated = new Set(transactionsOf(messages).flatMap(({ repeats }) => repeats.map(({ record }) => record)));
  const hops = hopsOf(messages);
  const ends = new Ends();
  const pairs = paired(messages);
  for (const [out, into] of pairs) {
    ends.join(hops[out]!.from, hops[into]!.from);
    ends.join(hops[out]!.to, hops[into]!.to);
  }
  const arrived = new Map(pairs);
  const folded = new Set(pairs.map(([, into]) => into));
  const lanes = new Map<string, number>();
  const lane = (end: string): number => {
    const top = ends.of(end);
    if (!lanes.has(top)) lanes.set(top, lanes.size);
    return lanes.get(top)!;
  };
  const callIds: string[] = [];
  const laid: LadderMessage[] = [];
  messages.forEach((seen, i) => {
    const sequence = sequenceOf(seen.message);
    if (folded.has(i) || !sequence) return;
    const { message } = seen;
    const callId = callIdOf(message);
    if (!callIds.includes(callId)) callIds.push(callId);
    const into = arrived.get(i);
    laid.push({
      records: into === undefined ? [seen.record] : [seen.record, messages[into]!.record],
      at: seen.at,
      under: into === undefined ? null : messages[into]!.at - seen.at,
      from: lane(hops[i]!.from),
      to: lane(hops[i]!.to),
      label: message.method ?? `${message.status} ${message.phrase}`.trim(),
      method: sequence.method,
      number: sequence.number,
      status: message.status,
      dialog: callIds.indexOf(callId),
      again: repeated.has(seen.record),
      media: mediaWords(message),
    });
  });
  return { parties: [...lanes.keys()].map((top) => partyOfLane(top, messages, hops, ends)), messages: laid, callIds };
}

interface HopEnds {
  from: string;
  to: string;
}
const hereOf = ({ host, component }: TracedMessage): string => `here\n${host}\n${component}`;
const there = (address: string): string => `there\n${address}`;

/** Ends of each message: the place, and the far end by its address; an answer goes back the way its request came. */
function hopsOf(messages: readonly TracedMessage[]): HopEnds[] {
  const requests = new Map<string, HopEnds>();
  return messages.map((seen) => {
    const { message, place } = seen;
    const sequence = sequenceOf(message);
    const about = `${place}\n${callIdOf(message)}\n${sequence?.number} ${sequence?.method}`;
    const way = `${about}\n${topVia(message)}`;
    const asked = message.method === null ? (requests.get(way) ?? requests.get(about)) : undefined;
    const here = hereOf(seen);
    const direction =
      seen.direction !== 'unknown' ? seen.direction : asked ? (asked.from === here ? 'in' : 'out') : message.method === null ? 'in' : 'out';
    const known = asked && (direction === 'in') === (asked.from === here) ? (asked.from === here ? asked.to : asked.from) : null;
    const far = seen.peer !== null ? there(seen.peer) : (known ?? there(farEnd(message, direction)));
    const ends = direction === 'in' ? { from: far, to: here } : { from: here, to: far };
    if (message.method !== null) for (const key of [way, about]) if (!requests.has(key) || key === about) requests.set(key, ends);
    return ends;
  });
}
/** Where nothing else tells: who sent a request by its Via, whom it goes to by its address. */
function farEnd(message: SipMessage, direction: 'in' | 'out'): string {
  if (message.method !== null && direction === 'in') return /^SIP\/2\.0\/\w+\s+([^;\s]+)/.exec(topVia(message))?.[1] ?? 'the other side';
  if (message.method !== null) return /@?([^@;?:\s]+(?::\d+)?)(?:[;?].*)?$/.exec(message.uri ?? '')?.[1] ?? 'the other side';
  return 'the other side';
}

/** Messages that one place sent and another took: indexes of both. */
function paired(messages: readonly TracedMessage[]): [number, number][] {
  const waiting = new Map<string, number[]>();
  const pairs: [number, number][] = [];
  const keyOf = ({ message }: TracedMessage): string => {
    const sequence = sequenceOf(message);
    return [callIdOf(message), sequence?.number, sequence?.method, topVia(message), message.method ?? message.status, message.phrase, tagOf(message, 'to')].join('\n'); // prettier-ignore
  };
  messages.forEach((seen, i) => {
    const key = keyOf(seen);
    const open = waiting.get(key) ?? [];
    const match = open.findIndex((other) => {
      const one = messages[other]!;
      return one.place !== seen.place && one.direction !== seen.direction && Math.abs(one.at - seen.at) <= TOGETHER;
    });
    if (match < 0) return void waiting.set(key, [...open, i]);
    const [other] = open.splice(match, 1);
    pairs.push(messages[other!]!.direction === 'in' ? [i, other!] : [other!, i]);
  });
  return pairs;
}

/** By what it says of itself: the number that it calls from or is called by, its device, its address. */
function partyOfLane(top: string, messages: readonly TracedMessage[], hops: readonly HopEnds[], ends: Ends): LadderParty {
  const own = new Set<string>();
  for (const { from, to } of hops) for (const end of [from, to]) if (ends.of(end) === top) own.add(end);
  const place = [...own].find((end) => end.startsWith('here\n'));
  const addresses = [...own].filter((end) => end.startsWith('there\n')).map((end) => end.slice(6));
  if (place) {
    const [, host, component] = place.split('\n');
    return { label: component || host!, detail: component ? host! : addresses[0]! };
  }
  const said = messages.findIndex((seen, i) => own.has(hops[i]!.from) && seen.message.method === 'INVITE');
  const heard = messages.findIndex((seen, i) => own.has(hops[i]!.to) && seen.message.method === 'INVITE');
  const named = said >= 0 ? messages[said]!.message.headers.get('from') : heard >= 0 ? messages[heard]!.message.headers.get('to') : null;
  const party = partyOf(named?.[0] ?? null);
  return { label: party ? nameOf(party) : addresses[0]!, detail: party ? addresses[0]! : '' };
}

function mediaWords({ headers, body }: SipMessage): string {
  if (!/sdp|multipart/i.test(header(headers, 'content-type') ?? '') && !/^v=0/m.test(body)) return '';
  return mediaOf(body)
    .map(({ kind, codecs, direction, address, port }) => {
      const way = direction === 'sendrecv' ? '' : `, ${direction}`;
      return `${kind} ${codecs.join(', ')}${way} at ${address}:${port}`;
    })
    .join('; ');
}
