import { dayNumber, isWeekday, monthOf } from './calendar.ts';
import { dateOf, LocalTime } from './local-time.ts';
import { readParts, type DateTemplate } from './date-template.ts';
import { readPattern, timePattern, type TimePattern } from './time-pattern.ts';
import { abbreviationOffset } from './zones.ts';
import { isDigit, isLetter, letterEnd, micros, digits, oneOrTwo } from './digits.ts';

/**
 * Reads times by hand, digit by digit: patterns compiled for each line cost more than all the rest of reading.
 * A layout is tried at a position; it tells where the time ends, or -1.
 */
export type TimeLayout =
  'typed' | 'learned' | 'tai' | 'iso' | 'numeric' | 'access' | 'month-name' | 'day-name' | 'compact' | 'epoch' | 'month-day' | 'clock-date' | 'clock';
/** From the most telling to the barest. */
export const TIME_LAYOUTS: readonly TimeLayout[] = [
  'tai',
  'iso',
  'numeric',
  'access',
  'month-name',
  'day-name',
  'compact',
  'epoch',
  'month-day',
  'clock-date',
  'clock',
];
/** Layouts of a date that may stand behind its clock. */
const BEHIND_CLOCK = ['iso', 'numeric', 'day-name'] as const;

/** One time reader for a source: keeps the zone, and what the last call found. */
export class TimeReader extends LocalTime {
  /** What `learned` reads: a date as this source writes it. */
  template: DateTemplate | null = null;
  /** How a person says that times are written here. */
  readonly typed: TimePattern | null = this.context.timePattern === undefined ? null : timePattern(this.context.timePattern);

  /** Where the time that begins at `pos` ends, or -1 if there is none in this layout. Sets `at`. */
  read(text: string, pos: number, layout: TimeLayout): number {
    this.lacks = 'nothing';
    switch (layout) {
      case 'typed':
        return this.asTyped(text, pos);
      case 'learned':
        return this.learned(text, pos);
      case 'tai':
        return this.tai(text, pos);
      case 'iso':
        return this.iso(text, pos);
      case 'numeric':
        return this.numeric(text, pos);
      case 'access':
        return this.access(text, pos);
      case 'month-name':
        return this.monthNameOrWeekday(text, pos);
      case 'day-name':
        return this.dayName(text, this.afterWeekday(text, pos));
      case 'compact':
        return this.compact(text, pos);
      case 'epoch':
        return this.epoch(text, pos);
      case 'month-day':
        return this.monthDay(text, pos);
      case 'clock-date':
        return this.clockDate(text, pos);
      case 'clock':
        return this.clockAlone(text, pos);
    }
  }

  /** The first layout that fits at the position, with its end. */
  readAny(text: string, pos: number): { layout: TimeLayout; end: number } | null {
    if (this.typed) {
      const end = this.read(text, pos, 'typed');
      return end > 0 ? { layout: 'typed', end } : null;
    }
    const first = text.charCodeAt(pos);
    if (!isDigit(first) && !isLetter(first) && first !== 64) return null;
    for (const layout of TIME_LAYOUTS) {
      const end = this.read(text, pos, layout);
      if (end > 0) return { layout, end };
    }
    return null;
  }

  private asTyped(text: string, pos: number): number {
    const found = this.typed && readPattern(this.typed, text, pos);
    if (!found) return -1;
    const { year, month, day, dayOfYear, seconds, fraction, offset } = found.time;
    if (Number.isNaN(year)) this.lacks = 'year';
    const known = Number.isNaN(year) ? 2000 : year;
    const days = Number.isNaN(dayOfYear) ? dayNumber(known, month, day) : dayNumber(known, 1, 1) + dayOfYear - 1;
    return this.settle(text, found.end, days, seconds, micros(fraction, 0, fraction.length), offset);
  }

  private learned(text: string, pos: number): number {
    const { template } = this;
    if (!template) return -1;
    template.pattern.lastIndex = pos;
    const hit = template.pattern.exec(text);
    if (!hit) return -1;
    const first = template.clock === 1 ? 5 : 1;
    const date = readParts(template.parts, (i) => hit[first + i]!);
    const [hour, minute, second, fraction = ''] = hit.slice(template.clock, template.clock + 4) as [string, string, string, string?];
    const seconds = Number(hour) * 3600 + Number(minute) * 60 + Number(second);
    if (!date || seconds > 86_400) return -1;
    if (date.year === null) this.lacks = 'year';
    const zone = template.parts.indexOf('zone');
    const offset = zone < 0 ? NaN : abbreviationOffset(hit[first + zone]!);
    const end = pos + hit[0].length;
    return this.settle(text, end, dayNumber(date.year ?? 2000, date.month, date.day), seconds, micros(fraction, 0, fraction.length), offset);
  }

