import { Finder } from '../identifiers/finder.ts';
import { hash53 } from '../identifiers/hash.ts';
import { normalPhone, normalValue } from '../identifiers/normal.ts';
import { LONGEST_VALUE, type IdentifierKind } from '../identifiers/types.ts';
import { keyValues } from '../reading/keyvalues.ts';
import type { Fields } from '../reading/types.ts';

/** An identifier that a pasted text may hold. */
export interface Candidate {
  kind: string;
  value: string;
  key: number;
  /** Found by a pattern or field of its kind; else only a guess that the whole text is a value of it. */
  sure: boolean;
}
/** Longest text that is looked at, in characters. */
export const LONGEST_PASTE = 20_000;
const PHONE = /(?:\+|00)?\(?\d[\d ()/.-]{4,22}\d/g;
const MOST_CANDIDATES = 60;

/**
 * The identifiers in a pasted text: a lone value, a whole log line, or anything between. Business kinds first.
 * A lone word is also offered as a value of every kind with named fields, since fields need no pattern.
 */
export function candidatesIn(text: string, kinds: readonly IdentifierKind[]): Candidate[] {
  const paste = text.slice(0, LONGEST_PASTE).trim();
  const finder = new Finder(kinds);
  const fields: Fields = {};
  keyValues(paste, fields);
  try {
    const parsed: unknown = JSON.parse(paste);
    if (parsed && typeof parsed === 'object') collect(parsed, '', fields);
  } catch {
    // no JSON: the text is searched as it stands
  }
  for (const hit of paste.matchAll(/^([\w-]{1,40}): *(\S[^\n]*)$/gm)) fields[hit[1]!] = hit[2]!.trim();
  const found: Candidate[] = finder.find(paste, fields, '').map(({ kind, value, key }) => ({ kind: kinds[kind]!.name, value, key, sure: true }));
  const add = (kind: IdentifierKind, value: string): void => {
    if (value === '' || found.length >= MOST_CANDIDATES || found.some((one) => one.kind === kind.name && one.value === value)) return;
    found.push({ kind: kind.name, value, key: hash53(value, hash53(`${kind.name}\u0000`) | 0), sure: false });
  };
  const lone = paste.length <= LONGEST_VALUE && !/[\s=]/.test(paste);
  for (const kind of kinds) {
    if (kind.normal.phone) {
      for (const hit of paste.matchAll(PHONE))
        if (hit[0].replace(/\D/g, '').length >= 6 && !/[\w-]$/.test(paste.slice(0, hit.index))) add(kind, normalPhone(hit[0]));
    } else if (lone && kind.scope === 'global') add(kind, normalValue(paste, kind.normal));
  }
  const rank = (one: Candidate): number => ['business', 'link', 'shared'].indexOf(kinds.find((kind) => kind.name === one.kind)!.role);
  return found.sort((a, b) => Number(b.sure) - Number(a.sure) || rank(a) - rank(b));
}

function collect(value: object, prefix: string, into: Fields): void {
  for (const [name, inner] of Object.entries(value)) {
    if (inner !== null && typeof inner === 'object') collect(inner as object, `${prefix}${name}.`, into);
    else if (inner !== null) into[prefix + name] = inner as string;
  }
}

/** Most identifiers that are looked up at once. */
export const MOST_AT_ONCE = 2000;

/** The words of a list of identifiers, each once, in order: what stands between blanks, commas and semicolons, without quotes. */
export function listedIn(text: string): string[] {
  const words = text.split(/[\s,;]+/).map((word) => word.replace(/^["'([]+|["')\].]+$/g, ''));
  return [...new Set(words.filter((word) => word !== '' && word.length <= LONGEST_VALUE))].slice(0, MOST_AT_ONCE);
}

/** Whether a text is a list: several words, nearly all of which are identifiers of a known kind by their look. */
export function isList(text: string, kinds: readonly IdentifierKind[]): boolean {
  const words = listedIn(text.slice(0, LONGEST_PASTE));
  if (words.length < FEWEST_LISTED) return false;
  const some = words.slice(0, 50);
  const finder = new Finder(kinds);
  return some.filter((word) => finder.find(word, {}, '').length > 0).length >= some.length * 0.8;
}
const FEWEST_LISTED = 4;
