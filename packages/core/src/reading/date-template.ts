import type { Microseconds } from '../units.ts';
import { dayNumber, isWeekday, monthOf, type DateOrder } from './calendar.ts';
import { abbreviationOffset } from './zones.ts';

/** What a group of a template's pattern holds. */
export type DatePart = 'year' | 'month' | 'day' | 'skip' | 'zone' | 'whole-ymd' | 'whole-dmy' | 'whole-mdy';
/** A date beside a clock, in an order and with separators that a file uses and no standard tells. */
export interface DateTemplate {
  /** Sticky; a group for each part, and four for hour, minute, second and fraction where `clock` tells. */
  pattern: RegExp;
  parts: readonly DatePart[];
  /** The number of the clock's first group. */
  clock: number;
}

/** How far into a line the clock may begin, in characters. */
const LATEST = 80;
const MOST_LINES = 120;
const CLOCK = /(?<![\d:.,])(\d{1,2}):(\d{2}):(\d{2})(?:[.,:'’´`]\d{1,9})?(?!\d|:\d)/;
const CLOCK_GROUPS = "(\\d{1,2}):(\\d{2}):(\\d{2})(?:[.,:'’´`](\\d{1,9}))?";
/** What stands between date and clock, at most: `T`, a hyphen between blanks, a short word. */
const GAP = 4;
const TOKEN = /\d+|\p{L}+\.?|[^\p{L}\d]+/gu;

/** M month's name, D weekday, Z zone, d one or two digits, y four, 6 and 8 whole dates, otherwise a separator. */
interface Token {
  text: string;
  sort: 'M' | 'D' | 'Z' | 'd' | 'y' | '6' | '8' | 'gap' | 'other';
}
interface Found {
  tokens: Token[];
  /** The date stands behind its clock. */
  behind: boolean;
}

/**
 * The date that most lines tell beside their clock, whatever the order of its parts and what stands between them.
 *
 * Of the orders that all lines allow the one that is given counts, else that by which the lines run on in the smallest steps and end nearest to the file's date.
 *
 * @param lines of a sample, not indented
 * @param modified when the source was last written
 * @returns null where fewer than half of the lines have such a date
 */
export function learnDate(lines: readonly string[], order: DateOrder | undefined, modified: Microseconds): DateTemplate | null {
  const some = lines.slice(0, MOST_LINES);
  const groups = new Map<string, Found[]>();
  for (const line of some) {
    const found = dateOf(line);
    if (!found) continue;
    const key = `${found.behind} ${found.tokens.map(({ sort, text }) => (sort === 'gap' || sort === 'other' ? text.replace(/\s+/g, ' ') : sort)).join('')}`;
    const group = groups.get(key);
    if (group) group.push(found);
    else groups.set(key, [found]);
  }
  let best: Found[] = [];
  for (const group of groups.values()) if (group.length > best.length) best = group;
  if (best.length < some.length / 2 || best.length === 0) return null;
  const parts = rolesOf(best, order, modified / 86_400_000_000);
  return parts && templateOf(best[0]!, parts);
}

function dateOf(line: string): Found | null {
  const clock = CLOCK.exec(line.slice(0, LATEST + 20));
  if (!clock || clock.index > LATEST || Number(clock[1]) > 24) return null;
  const before = dateAmong(tokensOf(line.slice(0, clock.index)));
  if (before) return { tokens: before, behind: false };
  const after = dateAmong(tokensOf(line.slice(clock.index + clock[0].length, clock.index + clock[0].length + 30)).reverse());
  return after && { tokens: after.reverse(), behind: true };
}

const tokensOf = (text: string): Token[] => (text.match(TOKEN) ?? []).map((one) => ({ text: one, sort: sortOf(one) }));
function sortOf(text: string): Token['sort'] {
  const code = text.charCodeAt(0);
  if (code >= 48 && code <= 57) {
    if (text.length <= 2) return 'd';
    return text.length === 4 ? 'y' : text.length === 6 ? '6' : text.length === 8 ? '8' : 'other';
  }
  // year, month, day as Chinese, Japanese and Korean dates write them behind their numbers
  if (!/\p{L}/u.test(text[0]!) || /^[年月日년월일]$/.test(text)) return 'gap';
  if (monthOf(text) > 0) return 'M';
  if (isWeekday(text.replace(/\.$/, ''))) return 'D';
  return /^[A-Z]{2,5}$/.test(text) && !Number.isNaN(abbreviationOffset(text)) ? 'Z' : 'other';
}

/** The tokens of a date at the end of these, nearest to the clock, with what stands between it and the clock. */
function dateAmong(tokens: readonly Token[]): Token[] | null {
  let end = tokens.length;
  let gap = 0;
  while (end > 0 && (tokens[end - 1]!.sort === 'gap' || (tokens[end - 1]!.sort === 'other' && /^\p{L}{1,2}$/u.test(tokens[end - 1]!.text)))) {
    gap += tokens[end - 1]!.text.trim().length;
    if (gap > GAP) return null;
    end--;
  }
  let from = end;
  while (from > 0 && (tokens[from - 1]!.sort === 'gap' ? tokens[from - 1]!.text.length <= 3 : tokens[from - 1]!.sort !== 'other')) from--;
  // the longest date: what else stands before it is none of it
  for (let begin = from; begin < end; begin++) {
    if (tokens[begin]!.sort === 'gap') continue;
    const sorts = tokens.slice(begin, end).flatMap(({ sort }) => (sort === 'gap' ? [] : [sort]));
    if (isDate(sorts)) return tokens.slice(begin);
  }
  return null;
}
const DATES = new Set(['6', '8', 'Md', 'Mdy', 'Mdd', 'ddy', 'ddd']);
function isDate(sorts: readonly Token['sort'][]): boolean {
  const telling = sorts.filter((sort) => sort !== 'D' && sort !== 'Z');
  const ordered = [...telling].sort((a, b) => 'Md68y'.indexOf(a) - 'Md68y'.indexOf(b)).join('');
  return DATES.has(ordered) && sorts.filter((sort) => sort === 'Z').length <= 1 && sorts.filter((sort) => sort === 'D').length <= 1;
}

/** What each part of the dates is; null where no order fits all of them. */
function rolesOf(found: readonly Found[], given: DateOrder | undefined, modified: number): DatePart[] | null {
  const [first] = found;
  const sorts = first!.tokens.map(({ sort }) => sort);
  const open = sorts.filter((sort) => sort === 'd').length;
  const named = sorts.includes('M');
  const yearTold = sorts.includes('y');
  const whole = sorts.find((sort) => sort === '6' || sort === '8');
  const orders: (readonly DatePart[])[] = whole
    ? [['whole-ymd'], ['whole-dmy'], ['whole-mdy']]
    : open === 1
      ? [['day']]
      : open === 3
        ? [['day', 'month', 'year'], ['month', 'day', 'year'], ['year', 'month', 'day']] // prettier-ignore
        : named
          ? [['day', 'year'], ['year', 'day']] // prettier-ignore
          : yearTold && sorts.indexOf('y') < sorts.indexOf('d')
            ? [['month', 'day'], ['day', 'month']] // prettier-ignore
            : [['day', 'month'], ['month', 'day']]; // prettier-ignore
  let best: { parts: DatePart[]; rank: number[] } | null = null;
  for (const [place, order] of orders.entries()) {
    const parts = assigned(sorts, order);
    const days = found.map((one) => dayOf(one.tokens, parts));
    if (days.some(Number.isNaN)) continue;
    const steps = days.reduce((sum, day, i) => sum + (i === 0 ? 0 : Math.abs(day - days[i - 1]!)), 0);
    const last = days.at(-1)!;
    const isGiven = given !== undefined && GIVEN[given].some((one) => one === order.join(' '));
    // digits that nothing parts begin with the year, as they sort
    const rank = [isGiven ? 0 : 1, whole ? place : 0, steps, last > modified + 2 ? 1 : 0, Math.abs(last - modified), place];
    if (!best || isLess(rank, best.rank)) best = { parts, rank };
  }
  return best?.parts ?? null;
}
const GIVEN: Record<DateOrder, readonly string[]> = {
  'day-first': ['day month year', 'day month', 'whole-dmy'],
  'month-first': ['month day year', 'month day', 'whole-mdy'],
  'year-first': ['year month day', 'whole-ymd'],
};
const isLess = (one: readonly number[], other: readonly number[]): boolean => {
  const at = one.findIndex((value, i) => value !== other[i]);
  return at >= 0 && one[at]! < other[at]!;
};
function assigned(sorts: readonly Token['sort'][], order: readonly DatePart[]): DatePart[] {
  const rest = [...order];
  return sorts.flatMap((sort): DatePart[] => {
    if (sort === 'gap' || sort === 'other') return [];
    if (sort === 'M') return ['month'];
    if (sort === 'y') return ['year'];
    if (sort === 'D') return ['skip'];
    return sort === 'Z' ? ['zone'] : [rest.shift()!];
  });
}
/** Days since 1970, NaN where it is no date; in 2000 where there is no year. */
function dayOf(tokens: readonly Token[], parts: readonly DatePart[]): number {
  const values = tokens.filter(({ sort }) => sort !== 'gap' && sort !== 'other').map(({ text }) => text);
  const date = readParts(parts, (i) => values[i]!);
  return date ? dayNumber(date.year ?? 2000, date.month, date.day) : NaN;
}

/** Year (null where none is told), month and day of a date's parts; null where it is no date. */
export function readParts(parts: readonly DatePart[], valueOf: (i: number) => string): { year: number | null; month: number; day: number } | null {
  let [year, month, day]: [number | null, number, number] = [null, 0, 0];
  for (const [i, part] of parts.entries()) {
    const text = valueOf(i);
    if (part === 'year') year = fullYear(text);
    else if (part === 'month') month = /^\d/.test(text) ? Number(text) : monthOf(text);
    else if (part === 'day') day = Number(text);
    else if (part.startsWith('whole-')) {
      const long = text.length === 8 ? 4 : 2;
      const widths = part === 'whole-ymd' ? [long, 2, 2] : [2, 2, long];
      const cut = widths.map((width, at) => text.slice(sum(widths, at), sum(widths, at) + width));
      const [y, m, d] = part === 'whole-ymd' ? cut : part === 'whole-dmy' ? [cut[2], cut[1], cut[0]] : [cut[2], cut[0], cut[1]];
      [year, month, day] = [fullYear(y!), Number(m), Number(d)];
    }
  }
  if (month < 1 || month > 12 || day < 1 || day > 31 || (year !== null && (year < 1970 || year > 2100))) return null;
  return { year, month, day };
}
const sum = (widths: readonly number[], to: number): number => widths.slice(0, to).reduce((all, width) => all + width, 0);
const fullYear = (text: string): number => (text.length === 4 ? Number(text) : Number(text) < 70 ? 2000 + Number(text) : 1900 + Number(text));

const SOURCES: Record<Exclude<Token['sort'], 'gap' | 'other'>, string> = {
  M: '(\\p{L}{3,12}\\.?)',
  D: '(\\p{L}{2,12}\\.?)',
  Z: '([A-Z]{2,5})',
  d: '(\\d{1,2})',
  y: '(\\d{4})',
  '6': '(\\d{6})',
  '8': '(\\d{8})',
};
function templateOf({ tokens, behind }: Found, parts: readonly DatePart[]): DateTemplate {
  const date = tokens
    .map(({ text, sort }) =>
      sort === 'gap' || sort === 'other' ? text.replace(/[.*+?^${}()|[\]\\/]/g, '\\$&').replace(/\s+/g, '[ \\t]+') : SOURCES[sort],
    )
    .join('');
  const source = behind ? `${CLOCK_GROUPS}${date}(?![\\d\\p{L}])` : `${date}${CLOCK_GROUPS}(?!\\d|:\\d)`;
  return { pattern: new RegExp(source, 'uy'), parts, clock: behind ? 1 : parts.length + 1 };
}
