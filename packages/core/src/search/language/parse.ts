import { RE2JS } from 're2js';
import { parse as parseGrammar, SyntaxError as GrammarFault } from './grammar.generated.ts';
import type { Condition, Search, SearchProblem, Value } from './tree.ts';

/** What the generated parser throws. */
interface GrammarError {
  location: { start: { offset: number } };
  expected: { type: string; description?: string; text?: string }[] | null;
}

/** Longest search, in characters. */
export const LONGEST_SEARCH = 4000;
/** Deepest nesting of a condition. */
const DEEPEST = 50;

export type Parsed = { search: Search; problem: null } | { search: null; problem: SearchProblem };

/** Reads a search; a mistake is told with its place and, where one is likely, what was meant. */
export function parseSearch(text: string): Parsed {
  if (text.length > LONGEST_SEARCH) return fail(LONGEST_SEARCH, text.length, `the search is longer than ${LONGEST_SEARCH} characters`, null);
  const deep = tooDeep(text);
  if (deep >= 0) return fail(deep, deep + 1, `the parentheses are nested more than ${DEEPEST} deep`, null);
  let search: Search;
  try {
    search = parseGrammar(text, {}) as Search;
  } catch (error) {
    // a parser that descends into what it reads runs out of stack before anything else is amiss
    if (error instanceof RangeError) return fail(0, text.length, 'the condition is nested too deeply', null);
    if (!(error instanceof (GrammarFault as unknown as new () => Error))) throw error;
    return explained(text, error as unknown as GrammarError);
  }
  const problem = search.condition ? problemIn(search.condition, 0) : null;
  return problem ? { search: null, problem } : { search, problem: null };
}

/** The place of the first parenthesis that lies too deep, -1 for none; those in quotes are text. */
function tooDeep(text: string): number {
  let depth = 0;
  let quoted = false;
  for (let i = 0; i < text.length; i++) {
    if (text[i] === "'") quoted = !quoted;
    else if (quoted) continue;
    else if (text[i] === '(' && ++depth > DEEPEST) return i;
    else if (text[i] === ')') depth--;
  }
  return -1;
}

const fail = (from: number, to: number, message: string, proposal: string | null): Parsed => ({
  search: null,
  problem: { from, to, message, proposal },
});

function explained(text: string, error: GrammarError): Parsed {
  const at = Math.min(error.location.start.offset, text.length);
  const rest = text.slice(at);
  const found = /^(\S+)/.exec(rest)?.[1] ?? '';
  const to = Math.min(text.length, at + Math.max(1, found.length));
  const open = (text.slice(0, at).match(/'/g) ?? []).length % 2 === 1 || rest.startsWith("'");
  if (open && !rest.slice(1).includes("'")) return fail(at, to, 'the quote is never closed', `${text}'`);
  if (/^==/.test(rest) || (text[at - 1] === '=' && rest[0] === '='))
    return fail(at, to, 'equality is written =', text.slice(0, at) + rest.replace(/^=+/, text[at - 1] === '=' ? '' : '='));
  if (/^!=/.test(rest)) return fail(at, at + 2, 'inequality is written <>', `${text.slice(0, at)}<>${rest.slice(2)}`);
  if (/^&&|^\|\|/.test(rest))
    return fail(at, at + 2, 'conditions are joined by and, or', `${text.slice(0, at)}${rest.startsWith('&') ? 'and' : 'or'}${rest.slice(2)}`);
  if (rest.trim() === '') return fail(text.length, text.length, `something is missing at the end: ${wanted(error)}`, null);
  return fail(at, to, `“${found}” does not fit here; expected is ${wanted(error)}`, null);
}

function wanted(error: GrammarError): string {
  const names = new Set<string>();
  for (const one of error.expected ?? []) {
    if (one.type === 'other' && one.description && one.description !== 'a blank') names.add(one.description);
    else if (one.type === 'literal') names.add(`“${one.text ?? ''}”`);
    else if (one.type === 'end') names.add('the end');
  }
  const list = [...names].slice(0, 6);
  return list.length > 1 ? `${list.slice(0, -1).join(', ')} or ${list[list.length - 1]!}` : (list[0] ?? 'something else');
}

function problemIn(condition: Condition, depth: number): SearchProblem | null {
  if (depth > DEEPEST) return { from: 0, to: 0, message: 'the condition is nested too deeply', proposal: null };
  if (condition.type === 'and' || condition.type === 'or') {
    for (const part of condition.parts) {
      const problem = problemIn(part, depth + 1);
      if (problem) return problem;
    }
    return null;
  }
  if (condition.type === 'not') return problemIn(condition.part, depth + 1);
  return condition.type === 'matches' ? patternIn(condition.pattern) : null;
}

function patternIn(pattern: Value): SearchProblem | null {
  try {
    RE2JS.compile(pattern.text);
    return null;
  } catch (error) {
    return { from: pattern.from, to: pattern.to, message: `the pattern is not right: ${(error as Error).message}`, proposal: null };
  }
}
