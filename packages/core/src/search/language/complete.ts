import type { Place } from './tree.ts';

/** What can stand at a place of a search: words of the language, or what the data hold there. */
export type Expected =
  | { what: 'field' }
  | { what: 'operator'; field: string }
  | { what: 'value'; field: string }
  /** Between conditions, or behind free words. */
  | { what: 'joint'; words: readonly string[] };

export interface CompletionPlace extends Place {
  /** What is typed already between `from` and `to`, without an opening quote. */
  typed: string;
  expected: Expected;
}

export const OPERATORS = ['=', '<>', '<', '<=', '>', '>=', 'in', 'not in', 'like', 'between', 'matches', 'is null', 'is not null'] as const;
const TOKEN = /'(?:[^']|'')*'?|"[^"]*"?|<>|<=|>=|[=<>(),]|[^\s'"=<>(),]+/g;
const COMPARES = new Set(['=', '<>', '<', '<=', '>', '>=', 'like', 'matches']);

/**
 * What a half-typed search expects at the caret, null among free words. Follows the grammar loosely, so that it also helps where the rest is not right yet.
 *
 * @param caret place in `text`, in characters; what stands behind it is not looked at
 */
export function completionAt(text: string, caret: number): CompletionPlace | null {
  const before = text.slice(0, caret);
  const tokens = [...before.matchAll(TOKEN)].map((hit) => ({ text: hit[0], from: hit.index, to: hit.index + hit[0].length }));
  const last = tokens.at(-1);
  // an open quote goes on over blanks; a sign stands for itself
  const open =
    last !== undefined && last.to === caret && !/^(?:<>|<=|>=|[=<>(),])$/.test(last.text) && !(last.text.length > 1 && /^'.*'$/s.test(last.text));
  const done = open ? tokens.slice(0, -1) : tokens;
  const place = open ? { from: last.from, to: caret, typed: last.text.replace(/^["']/, '') } : { from: caret, to: caret, typed: '' };
  const where = done.findIndex((token) => token.text.toLowerCase() === 'where');
  if (where < 0)
    return done.length > 0 && (place.typed === '' || 'where'.startsWith(place.typed.toLowerCase()))
      ? { ...place, expected: { what: 'joint', words: ['where'] } }
      : null;
  const expected = walk(done.slice(where + 1).map((token) => token.text));
  return expected && { ...place, expected };
}

/** Goes through what is typed of a condition; what comes next is the state at its end. */
function walk(tokens: readonly string[]): Expected | null {
  let state: 'field' | 'operator' | 'value' | 'list' | 'between' | 'is' | 'joint' = 'field';
  let field = '';
  let depth = 0;
  for (const token of tokens) {
    const word = token.toLowerCase();
    if (state === 'field') {
      if (word === '(') depth++;
      else if (word !== 'not') {
        field = token.replace(/^"|"$/g, '');
        state = 'operator';
      }
    } else if (state === 'operator') {
      if (COMPARES.has(word)) state = 'value';
      else if (word === 'in') state = 'list';
      else if (word === 'between') state = 'between';
      else if (word === 'is') state = 'is';
      else if (word !== 'not') return null;
    } else if (state === 'is') {
      if (word === 'null') state = 'joint';
      else if (word !== 'not') return null;
    } else if (state === 'list') {
      if (word === ')') state = 'joint';
    } else if (state === 'between') {
      if (word === 'and') state = 'value';
    } else if (state === 'value') state = 'joint';
    else if (word === 'and' || word === 'or') state = 'field';
    else if (word === ')' && depth > 0) depth--;
    else return null;
  }
  if (state === 'field') return { what: 'field' };
  if (state === 'operator') return { what: 'operator', field };
  if (state === 'is') return { what: 'joint', words: ['null', 'not null'] };
  if (state === 'list' && tokens.at(-1)?.toLowerCase() === 'in') return { what: 'joint', words: ['('] };
  if (state === 'between' && tokens.at(-1)?.toLowerCase() !== 'between') return { what: 'joint', words: ['and'] };
  if (state === 'list' && !['(', ','].includes(tokens.at(-1)!)) return { what: 'joint', words: [',', ')'] };
  if (state === 'value' || state === 'list' || state === 'between') return { what: 'value', field };
  return { what: 'joint', words: depth > 0 ? ['and', 'or', ')'] : ['and', 'or'] };
}

/** The text with a choice put in at its place, and where the caret stands then: a blank behind it. */
export function completed(text: string, place: Place, choice: string): { text: string; caret: number } {
  const rest = text.slice(place.to).replace(/^ /, '');
  const head = `${text.slice(0, place.from)}${choice} `;
  return { text: head + rest, caret: head.length };
}
