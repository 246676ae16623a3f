import type { Line } from './lines.ts';
import type { Listed } from './types.ts';

/** Lines in a row from which on they are headers; an answer's first line or a request's may stand before them. */
const FEWEST_HEADERS = 2;
const HEADER = /^([A-Za-z][A-Za-z0-9!#$%&'*+.^_|~-]*)\s?:(?:\s+(.*))?$/;
const START = /^(?:[A-Z]{3,12} \S+ (?:HTTP|SIP)\/\d(?:\.\d)?|(?:HTTP|SIP)\/\d(?:\.\d)? \d{3}.*)$/;
const SDP = /^([a-z])=(.*)$/;
/** What the letters of a session description say (RFC 8866). */
const SDP_NAMES: Record<string, string> = {
  v: 'version',
  o: 'origin',
  s: 'session',
  i: 'about',
  u: 'address of more',
  e: 'e-mail',
  p: 'phone',
  c: 'connection',
  b: 'bandwidth',
  t: 'time',
  r: 'repeats',
  z: 'zones',
  k: 'key',
  a: 'attribute',
  m: 'media',
};
const PAIR = /(?:^|[\s,;|&?])([\p{L}_][\p{L}\p{N}_.\-/@]*)=(?:"((?:[^"\\]|\\.)*)"|'((?:[^'\\]|\\.)*)'|\[([^\]]*)\]|([^\s,;|&"']*))/gu;
const FEWEST_PAIRS = 3;

/** Header lines from a line on, with the line of the request or answer before them; null where there are none. */
export function headersAt(lines: readonly Line[], first: number): { end: number; rows: Listed[] } | null {
  const rows: Listed[] = [];
  let at = first;
  const starts = START.test(lines[at]!.text.trim());
  if (starts) rows.push({ name: '', value: lines[at++]!.text.trim() });
  for (; at < lines.length; at++) {
    const { text } = lines[at]!;
    const hit = HEADER.exec(text);
    if (rows.length === UNTIL_SURE && !starts && !rows.some(isSure)) return null;
    const before = rows[rows.length - 1];
    if (hit) rows.push({ name: hit[1]!, value: hit[2] ?? '' });
    // a value that goes on over lines
    else if (before && before.name !== '' && /^[ \t]+\S/.test(text)) before.value += ` ${text.trim()}`;
    else break;
  }
  const named = rows.filter((row) => row.name !== '').length;
  // words with a colon are headers only behind a request or an answer, or where nearly all of them look so
  return named >= (starts ? 1 : FEWEST_HEADERS) && (starts || rows.some(isSure)) ? { end: at, rows } : null;
}
/** By so many lines it has to be plain that they are headers. */
const UNTIL_SURE = 12;
const isSure = ({ name }: Listed): boolean => name.includes('-') || KNOWN.test(name);
/** Names that stand alone at the head of messages of the open protocols. */
const KNOWN = /^(?:accept|allow|cookie|from|to|via|host|date|server|expires|contact|subject|cseq|route|etag|connection|location|reason|warning)$/i;

/** A session description from a line on. */
export function sdpAt(lines: readonly Line[], first: number): { end: number; rows: Listed[] } | null {
  if (lines[first]!.text !== 'v=0') return null;
  const rows: Listed[] = [];
  let at = first;
  for (; at < lines.length; at++) {
    const hit = SDP.exec(lines[at]!.text);
    if (!hit) break;
    rows.push({ name: hit[1]!, value: hit[2]!, means: SDP_NAMES[hit[1]!] ?? '' });
  }
  return rows.length >= 3 ? { end: at, rows } : null;
}

/** The pairs of a line that is made of them, as far as most of it is; null where it is not. */
export function pairsOf({ text }: Line): Listed[] | null {
  if (text.length > 20_000 || !text.includes('=')) return null;
  const rows: Listed[] = [];
  let covered = 0;
  for (const hit of text.matchAll(PAIR)) {
    rows.push({ name: hit[1]!, value: (hit[2] ?? hit[3] ?? hit[4] ?? hit[5] ?? '').replaceAll('\\"', '"') });
    covered += hit[0].length;
  }
  return rows.length >= FEWEST_PAIRS && covered >= text.trim().length * 0.6 ? rows : null;
}
