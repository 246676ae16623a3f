import { HTTP } from './http.ts';
import { Q850, SIP } from './sip.ts';
import { SQLSTATE } from './sqlstate.ts';
import { ERRNO, ERRNO_NUMBERS, EXCEPTION, EXIT, FACILITY, GRPC, SEVERITY, SIGNAL, SIGNAL_NUMBERS, TLS } from './system-codes.ts';
import type { CodeSystem, Explanation, FoundCode, OwnCode } from './types.ts';

/** So much of a message is looked through. */
const LOOKED_THROUGH = 20_000;
/** Codes that are told of one record. */
const MOST = 12;

const plainName = (field: string): string => field.slice(field.lastIndexOf('.') + 1).toLowerCase().replace(/[_-]/g, ''); // prettier-ignore
const STATUS = new Set(['status', 'statuscode', 'httpstatus', 'scstatus', 'responsecode', 'code']);
const SQL = new Set(['sqlstate', 'sqlstatecode', 'errorcode', 'sqlcode']);
const EXIT_FIELDS = new Set(['exitcode', 'exitstatus', 'returncode', 'rc']);

/**
 * Codes in a record, those in its fields first, each once: what they mean, what usually brings them about, where to look next.
 *
 * @param own entries of one's own; where one names a component it counts for its records alone. They come before the supplied ones.
 */
export function codesIn(
  record: { message: string; fields: Readonly<Record<string, unknown>>; component: string },
  own: readonly OwnCode[] = [],
): FoundCode[] {
  const found = new Map<string, FoundCode>();
  const add = (system: CodeSystem, code: string, field: string, explanation: Explanation | undefined): void => {
    if (explanation && !found.has(`${system} ${code}`) && found.size < MOST) found.set(`${system} ${code}`, { system, code, field, ...explanation });
  };
  const text = record.message.slice(0, LOOKED_THROUGH);
  ownCodes(record, text, own, add);
  inFields(record.fields, text, add);
  inText(text, add);
  return [...found.values()];
}
type Add = (system: CodeSystem, code: string, field: string, explanation: Explanation | undefined) => void;

function ownCodes(
  { fields, component }: { fields: Readonly<Record<string, unknown>>; component: string },
  text: string,
  own: readonly OwnCode[],
  add: Add,
): void {
  for (const { component: of, code, title, means, causes, next } of own) {
    if (of !== null && of !== component) continue;
    // an entry is kept with more than it explains
    const explanation = { title, means, causes, next };
    const field = Object.keys(fields).find((name) => String(fields[name]) === code);
    if (field !== undefined) add('own', code, field, explanation);
    else if (standsIn(text, code)) add('own', code, '', explanation);
  }
}
const WORD = /[\p{L}\p{N}_]/u;
/** Whether a code stands in a text, and is not a part of another word. */
function standsIn(text: string, code: string): boolean {
  for (let at = text.indexOf(code); at >= 0; at = text.indexOf(code, at + 1))
    if (!WORD.test(text[at - 1] ?? ' ') && !WORD.test(text[at + code.length] ?? ' ')) return true;
  return false;
}

