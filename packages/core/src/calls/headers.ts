/** Values by the long name in lower case, each as often as it is given. */
export type Headers = Map<string, string[]>;

/** Compact names: RFC 3261 (7.3.3), RFC 3515, RFC 6665, RFC 4028, RFC 3892. */
const COMPACT: Record<string, string> = {
  i: 'call-id',
  m: 'contact',
  e: 'content-encoding',
  l: 'content-length',
  c: 'content-type',
  f: 'from',
  s: 'subject',
  k: 'supported',
  t: 'to',
  v: 'via',
  r: 'refer-to',
  b: 'referred-by',
  o: 'event',
  u: 'allow-events',
  x: 'session-expires',
};

/** The long name of a header in lower case, whichever way it is written. */
export function headerName(written: string): string {
  const name = written.trim().toLowerCase();
  return Object.hasOwn(COMPACT, name) ? COMPACT[name]! : name;
}
/** The first value of a header. */
export const header = (headers: Headers, name: string): string | null => headers.get(name)?.[0] ?? null;

/** The members of a list with commas between; commas in quotes and in angle brackets part nothing. */
export function splitList(value: string): string[] {
  const members: string[] = [];
  let quoted = false;
  let bracketed = false;
  let from = 0;
  for (let i = 0; i < value.length; i++) {
    const one = value[i];
    if (quoted) {
      if (one === '\\') i++;
      else if (one === '"') quoted = false;
    } else if (one === '"') quoted = true;
    else if (one === '<') bracketed = true;
    else if (one === '>') bracketed = false;
    else if (one === ',' && !bracketed) {
      members.push(value.slice(from, i).trim());
      from = i + 1;
    }
  }
  members.push(value.slice(from).trim());
  return members.filter((one) => one !== '');
}
