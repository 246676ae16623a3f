import type { Duration, Microseconds } from '../units.ts';
import { callFacts } from './facts.ts';
import { header, splitList } from './headers.ts';
import { callIdOf } from './message.ts';
import type { SeenMessage } from './transactions.ts';

/** A dialog that an INVITE began, as much of it as is needed to tell of which call it is. */
export interface Dialog {
  callId: string;
  at: Microseconds;
  /** Its last message. */
  until: Microseconds;
  /** Where it was seen. */
  places: string[];
  /** Who sent its INVITE first, by the last Via: an address, '' where none tells. */
  sender: string;
  caller: string;
  called: string;
  /** Null while nobody has answered. */
  status: number | null;
  /** Between the first sign of it and its answer. */
  ringing: Duration | null;
  talking: Duration | null;
  /** Session identifiers (RFC 7989): the same on both sides of whoever stands between. */
  sessions: string[];
  /** What may be the Call-ID of another one: Replaces (RFC 3891), Target-Dialog (RFC 4538), and headers that no standard knows. */
  names: string[];
}

const NOBODY = /^0+$/;
const MOST_NAMES = 12;
/** Headers that name another dialog, or are a program's own. */
const NAMING = /^(?:replaces|target-dialog|join|x-.*|p-.*)$/;

/** Each dialog of a strand, with the index of the record that began it. */
export function dialogsOf(messages: readonly SeenMessage[]): (Dialog & { record: number })[] {
  const byId = new Map<string, SeenMessage[]>();
  for (const seen of messages) {
    const id = callIdOf(seen.message);
    const own = byId.get(id);
    if (own) own.push(seen);
    else byId.set(id, [seen]);
  }
  const dialogs: (Dialog & { record: number })[] = [];
  for (const [callId, own] of byId) {
    if (!own.some(({ message }) => message.method === 'INVITE')) continue;
    const facts = callFacts(own);
    if (!facts) continue;
    dialogs.push({
      callId,
      record: facts.records.begin,
      at: facts.begunAt,
      until: own[own.length - 1]!.at,
      places: [...new Set(own.map(({ place }) => place))],
      sender: senderOf(own),
      caller: facts.caller.name,
      called: facts.called.name,
      status: facts.status,
      ringing: facts.ringing,
      talking: facts.talking,
      sessions: sessionsIn(own),
      names: namesIn(own, callId),
    });
  }
  return dialogs;
}

function senderOf(own: readonly SeenMessage[]): string {
  const begin = own.find(({ message }) => message.method === 'INVITE')!;
  const vias = (begin.message.headers.get('via') ?? []).flatMap((value) => splitList(value));
  return /^SIP\s*\/\s*2\.0\s*\/\s*\w+\s+([^;\s]+)/i.exec(vias.at(-1) ?? '')?.[1]?.toLowerCase() ?? '';
}
function sessionsIn(own: readonly SeenMessage[]): string[] {
  const found = new Set<string>();
  for (const { message } of own)
    for (const [id] of (header(message.headers, 'session-id') ?? '').toLowerCase().matchAll(/(?<![0-9a-f])[0-9a-f]{32}(?![0-9a-f])/g))
      if (!NOBODY.test(id)) found.add(id);
  return [...found].slice(0, MOST_NAMES);
}
function namesIn(own: readonly SeenMessage[], callId: string): string[] {
  const found = new Set<string>();
  for (const { message } of own)
    for (const [name, values] of message.headers) {
      if (found.size >= MOST_NAMES) return [...found];
      if (name === 'refer-to') for (const value of values) note(found, replacedIn(value), callId);
      else if (NAMING.test(name)) for (const token of values.join(' ').split(/[\s;,=<>"]+/)) note(found, token, callId);
    }
  return [...found].slice(0, MOST_NAMES);
}
function note(found: Set<string>, token: string, callId: string): void {
  if (token.length >= 6 && token.length <= 200 && token !== callId) found.add(token);
}
/** Of an address to which a call is handed on: the dialog that it is to take the place of. */
function replacedIn(value: string): string {
  const hit = /[?&]Replaces=([^&>;]*)/i.exec(value);
  if (!hit) return '';
  try {
    return decodeURIComponent(hit[1]!).split(';')[0]!;
  } catch {
    return ''; // escaped otherwise than a URI is: it names none
  }
}
