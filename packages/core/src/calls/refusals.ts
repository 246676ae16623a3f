import { header, splitList } from './headers.ts';
import { sequenceOf, type SipMessage } from './message.ts';

const MOST_SEQUENCE = 2 ** 31;
/** Headers whose value is an address. */
const ADDRESSES = ['from', 'to', 'contact'] as const;
const NEEDED = ['call-id', 'cseq', 'from', 'to', 'via'] as const;

/**
 * Why an element that keeps to RFC 3261 refuses a message, in words; empty for one that it takes. What RFC 4475 calls invalid is told here; a message that
 * is refused is read nevertheless: a log shows what was on the line.
 */
export function refusals(message: SipMessage): string[] {
  const { headers, status, method, version } = message;
  const why: string[] = [];
  if (version !== '2.0') why.push(`version ${version} is not 2.0`);
  for (const name of NEEDED) if (!headers.has(name)) why.push(`${name} is missing`);
  for (const name of ['call-id', 'cseq', 'from', 'to', 'max-forwards'])
    if ((headers.get(name)?.length ?? 0) > 1) why.push(`${name} stands more than once`);
  const sequence = sequenceOf(message);
  if (headers.has('cseq') && !sequence) why.push('CSeq cannot be read');
  if (sequence && sequence.number >= MOST_SEQUENCE) why.push('CSeq is above 2^31');
  if (sequence && method !== null && sequence.method !== method) why.push(`CSeq tells of ${sequence.method}, the request is ${method}`);
  if (status !== null && (status < 100 || status > 699)) why.push(`status ${status} is none`);
  why.push(...ofNumbers(message), ...ofLength(message), ...ofAddresses(message), ...ofUri(message));
  const date = header(headers, 'date');
  if (date !== null && !/\bGMT\s*$/.test(date)) why.push('Date is not in GMT');
  return why;
}

function ofNumbers({ headers }: SipMessage): string[] {
  const why: string[] = [];
  const forwards = header(headers, 'max-forwards');
  if (forwards !== null && !(/^\d+$/.test(forwards) && Number(forwards) <= 255)) why.push('Max-Forwards is not 0 to 255');
  const warning = header(headers, 'warning');
  if (warning !== null && !/^\d{3}\s/.test(warning)) why.push('Warning has no code of three digits');
  return why;
}
/** In octets; a text that was kept with other ends of lines is as long with theirs. */
function ofLength({ headers, body }: SipMessage): string[] {
  const said = header(headers, 'content-length');
  if (said === null) return [];
  if (!/^\d+$/.test(said)) return ['Content-Length is no number'];
  const bare = body.replaceAll('\r', '').replace(/\n+$/, '');
  const longest = octetsOf(bare) + (bare.match(/\n/g)?.length ?? 0) + 2;
  return Number(said) > Math.max(longest, octetsOf(body)) ? ['Content-Length is more than there is'] : [];
}
/** In UTF-8. */
function octetsOf(text: string): number {
  let octets = 0;
  for (const one of text) {
    const code = one.codePointAt(0)!;
    octets += code < 0x80 ? 1 : code < 0x800 ? 2 : code < 0x10000 ? 3 : 4;
  }
  return octets;
}
function ofAddresses({ headers }: SipMessage): string[] {
  const why: string[] = [];
  for (const name of ADDRESSES) {
    for (const value of headers.get(name) ?? []) {
      if (unbalanced(value)) why.push(`${name}: a quote is not closed`);
      for (const one of splitList(value)) {
        const bare = one.replaceAll(/"(?:[^"\\]|\\.)*"/g, '""');
        const display = /^([^<]*)</.exec(bare)?.[1]?.trim() ?? '';
        if (display !== '' && display !== '""' && !/^[A-Za-z0-9\-.!%*_+`'~ \t]*$/.test(display))
          why.push(`${name}: a name with such characters needs quotes`);
        if (!bare.includes('<') && /^[^;]*[?,]/.test(bare)) why.push(`${name}: such an address needs angle brackets`);
      }
    }
  }
  return why;
}
function ofUri({ uri }: SipMessage): string[] {
  if (uri === null) return [];
  if (uri.startsWith('<')) return ['the address asked for stands in angle brackets'];
  if (/\s/.test(uri)) return ['there is white space in the address asked for'];
  return /^sips?:[^?]*\?/i.test(uri) ? ['the address asked for holds headers'] : [];
}
function unbalanced(value: string): boolean {
  let quoted = false;
  for (let i = 0; i < value.length; i++) {
    if (quoted && value[i] === '\\') i++;
    else if (value[i] === '"') quoted = !quoted;
  }
  return quoted;
}
