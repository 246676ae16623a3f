import type { StrandRecord } from '../path/types.ts';

/** Numbers that stand alone: not a part of a word, a date, an address or a path. */
const NUMBER = /(?<![\w.:/@#+-])(?:\d{1,3}(?:,\d{3})+|\d+(?:\.\d+)?)(?![\w:/@#-]|[.,]\d)/g;
/** Durations are judged by when records stand, and shares are no counts. */
const UNIT = /^\s?(?:[nmµu]?s|ms|secs?|seconds?|min|minutes?|h|hours?|days?|%)(?![\p{L}\d])/iu;
const LONGEST = 300;
const MOST = 8;

/** Everything that a record counts: numbers of its first line by their place in it from 0, and those of its fields by their names; without durations. */
export function countsOf({ message, measures }: Pick<StrandRecord, 'message' | 'measures'>): { of: string; value: number }[] {
  const counts = numbersIn(message).flatMap((value, place) => (Number.isNaN(value) ? [] : [{ of: String(place), value }]));
  if (measures)
    for (const part of measures.split(' ')) {
      const at = part.lastIndexOf('=');
      counts.push({ of: part.slice(0, at), value: Number(part.slice(at + 1)) });
    }
  return counts;
}

/** The numbers that the first line of a message states, NaN for those that are a duration; at most 8. */
export function numbersIn(message: string): number[] {
  const end = message.indexOf('\n');
  const line = message.slice(0, Math.min(end < 0 ? message.length : end, LONGEST));
  const found: number[] = [];
  NUMBER.lastIndex = 0;
  for (let hit = NUMBER.exec(line); hit && found.length < MOST; hit = NUMBER.exec(line))
    found.push(UNIT.test(line.slice(hit.index + hit[0].length, hit.index + hit[0].length + 12)) ? NaN : Number(hit[0].replaceAll(',', '')));
  return found;
}
