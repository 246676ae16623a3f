import { header, headerName, splitList, type Headers } from './headers.ts';

/** A message of SIP (RFC 3261, section 7): a request with method and address, or an answer with a status. */
export interface SipMessage {
  method: string | null;
  uri: string | null;
  /** 100 to 699; null for a request. */
  status: number | null;
  phrase: string;
  /** Version as written, `2.0`. */
  version: string;
  headers: Headers;
  body: string;
}

const REQUEST = /^([A-Za-z0-9\-.!%*_+`'~]{1,32}) (.{1,2000}) SIP\/(\d{1,3}\.\d{1,3})\s*$/;
const RESPONSE = /^SIP\/(\d{1,3}\.\d{1,3}) (\d{1,10})(?: (.*))?$/;
/** Lines before the first one of a message that are passed over: what stood in front of it in a log. */
const PASSED_OVER = 6;
/** More headers are not read. */
const MOST_HEADERS = 300;

const BEGINS = /^(?:SIP\/2\.0 \d{3}(?:[ \r\n]|$)|[A-Z]{3,12} [a-z]{2,5}:[^\n]{1,2000} SIP\/2\.0[ \t]*(?:\r?\n|$))/;
/** Whether a record's message is one of SIP, by its first line. */
export const beginsSip = (text: string): boolean => BEGINS.test(text);

/**
 * Reads a message as RFC 3261 writes it, folded headers, compact names and blanks before colons included. What breaks the rules is read as far as it goes;
 * `refusals` tells why it would be refused.
 *
 * @returns null where no line of the first few is that of a request or an answer
 */
export function sipMessage(text: string): SipMessage | null {
  const end = /\r?\n[ \t]*\r?\n/.exec(text.replace(/^(?:[ \t]*\r?\n)+/, (blank) => ' '.repeat(blank.length)));
  const head = (end ? text.slice(0, end.index) : text).split(/\r?\n/);
  const body = end ? text.slice(end.index + end[0].length) : '';
  const at = head.slice(0, PASSED_OVER).findIndex((line) => REQUEST.test(line.trim()) || RESPONSE.test(line.trim()));
  if (at < 0) return null;
  const start = head[at]!.trim();
  const headers: Headers = new Map();
  let last: string[] | null = null;
  for (const line of head.slice(at + 1, at + 1 + MOST_HEADERS)) {
    if (/^[ \t]/.test(line)) {
      if (last) last[last.length - 1] = `${last[last.length - 1]!} ${line.trim()}`.trim();
      continue;
    }
    const colon = line.indexOf(':');
    if (colon < 1) continue;
    const name = headerName(line.slice(0, colon));
    last = headers.get(name) ?? [];
    last.push(line.slice(colon + 1).trim());
    headers.set(name, last);
  }
  const answer = RESPONSE.exec(start);
  const request = answer ? null : REQUEST.exec(start);
  return {
    method: request?.[1] ?? null,
    uri: request?.[2] ?? null,
    status: answer ? Number(answer[2]) : null,
    phrase: answer?.[3]?.trim() ?? '',
    version: (answer?.[1] ?? request?.[3])!,
    headers,
    body: bodyOf(body, headers),
  };
}
/** As much of it as Content-Length says, where it says something that can be. */
function bodyOf(body: string, headers: Headers): string {
  const said = Number(header(headers, 'content-length') ?? NaN);
  return Number.isSafeInteger(said) && said >= 0 && said < body.length && !/^m=|^v=0/m.test(body.slice(said)) ? body.slice(0, said) : body;
}

/** Number and method of CSeq; null where it cannot be read. */
export function sequenceOf({ headers }: SipMessage): { number: number; method: string } | null {
  const hit = /^(\d{1,10})\s+([A-Za-z0-9\-.!%*_+`'~]{1,32})$/.exec(header(headers, 'cseq') ?? '');
  return hit ? { number: Number(hit[1]), method: hit[2]! } : null;
}
/** The topmost Via: by it and the method an answer belongs to its request (RFC 3261, section 17.1.3). */
export const topVia = ({ headers }: SipMessage): string => splitList(header(headers, 'via') ?? '')[0] ?? '';
export const callIdOf = ({ headers }: SipMessage): string => header(headers, 'call-id') ?? '';