  /** @ and a TAI64 or TAI64N label: seconds of atomic time, which runs ten ahead by convention of those who write it, and nanoseconds. */
  private tai(text: string, pos: number): number {
    if (text.charCodeAt(pos) !== 64 || text.charCodeAt(pos + 1) !== 52) return -1;
    let end = pos + 1;
    while (isHexadecimal(text.charCodeAt(end))) end++;
    if ((end - pos !== 17 && end - pos !== 25) || isLetter(text.charCodeAt(end))) return -1;
    const seconds = parseInt(text.slice(pos + 2, pos + 17), 16) - 10;
    const nanoseconds = end - pos === 25 ? parseInt(text.slice(pos + 17, end), 16) : 0;
    if (seconds < 631_152_000 || seconds > 4_102_444_800 || nanoseconds >= 1e9) return -1;
    this.at = seconds * 1_000_000 + Math.floor(nanoseconds / 1000);
    return end;
  }

  private iso(text: string, pos: number): number {
    const year = digits(text, pos, 4);
    const separator = text.charCodeAt(pos + 4);
    if (year < 1970 || (separator !== 45 && separator !== 47 && separator !== 46 && separator !== 32)) return -1;
    const month = digits(text, pos + 5, 2);
    const day = digits(text, pos + 8, 2);
    if (text.charCodeAt(pos + 7) !== separator) return separator === 45 || separator === 46 ? this.ordinal(text, pos, year) : -1;
    let next = pos + 10;
    const between = text.charCodeAt(next);
    if ((between === 44 || between === 32) && text.charCodeAt(next + 1) === 32) next++;
    else if (between !== 84 && between !== 32 && between !== 95 && between !== 116 && between !== 45 && between !== 58) return -1;
    return this.clockAndZone(text, next + 1, year, month, day);
  }

  /** yyyy-ddd HH:MM:SS, the day by its number in the year (ISO 8601, ordinal dates). */
  private ordinal(text: string, pos: number, year: number): number {
    const day = digits(text, pos + 5, 3);
    const between = text.charCodeAt(pos + 8);
    if (day < 1 || day > 366 || (between !== 32 && between !== 84 && between !== 47)) return -1;
    const date = dateOf(dayNumber(year, 1, 1) + day - 1);
    return this.clockAndZone(text, pos + 9, year, date.month, date.day);
  }

  /** Day, month and year in numbers, in the order that the source is known to use. */
  private numeric(text: string, pos: number): number {
    const one = oneOrTwo(text, pos);
    if (one < 0) return -1;
    let next = pos + (isDigit(text.charCodeAt(pos + 1)) ? 2 : 1);
    const separator = text.charCodeAt(next);
    if (separator !== 46 && separator !== 47 && separator !== 45) return -1;
    const two = oneOrTwo(text, next + 1);
    if (two < 0) return -1;
    next += isDigit(text.charCodeAt(next + 2)) ? 3 : 2;
    if (text.charCodeAt(next) !== separator) return -1;
    let three = digits(text, next + 1, 4);
    next += 5;
    if (three < 0) {
      three = digits(text, next - 4, 2);
      next -= 2;
      if (three < 0) return -1;
      if (this.order !== 'year-first') three += 2000;
    } else if (this.order === 'year-first') return -1;
    if (text.charCodeAt(next) === 44) next++;
    const between = text.charCodeAt(next);
    if (between !== 32 && between !== 84 && between !== 58) return -1;
    while (text.charCodeAt(next + 1) === 32) next++;
    if (this.order === 'month-first') return this.clockAndZone(text, next + 1, three, one, two);
    if (this.order === 'year-first') return this.clockAndZone(text, next + 1, 2000 + one, two, three);
    return three < 1970 ? -1 : this.clockAndZone(text, next + 1, three, two, one);
  }

  /** dd/Mon/yyyy:HH:MM:SS +zzzz */
  private access(text: string, pos: number): number {
    const day = digits(text, pos, 2);
    if (day < 0 || text.charCodeAt(pos + 2) !== 47 || text.charCodeAt(pos + 6) !== 47 || text.charCodeAt(pos + 11) !== 58) return -1;
    const month = monthOf(text.slice(pos + 3, pos + 6));
    const year = digits(text, pos + 7, 4);
    if (month < 1 || year < 1970) return -1;
    return this.clockAndZone(text, pos + 12, year, month, day);
  }