function inFields(fields: Readonly<Record<string, unknown>>, text: string, add: Add): void {
  const isCall = 'cseq' in fields || 'call-id' in fields || /\bSIP\/2\.0\b/.test(text);
  for (const field in fields) {
    const value = String(fields[field]);
    const name = plainName(field);
    if (SQL.has(name)) add('sqlstate', value, field, SQLSTATE.get(value));
    if (STATUS.has(name) && /^[1-6]\d\d$/.test(value)) {
      if (isCall) add('sip', value, field, SIP.get(value));
      else add('http', value, field, HTTP.get(value));
    }
    if (EXIT_FIELDS.has(name)) add('exit', value, field, EXIT.get(value));
    if (name === 'signal') addSignal(value, field, add);
    if (name === 'grpcstatus' || name === 'grpccode') add('grpc', value.toUpperCase(), field, GRPC.get(value.toUpperCase()));
    if (name === 'severity') add('severity', value, field, SEVERITY.get(value));
    if (name === 'facility') add('facility', value, field, FACILITY.get(value));
    if (name === 'reason' && isCall) addCause(value, field, add);
    if (name === 'errno' || name === 'error') addErrno(value, field, add);
  }
}
const addSignal = (value: string, field: string, add: Add): void => {
  const name = SIGNAL.has(value) ? value : SIGNAL_NUMBERS.get(value);
  if (name !== undefined) add('signal', name, field, SIGNAL.get(name));
};
const addErrno = (value: string, field: string, add: Add): void => {
  const name = ERRNO.has(value) ? value : ERRNO_NUMBERS.get(value);
  if (name !== undefined) add('errno', name, field, ERRNO.get(name));
};
const addCause = (value: string, field: string, add: Add): void => {
  const cause = /\bcause=(\d{1,3})\b/.exec(value)?.[1];
  if (cause !== undefined) add('q850', cause, field, Q850.get(cause));
};

function inText(text: string, add: Add): void {
  for (const [, code] of text.matchAll(/\bSIP\/2\.0 (\d{3})\b/g)) add('sip', code!, '', SIP.get(code!));
  for (const [, code] of text.matchAll(/\b(?:HTTP\/\d(?:\.\d)?|HTTP(?: status)?(?: code)?|status(?: code)?)[ =:]+([1-5]\d\d)\b/gi))
    add('http', code!, '', HTTP.get(code!));
  for (const [, code] of text.matchAll(/\bSQL ?STATE[^0-9A-Z]{0,4}([0-9A-Z]{5})\b/gi)) add('sqlstate', code!, '', SQLSTATE.get(code!));
  for (const [name] of text.matchAll(/\bE[A-Z]{3,14}\b/g)) add('errno', name, '', ERRNO.get(name));
  for (const [, number] of text.matchAll(/\berrno[ =:]+(\d{1,3})\b/gi)) addErrno(number!, '', add);
  for (const [name] of text.matchAll(/\bSIG[A-Z]{2,6}\b/g)) add('signal', name, '', SIGNAL.get(name));
  for (const [, number] of text.matchAll(/\bsignal[ =:]+(\d{1,2})\b/gi)) addSignal(number!, '', add);
  for (const [, code] of text.matchAll(/\b(?:exit(?:ed)?(?: with)?(?: code| status)?|return code)[ =:]+(\d{1,3})\b/gi))
    add('exit', code!, '', EXIT.get(code!));
  if (/grpc|\brpc\b/i.test(text)) for (const [name] of text.matchAll(/\b[A-Z][A-Z_]{5,20}\b/g)) add('grpc', name, '', GRPC.get(name));
  if (/\b(?:tls|ssl)\b|certificate/i.test(text))
    for (const [name] of text.toLowerCase().matchAll(/\b[a-z]+(?:[_ ][a-z]+){1,2}\b/g))
      add('tls', name.replaceAll(' ', '_'), '', TLS.get(name.replaceAll(' ', '_')));
  for (const [cause] of text.matchAll(/\bReason:[^\n]*Q\.850[^\n]*/gi)) addCause(cause, '', add);
  for (const [name] of text.matchAll(/\b[A-Z][A-Za-z]{4,60}(?:Exception|Error)\b/g)) add('exception', name, '', EXCEPTION.get(name));
}

const SYSTEM_WORDS: Record<CodeSystem, string> = {
  http: 'HTTP',
  sip: 'SIP',
  sqlstate: 'SQLSTATE',
  errno: 'errno',
  signal: 'signal',
  exit: 'exit code',
  severity: 'syslog severity',
  facility: 'syslog facility',
  tls: 'TLS alert',
  grpc: 'gRPC',
  q850: 'Q.850 cause',
  exception: 'exception',
  own: 'own',
};
/** What kind of code it is, in a word. */
export const systemWord = (system: CodeSystem): string => SYSTEM_WORDS[system];
