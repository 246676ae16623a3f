import { normalPhone } from '../identifiers/normal.ts';
import { splitList } from './headers.ts';

/** Somebody as From, To, Contact or Refer-To name them (RFC 3261, section 20.10; tel: RFC 3966). */
export interface Party {
  display: string;
  uri: string;
  /** `sip`, `sips`, `tel`, or what else stands before the colon. */
  scheme: string;
  /** As written, escapes undone; of tel: the number. '' where there is none. */
  user: string;
  host: string;
  tag: string | null;
}

const ANGLED = /^\s*(?:"((?:[^"\\]|\\.)*)"|([^<"]*?))\s*<([^>]*)>(.*)$/s;

/** Reads the first of them; null where there is nothing like an address. */
export function partyOf(value: string | null): Party | null {
  const first = splitList(value ?? '')[0];
  if (!first) return null;
  const angled = ANGLED.exec(first);
  const display = (angled?.[1]?.replace(/\\(.)/g, '$1') ?? angled?.[2] ?? '').trim();
  // without angle brackets what stands behind a semicolon belongs to the header
  const uri = angled ? angled[3]!.trim() : first.split(';')[0]!.trim();
  const behind = angled ? angled[4]! : first.slice(first.split(';')[0]!.length);
  const read = uriOf(uri);
  if (!read) return null;
  return { display, uri, ...read, tag: /;\s*tag\s*=\s*([^;\s,]+)/i.exec(behind)?.[1] ?? null };
}

/** Scheme, user and host of an address. */
export function uriOf(uri: string): Pick<Party, 'scheme' | 'user' | 'host'> | null {
  const hit = /^\s*<?\s*([A-Za-z][A-Za-z0-9+.-]*):([^>]*)/.exec(uri);
  if (!hit) return null;
  const scheme = hit[1]!.toLowerCase();
  const rest = hit[2]!.trim();
  if (scheme !== 'sip' && scheme !== 'sips') return { scheme, user: unescaped(rest.split(/[;?]/)[0]!), host: '' };
  const at = rest.lastIndexOf('@');
  // of “user:password” and “user;parameters” the user
  const user = at < 0 ? '' : unescaped(rest.slice(0, at).split(/[:;]/)[0]!);
  return {
    scheme,
    user,
    host: rest
      .slice(at + 1)
      .split(/[;?]/)[0]!
      .trim(),
  };
}
function unescaped(text: string): string {
  try {
    return decodeURIComponent(text);
  } catch {
    return text; // no text in UTF-8: as it is written
  }
}

/** A user that is a number, in any notation: as E.164 where it is no extension; null where it is a name. */
export function numberOf(user: string): string | null {
  return /^\s*\+?[\d\-.()\s/*#]{1,40}$/.test(user) && /\d/.test(user) ? normalPhone(user) : null;
}
/** Whether somebody does not want to be known (RFC 3323). */
export const isAnonymous = ({ user, host, display }: Party): boolean =>
  /^(?:anonymous|unavailable|restricted|unknown)$/i.test(user) ||
  /(?:^|\.)anonymous\.invalid$/i.test(host) ||
  (user === '' && /^anonymous$/i.test(display));
/** What somebody is called in a list: the number, else the user, else the host. */
export function nameOf(party: Party): string {
  if (isAnonymous(party)) return 'anonymous';
  return numberOf(party.user) ?? (party.user || party.host || party.uri);
}
