import type { StrandRecord } from '../path/types.ts';
import type { Duration } from '../units.ts';
import { withoutFields } from '../shapes/without-fields.ts';
import { isVolume } from '../shapes/measures.ts';

/** Numbers that stand alone: not a part of a word, a date, an address or a path. */
const NUMBER = /(?<![\w.:/@#+-])(?:\d{1,3}(?:,\d{3})+|\d+(?:\.\d+)?)(?![\w:/@#-]|[.,]\d)/g;
/** Durations are judged by when records stand, and shares are no counts. */
const UNIT = /^\s?(?:[nmµu]?s|ms|secs?|seconds?|min|minutes?|h|hours?|days?|%)(?![\p{L}\d])/iu;
/** The name before a number, as in `ms=12`, `result 500`. */
const NAME = /(\p{L}[\p{L}\d_.-]{0,30})(?:=|:? )$/u;
const LONGEST = 300;
const MOST = 8;

/** Everything that a record counts: numbers of its first line by their place among its words from 0, and those of its fields by their names; without durations. */
export function countsOf({ message, measures, took }: Pick<StrandRecord, 'message' | 'measures' | 'took'>): { of: string; value: number }[] {
  const words = withoutFields(message);
  const counts = numbersIn(words).flatMap((value, place) => (Number.isNaN(value) ? [] : [{ of: String(place), value }]));
  if (measures)
    for (const part of measures.split(' ')) {
      const at = part.lastIndexOf('=');
      counts.push({ of: part.slice(0, at), value: Number(part.slice(at + 1)) });
    }
  if (words.length < message.length && message[words.length] !== '\n')
    counts.push(...namedIn(message, words).filter((one) => !counts.some(({ of }) => of === one.of)));
  // what takes time is judged by when records stand, however it is called
  return took > 0 ? counts.filter(({ value }) => !isTime(value, took)) : counts;
}
/** The number is how long it took, in microseconds, milliseconds or seconds. */
const isTime = (value: number, took: Duration): boolean =>
  [1, 1e3, 1e6].some((unit) => Math.abs(value * unit - took) <= unit / 2 && value * unit >= unit);

/** Numbers of fields that are written beside the words of a first line, by their names: `rows=7`, or in brackets at its end `(rows 7)`. */
function namedIn(message: string, words: string): { of: string; value: number }[] {
  return hitsIn(message).flatMap(({ line, text, at }) => {
    const bracket = Math.max(line.lastIndexOf('('), line.lastIndexOf('['));
    const listed = bracket >= 0 && at > bracket && !words.includes(line.slice(bracket));
    const name = listed || line[at - 1] === '=' ? NAME.exec(line.slice(Math.max(0, at - 32), at))?.[1] : undefined;
    const value = name === undefined ? NaN : countOf(line, text, at);
    return Number.isNaN(value) ? [] : [{ of: name!, value }];
  });
}

/** The numbers that the first line of a message states, NaN for those that count nothing: durations, results, fractions; at most 8. */
export const numbersIn = (message: string): number[] => hitsIn(message).map(({ line, text, at }) => countOf(line, text, at));

function hitsIn(message: string): { line: string; text: string; at: number }[] {
  const end = message.indexOf('\n');
  const line = message.slice(0, Math.min(end < 0 ? message.length : end, LONGEST));
  const found: { line: string; text: string; at: number }[] = [];
  NUMBER.lastIndex = 0;
  for (let hit = NUMBER.exec(line); hit && found.length < MOST; hit = NUMBER.exec(line)) found.push({ line, text: hit[0], at: hit.index });
  return found;
}
function countOf(line: string, text: string, at: number): number {
  if (text.includes('.') || UNIT.test(line.slice(at + text.length, at + text.length + 12))) return NaN;
  const before = line.slice(Math.max(0, at - 32), at);
  // `took 40 sacks` counts sacks, `result 500, ms 5` counts nothing
  const name = before.endsWith(' ') && /^ \p{L}/u.test(line.slice(at + text.length, at + text.length + 2)) ? undefined : NAME.exec(before)?.[1];
  return name !== undefined && !isVolume(name) ? NaN : Number(text.replaceAll(',', ''));
}
