import type { Microseconds } from '../units.ts';
import { nameOf, partyOf } from './address.ts';
import { header } from './headers.ts';
import type { Side } from './facts.ts';
import { finalOf, type SeenMessage, type Transaction } from './transactions.ts';

/** A call that somebody hands on to somebody else: REFER (RFC 3515), or a call that takes the place of another (Replaces, RFC 3891). */
export interface HandedOn {
  record: number;
  at: Microseconds;
  by: Side;
  to: string;
  /** Whoever was asked to call took it on; null where nothing tells. */
  taken: boolean | null;
  /** How the new call went, by the report that follows (RFC 3515, section 2.4.5). */
  status: number | null;
}

interface Talk {
  place: string;
  callId: string;
  sideOf(seen: SeenMessage): Side;
  messages: readonly SeenMessage[];
}

/** In order of time. */
export function handedOn(all: readonly Transaction[], { place, callId, sideOf, messages }: Talk): HandedOn[] {
  const handed: HandedOn[] = [];
  for (const one of all) {
    const { request } = one;
    if (!request || one.place !== place) continue;
    if (one.method === 'REFER' && one.callId === callId) {
      const to = partyOf(header(request.message.headers, 'refer-to'));
      const answer = finalOf(one)?.message.status ?? null;
      const reported = messages.flatMap(({ message, at, place: where }) => (where === place && at >= request.at && message.method === 'NOTIFY' ? (/^SIP\/2\.0 (\d{3})/.exec(message.body.trim())?.[1] ?? []) : [])); // prettier-ignore
      const status = reported.length > 0 ? Number(reported.at(-1)) : null;
      const taken = status !== null && status >= 200 ? status < 300 : answer === null ? null : answer < 300 ? null : false;
      handed.push({ record: request.record, at: request.at, by: sideOf(request), to: to ? nameOf(to) : '', taken, status: status ?? (answer !== null && answer >= 300 ? answer : null) }); // prettier-ignore
    } else if (one.method === 'INVITE' && !one.within && (header(request.message.headers, 'replaces') ?? '').startsWith(callId)) {
      const from = partyOf(header(request.message.headers, 'from'));
      const status = finalOf(one)?.message.status ?? null;
      handed.push({ record: request.record, at: request.at, by: 'called', to: from ? nameOf(from) : '', taken: status === null ? null : status < 300, status }); // prettier-ignore
    }
  }
  return handed;
}
