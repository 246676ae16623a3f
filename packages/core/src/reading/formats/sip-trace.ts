import type { Draft, Reader, RecordReader, ReadingContext, Sample } from './shared.ts';
import { learnLayout, text, TextReader } from './text.ts';

const START = /^[ \t]*(?:(?:([A-Z]{3,12}) (sips?:[^\s]+|tel:[^\s]+) SIP\/2\.0)|(?:SIP\/2\.0 (\d{3}) ?(.*)))$/m;
/** Compact header names of RFC 3261, section 7.3.3. */
const COMPACT: Record<string, string> = {
  i: 'call-id',
  f: 'from',
  t: 'to',
  m: 'contact',
  v: 'via',
  l: 'content-length',
  c: 'content-type',
  s: 'subject',
};
const KEPT = new Set(['call-id', 'from', 'to', 'cseq', 'user-agent', 'reason', 'warning', 'contact', 'via', 'refer-to']);

/** SIP messages as text (RFC 3261), each under a line with its time and direction. */
export const sipTrace: Reader = {
  format: 'sip-trace',
  confidence(sample) {
    const starts = sample.lines.filter((line) => START.test(line)).length;
    if (starts === 0) return 0;
    const heads = sample.lines.filter((line) => /^[ \t]*(call-id|i)\s*:/i.test(line)).length;
    return learnLayout(sample, { zone: 'UTC', modified: 0 }) && heads >= starts * 0.5 ? 0.97 : 0;
  },
  open: (sample, context) => new SipTraceReader(sample, context),
  lacksDay: (sample) => text.lacksDay!(sample),
};

class SipTraceReader extends TextReader implements RecordReader {
  constructor(sample: Sample, context: ReadingContext) {
    super(context, learnLayout(sample, context));
  }

  override read(record: string, draft: Draft): void {
    super.read(record, draft);
    if (!draft.understood) return;
    const start = START.exec(record);
    if (!start) return;
    const framing = draft.message.slice(0, Math.max(0, draft.message.indexOf('\n')));
    const fields: Draft['fields'] = { direction: directionOf(framing) };
    const addresses = framing.match(/(?:\d{1,3}\.){3}\d{1,3}(?::\d+)?|\[(?=[^\]]*:[^\]]*:)[0-9a-f:.]+\](?::\d+)?/gi) ?? [];
    // of “from -> to” the far end is the first where the message came in, the last where it went out
    const peer = fields.direction === 'out' ? addresses[addresses.length - 1] : addresses[0];
    if (peer) fields.peer = peer;
    // messages are set in under their head by some
    const indent = /^[ \t]*/.exec(start[0])![0];
    const body = indent === '' ? record.slice(start.index) : record.slice(start.index).replaceAll(new RegExp(`^${indent}`, 'gm'), '');
    readHeaders(body, fields);
    if (start[1]) {
      fields.method = start[1];
      fields.uri = start[2]!;
    } else {
      fields.status = Number(start[3]);
      fields.reason_phrase = start[4]!.trim();
    }
    if (outsideCalls(fields)) {
      fields.dialog = fields['call-id'] ?? '';
      delete fields['call-id'];
    }
    draft.fields = fields;
    draft.level = levelOfSip(fields);
    draft.message = body.replace(/\r/g, '');
    draft.took = NaN;
  }
}

export function directionOf(framing: string): string {
  if (/\b(?:recv|received|rx|from|in|incoming)\b|<-|<=/i.test(framing)) return 'in';
  return /\b(?:sent|send|tx|to|out|outgoing)\b|->|=>/i.test(framing) ? 'out' : 'unknown';
}

function readHeaders(message: string, fields: Draft['fields']): void {
  let name = '';
  for (const line of message.split(/\r?\n/).slice(1)) {
    if (line === '') return;
    if ((line[0] === ' ' || line[0] === '\t') && name !== '' && fields[name] !== undefined) {
      fields[name] = `${String(fields[name])} ${line.trim()}`;
      continue;
    }
    const colon = line.indexOf(':');
    if (colon < 1) continue;
    const given = line.slice(0, colon).trim().toLowerCase();
    name = COMPACT[given] ?? given;
    if (KEPT.has(name) && fields[name] === undefined) fields[name] = line.slice(colon + 1).trim();
    else if (!KEPT.has(name)) name = '';
  }
}

/** Registrations, presence, pings and texts bear a Call-ID too, yet belong to a call only inside its dialog (RFC 3261, section 12). */
function outsideCalls(fields: Draft['fields']): boolean {
  const method = /[A-Z]+$/.exec(String(fields.cseq ?? ''))?.[0] ?? '';
  if (!/^(?:REGISTER|OPTIONS|PUBLISH|MESSAGE|SUBSCRIBE|NOTIFY)$/.test(method)) return false;
  if (fields.status !== undefined) return method !== 'NOTIFY';
  return !/;\s*tag=/i.test(String(fields.to ?? ''));
}

/** Challenges (401, 407) and answers to a cancel (487) are part of normal working (RFC 3261, sections 22 and 9). */
function levelOfSip(fields: Draft['fields']): Draft['level'] {
  const status = Number(fields.status ?? 0);
  if (status === 401 || status === 407 || status === 487) return 3;
  return status >= 500 ? 5 : status >= 400 ? 4 : 3;
}
