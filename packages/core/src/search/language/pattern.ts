import { RE2JS } from 're2js';
import { patternProblem } from '../../identifiers/patterns.ts';

/** Unbounded repetitions that a native pattern may hold: each multiplies the work on a text that nearly fits. */
const MOST_REPEATS = 2;

/**
 * A pattern in RE2 syntax as a test of texts. What the ready-made engine runs in short time and with the same meaning goes there,
 * ten times as fast; all else goes to the engine whose time is linear.
 *
 * @throws RE2JS's error for a pattern that is not right
 */
export function patternTest(pattern: string): (text: string) => boolean {
  const compiled = RE2JS.compile(pattern);
  const native = nativeOf(pattern);
  return (text) => (native && !FOLDS_INTO_ASCII.test(text) ? native.test(text) : compiled.matcher(text).find());
}

/** Two letters whose other case lies in ASCII for one engine only. */
const FOLDS_INTO_ASCII = /[\u017f\u212a]/;

/** The same pattern for the ready-made engine; null where its meaning or its time could differ. */
export function nativeOf(pattern: string): RegExp | null {
  const folds = pattern.startsWith('(?i)');
  const body = folds ? pattern.slice(4) : pattern;
  if (!/^[\x20-\x7e]+$/.test(body) || body.includes('\\s') || /\(\?(?!:)/.test(body) || /\[\[:|\\[^dDwWbB./:+*?()[\]{}|^$\\-]/.test(body))
    return null;
  const classless = body.replace(/\\./g, 'x').replace(/\[(?:\^)?[^\]]*\]/g, 'x');
  // a point leaves out more ends of lines there
  if (classless.includes('.') || /[*+?}][+?]/.test(classless)) return null;
  const bare = /^(?:\^|\\b)?(.*?)\$?$/.exec(body)![1]!;
  if (bare === '' || patternProblem(body) !== null || (classless.match(/[*+]|\{\d+,/g) ?? []).length > MOST_REPEATS) return null;
  return new RegExp(body, folds ? 'i' : '');
}
