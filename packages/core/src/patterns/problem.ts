import { RE2JS } from 're2js';

/** Longest pattern, in characters. */
const LONGEST = 300;

/** Why a pattern may not be used, or null if it may: it has to be one for both engines, and find something. */
export function patternProblem(pattern: string): string | null {
  if (pattern.length === 0) return 'the pattern is empty';
  if (pattern.length > LONGEST) return `the pattern is longer than ${LONGEST} characters`;
  try {
    new RegExp(pattern);
  } catch (error) {
    return (error as Error).message;
  }
  if (/\\[1-9]|\\k</.test(pattern)) return 'back-references are not allowed';
  if (/\(\?(?:=|!|<=|<!)/.test(pattern)) return 'look-around is not allowed; boundaries are checked anyway';
  let linear: RE2JS;
  try {
    linear = RE2JS.compile(pattern);
  } catch (error) {
    return `it cannot be looked for in a time that is bounded: ${(error as Error).message}`;
  }
  return linear.matcher('').matches() ? 'the pattern matches nothing at all, so it would match everywhere' : null;
}
