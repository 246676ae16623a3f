import { monthOf } from './calendar.ts';
import { abbreviationOffset } from './zones.ts';

/** A layout of times that a person typed. */
export interface TimePattern {
  /** Sticky; a group for each part. */
  pattern: RegExp;
  parts: readonly Part[];
}
type Part =
  'year' | 'month' | 'day' | 'day-of-year' | 'hour' | 'hour-12' | 'half' | 'minute' | 'second' | 'fraction' | 'offset' | 'abbreviation' | 'skip';

/** What a pattern read; what is not told is NaN. */
export interface ReadTime {
  year: number;
  month: number;
  day: number;
  dayOfYear: number;
  /** Of the day, without the fraction. */
  seconds: number;
  /** Digits behind the seconds. */
  fraction: string;
  /** Minutes east of UTC. */
  offset: number;
}

const NAME = '(\\p{L}{2,14}\\.?)';
/** Letters of date field symbols (Unicode Technical Standard 35, part 4): by letter, from how often it stands there on. */
const SYMBOLS: Record<string, (count: number) => [Part, string]> = {
  y: (count) => ['year', count === 2 ? '(\\d{2})' : '(\\d{4})'],
  u: () => ['year', '(\\d{4})'],
  M: (count) => ['month', count >= 3 ? NAME : count === 2 ? '(\\d{2})' : '(\\d{1,2})'],
  L: (count) => ['month', count >= 3 ? NAME : count === 2 ? '(\\d{2})' : '(\\d{1,2})'],
  d: (count) => ['day', count === 2 ? '(\\d{2})' : '(\\d{1,2})'],
  D: (count) => ['day-of-year', count === 3 ? '(\\d{3})' : '(\\d{1,3})'],
  E: () => ['skip', NAME],
  H: (count) => ['hour', count === 2 ? '(\\d{2})' : '(\\d{1,2})'],
  h: (count) => ['hour-12', count === 2 ? '(\\d{2})' : '(\\d{1,2})'],
  a: () => ['half', '([AaPp]\\.?[Mm]\\.?)'],
  m: (count) => ['minute', count === 2 ? '(\\d{2})' : '(\\d{1,2})'],
  s: (count) => ['second', count === 2 ? '(\\d{2})' : '(\\d{1,2})'],
  S: (count) => ['fraction', `(\\d{${count}})`],
  Z: () => ['offset', '([+-]\\d{2}:?\\d{2})'],
  X: () => ['offset', '(Z|[+-]\\d{2}(?::?\\d{2})?)'],
  x: () => ['offset', '([+-]\\d{2}(?::?\\d{2})?)'],
  z: () => ['abbreviation', '([A-Z]{2,5})'],
};
const LONGEST = 80;

/**
 * Reads a pattern of date field symbols, as `yyyy-MM-dd HH:mm:ss,SSS` or `d MMM yy 'at' H:mm`: letters stand for parts, text in quotes and other signs for themselves.
 *
 * @throws RangeError with a sentence that says what is wrong
 */
export function timePattern(text: string): TimePattern {
  if (text.length > LONGEST) throw new RangeError(`A layout of times has at most ${LONGEST} signs.`);
  const parts: Part[] = [];
  let source = '';
  for (let at = 0; at < text.length;) {
    const sign = text[at]!;
    if (sign === "'") {
      const [literal, end] = quoted(text, at);
      source += escaped(literal);
      at = end;
    } else if (/[A-Za-z]/.test(sign)) {
      let end = at + 1;
      while (text[end] === sign) end++;
      const symbol = SYMBOLS[sign];
      if (!symbol) throw new RangeError(`“${sign}” stands for no part of a time. Put words in quotes: 'at'.`);
      const [part, pattern] = symbol(end - at);
      if (part !== 'skip' && parts.includes(part)) throw new RangeError(`“${text.slice(at, end)}” tells a part of the time for the second time.`);
      parts.push(part);
      source += pattern;
      at = end;
    } else {
      source += escaped(sign);
      at++;
    }
  }
  const has = (...some: Part[]): boolean => some.some((part) => parts.includes(part));
  if (!has('day-of-year') && !(has('day') && has('month'))) throw new RangeError('It tells no day: give d and M, or D for the day of the year.');
  if (!has('hour', 'hour-12') || !has('minute')) throw new RangeError('It tells no time of day: give H (or h and a) and m.');
  if (has('hour-12') && !has('half')) throw new RangeError('h counts to twelve: give a for the half of the day, or H.');
  return { pattern: new RegExp(source.replace(/ +/g, '[ \\t]+'), 'uy'), parts };
}
const escaped = (text: string): string => text.replace(/[.*+?^${}()|[\]\\/]/g, '\\$&');

/** A text in quotes, and where it ends; two quotes are one. */
function quoted(text: string, from: number): [string, number] {
  if (text[from + 1] === "'") return ["'", from + 2];
  let said = '';
  for (let at = from + 1; at < text.length; at++) {
    if (text[at] !== "'") said += text[at];
    else if (text[at + 1] === "'") said += text[at++];
    else return [said, at + 1];
  }
  throw new RangeError('A quote is not closed.');
}

/** What the pattern reads at a position, and where that ends; null where it does not fit or is no time. */
export function readPattern({ pattern, parts }: TimePattern, text: string, pos: number): { time: ReadTime; end: number } | null {
  pattern.lastIndex = pos;
  const hit = pattern.exec(text);
  if (!hit) return null;
  const time: ReadTime = { year: NaN, month: NaN, day: NaN, dayOfYear: NaN, seconds: 0, fraction: '', offset: NaN };
  let hour = 0;
  let half = -1;
  for (const [i, part] of parts.entries()) {
    const value = hit[i + 1]!;
    if (part === 'year') time.year = value.length === 2 ? (Number(value) < 70 ? 2000 : 1900) + Number(value) : Number(value);
    else if (part === 'month') time.month = /^\d/.test(value) ? Number(value) : monthOf(value);
    else if (part === 'day') time.day = Number(value);
    else if (part === 'day-of-year') time.dayOfYear = Number(value);
    else if (part === 'hour' || part === 'hour-12') hour = Number(value);
    else if (part === 'half') half = /^p/i.test(value) ? 12 : 0;
    else if (part === 'minute') time.seconds += Number(value) * 60;
    else if (part === 'second') time.seconds += Number(value);
    else if (part === 'fraction') time.fraction = value;
    else if (part === 'offset') time.offset = offsetOf(value);
    else if (part === 'abbreviation') time.offset = abbreviationOffset(value);
  }
  if (half >= 0 && (hour < 1 || hour > 12)) return null;
  time.seconds += (half < 0 ? hour : (hour % 12) + half) * 3600;
  const year = Number.isNaN(time.year) ? 2000 : time.year;
  const inMonth = time.month >= 1 && time.month <= 12 && time.day >= 1 && time.day <= new Date(Date.UTC(year, time.month, 0)).getUTCDate();
  const dated = Number.isNaN(time.dayOfYear) ? inMonth : time.dayOfYear >= 1 && time.dayOfYear <= 366;
  if (!dated || time.seconds > 86_400 || time.year < 1970 || time.year > 2100) return null;
  return { time, end: pos + hit[0].length };
}
function offsetOf(text: string): number {
  if (text === 'Z') return 0;
  const digits = text.slice(1).replace(':', '').padEnd(4, '0');
  const minutes = Number(digits.slice(0, 2)) * 60 + Number(digits.slice(2));
  return text[0] === '-' ? -minutes : minutes;
}
