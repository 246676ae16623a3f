import { RE2JS } from 're2js';

/** A text, or several of which all or any must be there. */
export type Literals = string | { of: 'all' | 'any'; parts: Literals[] };

/** What RE2JS makes out for itself to rule texts out early. */
interface Prefilter {
  type: 0 | 1 | 2 | 3;
  str: string;
  subs: Prefilter[];
}
const [EXACT, ALL, ANY] = [1, 2, 3] as const;
/** Fewer letters rule hardly anything out. */
const SHORTEST = 2;
/** More alternatives than these cost more than they spare. */
const MOST = 24;
/** Letters that have another case outside ASCII, and what is not ASCII: cases of these are not told apart everywhere alike. */
const FOLDED_ELSEWHERE = /[^\x20-\x7e]|[ks]/;

/**
 * What a text must hold for a pattern in RE2 syntax to find anything in it: a necessary condition, never a sufficient one. Null where nothing can be told.
 * The engine's own analysis of the pattern is taken; where case does not matter, only letters count whose case every reader of the text folds alike, in lower case.
 *
 * @throws RE2JS's error for a pattern that is not right
 */
export function literalsOf(pattern: string): { folded: boolean; needed: Literals } | null {
  const folded = pattern.startsWith('(?i)');
  const { prefilter } = RE2JS.compile(folded ? pattern.slice(4) : pattern).re2() as { prefilter: Prefilter | null };
  const needed = prefilter && needs(prefilter, folded);
  return needed === null || size(needed) > MOST ? null : { folded, needed };
}

function needs({ type, str, subs }: Prefilter, folded: boolean): Literals | null {
  if (type === EXACT) {
    const text = folded ? longest(str.toLowerCase().split(FOLDED_ELSEWHERE)) : str;
    return text.length < SHORTEST ? null : text;
  }
  if (type !== ALL && type !== ANY) return null;
  const parts = subs.map((sub) => needs(sub, folded));
  const known = parts.filter((part) => part !== null);
  if (known.length === 0 || (type === ANY && known.length < parts.length)) return null;
  return known.length === 1 ? known[0]! : { of: type === ALL ? 'all' : 'any', parts: known };
}
const longest = (texts: readonly string[]): string => texts.reduce((best, text) => (text.length > best.length ? text : best), '');
const size = (literals: Literals): number => (typeof literals === 'string' ? 1 : literals.parts.reduce((sum, part) => sum + size(part), 0));
