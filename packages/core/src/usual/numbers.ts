/** Numbers that stand alone: not a part of a word, a date, an address or a path. */
const NUMBER = /(?<![\w.:/@#+-])(?:\d{1,3}(?:,\d{3})+|\d+(?:\.\d+)?)(?![\w:/@#-]|[.,]\d)/g;
/** Durations are judged by when records stand, and shares are no counts. */
const UNIT = /^\s?(?:[nmµu]?s|ms|secs?|seconds?|min|minutes?|h|hours?|days?|%)(?![\p{L}\d])/iu;
const LONGEST = 300;
const MOST = 8;

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