  private afterWeekday(text: string, pos: number): number {
    const end = letterEnd(text, pos);
    if (end === pos || end - pos > 10 || !isWeekday(text.slice(pos, end))) return pos;
    let next = end;
    while (text.charCodeAt(next) === 46 || text.charCodeAt(next) === 44) next++;
    if (text.charCodeAt(next) !== 32) return pos;
    while (text.charCodeAt(next) === 32) next++;
    return next;
  }

  /** Some words name a month in one language and a weekday in another: “Mar” before a day and a clock is March. */
  private monthNameOrWeekday(text: string, pos: number): number {
    const end = this.monthName(text, pos);
    if (end > 0) return end;
    const behind = this.afterWeekday(text, pos);
    return behind === pos ? -1 : this.monthName(text, behind);
  }

  /** Mon dd HH:MM:SS (RFC 3164, section 4.1.2), with a year before or behind the clock or without one. */
  private monthName(text: string, pos: number): number {
    const wordEnd = letterEnd(text, pos);
    if (wordEnd - pos < 3 || wordEnd - pos > 12) return -1;
    const month = monthOf(text.slice(pos, wordEnd));
    if (month < 1) return -1;
    let next = wordEnd;
    if (text.charCodeAt(next) === 46) next++;
    if (text.charCodeAt(next) !== 32) return -1;
    while (text.charCodeAt(next) === 32) next++;
    const day = oneOrTwo(text, next);
    next += isDigit(text.charCodeAt(next + 1)) ? 2 : 1;
    if (day < 0 || isDigit(text.charCodeAt(next))) return -1;
    return this.yearAndClock(text, next, month, day);
  }

  /** dd Mon yyyy HH:MM:SS, with blanks, hyphens or points between. */
  private dayName(text: string, pos: number): number {
    const day = oneOrTwo(text, pos);
    if (day < 1) return -1;
    let next = pos + (isDigit(text.charCodeAt(pos + 1)) ? 2 : 1);
    if (text.charCodeAt(next) === 46) next++;
    const separator = text.charCodeAt(next);
    if (separator !== 32 && separator !== 45 && separator !== 47) return -1;
    const wordEnd = letterEnd(text, next + 1);
    const month = wordEnd - next > 13 || wordEnd - next < 4 ? 0 : monthOf(text.slice(next + 1, wordEnd));
    if (month < 1) return -1;
    next = wordEnd;
    if (text.charCodeAt(next) === 46) next++;
    return this.yearAndClock(text, next, month, day);
  }

  /** What follows day and month: a year or none, a clock, and then perhaps the year (as C's ctime writes it). */
  private yearAndClock(text: string, pos: number, month: number, day: number): number {
    let next = pos;
    while (isGap(text.charCodeAt(next))) next++;
    if (next === pos) return -1;
    const year = digits(text, next, 4);
    if (year >= 1970 && !isDigit(text.charCodeAt(next + 4))) {
      next += 4;
      const from = next;
      while (isGap(text.charCodeAt(next)) || text.charCodeAt(next) === 58) next++;
      if (next === from) return -1;
      const wordEnd = letterEnd(text, next);
      // “à 10:41”, “at 10:41”, “um 10:41”
      if (wordEnd > next && wordEnd - next <= 3 && text.charCodeAt(wordEnd) === 32) next = wordEnd + 1;
      return this.clockAndZone(text, next, year, month, day);
    }
    this.lacks = 'year';
    const end = this.clockAndZone(text, next, 2000, month, day);
    if (end < 0) return -1;
    const behind = text.charCodeAt(end) === 32 ? digits(text, end + 1, 4) : -1;
    if (behind < 1970 || behind > 2100 || !(end + 5 === text.length || text.charCodeAt(end + 5) <= 32 || text.charCodeAt(end + 5) === 93)) return end;
    this.lacks = 'nothing';
    this.clockAndZone(text, next, behind, month, day);
    return end + 5;
  }

  /** yyyymmdd HHMMSS with or without something between, also with a clock in colons. */
  private compact(text: string, pos: number): number {
    const year = digits(text, pos, 4);
    if (year < 1970 || year > 2100) return -1;
    const month = digits(text, pos + 4, 2);
    const day = digits(text, pos + 6, 2);
    if (month < 1 || month > 12 || day < 1 || day > 31) return -1;
    let next = pos + 8;
    const between = text.charCodeAt(next);
    const gap = between === 84 || between === 32 || between === 45 || between === 95 || between === 46 || between === 58;
    if (gap) next++;
    if (gap && text.charCodeAt(next + 2) === 58) return this.clockAndZone(text, next, year, month, day);
    const hour = digits(text, next, 2);
    const minute = digits(text, next + 2, 2);
    const second = digits(text, next + 4, 2);
    if (hour < 0 || hour > 23 || minute < 0 || minute > 59 || second < 0 || second > 60) return -1;
    next += 6;
    const point = text.charCodeAt(next);
    const from = point === 46 || point === 44 ? next + 1 : next;
    let end = from;
    while (isDigit(text.charCodeAt(end))) end++;
    if (end === from) end = next;
    else if (from === next && end - from !== 3 && end - from !== 6 && end - from !== 9) return -1;
    return this.settle(text, end, dayNumber(year, month, day), hour * 3600 + minute * 60 + second, end > next ? micros(text, from, end) : 0);
  }

  private epoch(text: string, pos: number): number {
    let end = pos;
    while (isDigit(text.charCodeAt(end))) end++;
    const length = end - pos;
    if (length !== 10 && length !== 13 && length !== 16 && length !== 19) return -1;
    let value = Number(text.slice(pos, pos + Math.min(length, 16)));
    if (length === 13) value *= 1000;
    else if (length === 10) value *= 1_000_000;
    if (length <= 13 && (text.charCodeAt(end) === 46 || text.charCodeAt(end) === 44) && isDigit(text.charCodeAt(end + 1))) {
      const from = end + 1;
      end = from;
      while (isDigit(text.charCodeAt(end))) end++;
      value += length === 10 ? micros(text, from, end) : Math.floor(micros(text, from, end) / 1000);
    }
    // a number that letters follow is a part of something else
    if (value < 631_152_000e6 || value > 4_102_444_800e6 || isLetter(text.charCodeAt(end))) return -1;
    this.at = value;
    return end;
  }

  /** mmdd HH:MM:SS.ffffff behind a letter for the level; mm-dd, mm/dd, dd/mm and dd.mm. before a clock with seconds. */
  private monthDay(text: string, pos: number): number {
    const one = digits(text, pos, 2);
    const separator = text.charCodeAt(pos + 2);
    const apart = separator === 45 || separator === 46 || separator === 47;
    const two = digits(text, apart ? pos + 3 : pos + 2, 2);
    let next = apart ? pos + 5 : pos + 4;
    if (separator === 46 && text.charCodeAt(next) === 46) next++;
    if (one < 1 || two < 1 || text.charCodeAt(next) !== 32 || digits(text, next + 1, 2) < 0) return -1;
    if (apart && (text.charCodeAt(next + 3) !== 58 || text.charCodeAt(next + 6) !== 58)) return -1;
    this.lacks = 'year';
    const dayFirst = apart && (separator === 46 || (this.context.dateOrder ? this.order === 'day-first' : one > 12));
    return dayFirst ? this.clockAndZone(text, next + 1, 2000, two, one) : this.clockAndZone(text, next + 1, 2000, one, two);
  }

  /** HH:MM:SS before the date. */
  private clockDate(text: string, pos: number): number {
    if (digits(text, pos, 2) < 0 || text.charCodeAt(pos + 2) !== 58 || text.charCodeAt(pos + 5) !== 58) return -1;
    let clock = pos + 8;
    while (isDigit(text.charCodeAt(clock)) || text.charCodeAt(clock) === 46 || text.charCodeAt(clock) === 44) clock++;
    const from = clock + 1;
    if (text.charCodeAt(clock) !== 32 || digits(text, from, 2) < 0) return -1;
    let end = from;
    while (end < from + 11 && (isDigit(text.charCodeAt(end)) || isLetter(text.charCodeAt(end)) || isBetween(text.charCodeAt(end)))) end++;
    if (end - from < 8 || end - from > 11) return -1;
    const turned = `${text.slice(from, end)} ${text.slice(pos, clock)}`;
    return BEHIND_CLOCK.some((layout) => this.read(turned, 0, layout) === turned.length) ? end : -1;
  }

  private clockAlone(text: string, pos: number): number {
    if (oneOrTwo(text, pos) < 0 || isDigit(text.charCodeAt(pos - 1))) return -1;
    const colon = text.charCodeAt(pos + 1) === 58 ? pos + 1 : pos + 2;
    if (text.charCodeAt(colon) !== 58 || text.charCodeAt(colon + 3) !== 58) return -1;
    this.lacks = 'day';
    return this.clockAndZone(text, pos, 1970, 1, 1);
  }
}

/** Blank, hyphen, comma, slash: what stands between the parts of a date with a month's name. */
const isGap = (code: number): boolean => code === 32 || code === 45 || code === 44 || code === 47;
/** Hyphen, point, slash: what stands between the numbers of a date. */
const isBetween = (code: number): boolean => code >= 45 && code <= 47;
const isHexadecimal = (code: number): boolean => isDigit(code) || (code >= 97 && code <= 102);
