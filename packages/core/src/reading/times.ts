import type { Duration, Microseconds } from '../units.ts';
import { dayNumber, isWeekday, monthOf, type DateOrder } from './calendar.ts';
import { abbreviationOffset, zoneClock, type ZoneClock } from './zones.ts';
import type { ReadingContext } from './types.ts';
import { isDigit, isLetter, letterEnd, micros, digits, oneOrTwo } from './digits.ts';

/**
 * Reads times by hand, digit by digit: patterns compiled for each line cost more than all the rest of reading.
 * A layout is tried at a position; it tells where the time ends, or -1.
 */
export type TimeLayout = 'iso' | 'numeric' | 'access' | 'month-name' | 'day-name' | 'compact' | 'epoch' | 'month-day' | 'clock';
/** From the most telling to the barest. */
export const TIME_LAYOUTS: readonly TimeLayout[] = ['iso', 'numeric', 'access', 'month-name', 'day-name', 'compact', 'epoch', 'month-day', 'clock'];

const DAY: Duration = 86_400_000_000;
const HALF_YEAR = 183 * DAY;
/** Records of one source stand this much out of order at most; a clock that is further back is that of the next day. */
const OUT_OF_ORDER = DAY / 24;

/** One time reader for a source: keeps the zone, and what the last call found. */
export class TimeReader {
  /** What the last successful call read. */
  at: Microseconds = NaN;
  /** The moment that the source has reached; gives the year and the day to times that lack them. */
  anchor: Microseconds;
  private readonly clock: ZoneClock;
  /** How dates in numbers alone are read. */
  readonly order: DateOrder;
  private local: Microseconds = 0;
  private end = 0;
  /** Local time lacks its year or its day. */
  private lacks: 'nothing' | 'year' | 'day' = 'nothing';

  constructor(private readonly context: ReadingContext) {
    this.clock = zoneClock(context.zone);
    this.order = context.dateOrder ?? 'day-first';
    this.anchor = context.anchor ?? NaN;
  }

  /** Where the time that begins at `pos` ends, or -1 if there is none in this layout. Sets `at`. */
  read(text: string, pos: number, layout: TimeLayout): number {
    this.lacks = 'nothing';
    switch (layout) {
      case 'iso':
        return this.iso(text, pos);
      case 'numeric':
        return this.numeric(text, pos);
      case 'access':
        return this.access(text, pos);
      case 'month-name':
        return this.monthName(text, this.afterWeekday(text, pos));
      case 'day-name':
        return this.dayName(text, this.afterWeekday(text, pos));
      case 'compact':
        return this.compact(text, pos);
      case 'epoch':
        return this.epoch(text, pos);
      case 'month-day':
        return this.monthDay(text, pos);
      case 'clock':
        return this.clockAlone(text, pos);
    }
  }

  /** The first layout that fits at the position, with its end. */
  readAny(text: string, pos: number): { layout: TimeLayout; end: number } | null {
    const first = text.charCodeAt(pos);
    if (!isDigit(first) && !isLetter(first)) return null;
    for (const layout of TIME_LAYOUTS) {
      const end = this.read(text, pos, layout);
      if (end > 0) return { layout, end };
    }
    return null;
  }

  /** The record that was read last stands: later times without year or day are read as near to it. */
  reached(): void {
    this.anchor = this.at;
  }

  private iso(text: string, pos: number): number {
    const year = digits(text, pos, 4);
    const separator = text.charCodeAt(pos + 4);
    if (year < 1970 || (separator !== 45 && separator !== 47 && separator !== 46)) return -1;
    const month = digits(text, pos + 5, 2);
    const day = digits(text, pos + 8, 2);
    if (text.charCodeAt(pos + 7) !== separator) return -1;
    let next = pos + 10;
    const between = text.charCodeAt(next);
    if ((between === 44 || between === 32) && text.charCodeAt(next + 1) === 32) next++;
    else if (between !== 84 && between !== 32 && between !== 95 && between !== 116 && between !== 45 && between !== 58) return -1;
    return this.clockAndZone(text, next + 1, year, month, day);
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
    if (value < 631_152_000e6 || value > 4_102_444_800e6) return -1;
    this.at = value;
    return end;
  }

  /** mmdd HH:MM:SS.ffffff behind a letter for the level. */
  private monthDay(text: string, pos: number): number {
    const month = digits(text, pos, 2);
    const day = digits(text, pos + 2, 2);
    if (month < 1 || text.charCodeAt(pos + 4) !== 32 || digits(text, pos + 5, 2) < 0) return -1;
    this.lacks = 'year';
    return this.clockAndZone(text, pos + 5, 2000, month, day);
  }

  private clockAlone(text: string, pos: number): number {
    if (oneOrTwo(text, pos) < 0 || isDigit(text.charCodeAt(pos - 1))) return -1;
    const colon = text.charCodeAt(pos + 1) === 58 ? pos + 1 : pos + 2;
    if (text.charCodeAt(colon) !== 58 || text.charCodeAt(colon + 3) !== 58) return -1;
    this.lacks = 'day';
    return this.clockAndZone(text, pos, 1970, 1, 1);
  }

  private clockAndZone(text: string, pos: number, year: number, month: number, day: number): number {
    if (month < 1 || month > 12 || day < 1 || day > 31) return -1;
    let next = pos + 2;
    let hour = digits(text, pos, 2);
    if (hour < 0) {
      hour = digits(text, pos, 1);
      next = pos + 1;
    }
    const colon = text.charCodeAt(next);
    const minute = digits(text, next + 1, 2);
    if (hour < 0 || hour > 24 || minute < 0 || minute > 59 || (colon !== 58 && colon !== 46)) return -1;
    let end = next + 3;
    let second = 0;
    let fraction = 0;
    if (text.charCodeAt(end) === colon) {
      second = digits(text, end + 1, 2);
      if (second < 0 || second > 60) return -1;
      end += 3;
      const point = text.charCodeAt(end);
      if ((point === 46 || point === 44 || (point === 58 && digits(text, end + 1, 3) >= 0)) && isDigit(text.charCodeAt(end + 1))) {
        const from = end + 1;
        end = from;
        while (isDigit(text.charCodeAt(end))) end++;
        fraction = micros(text, from, end);
      }
    } else if (colon !== 58) return -1;
    const half = text.charCodeAt(end) === 32 ? end + 1 : end;
    const letter = text.charCodeAt(half) | 32;
    if ((letter === 97 || letter === 112) && hour >= 1 && hour <= 12) {
      const afterPoint = text.charCodeAt(half + 1) === 46 ? half + 2 : half + 1;
      const stop = afterPoint + (text.charCodeAt(afterPoint + 1) === 46 ? 2 : 1);
      if ((text.charCodeAt(afterPoint) | 32) === 109 && !isLetter(text.charCodeAt(stop))) {
        hour = (hour % 12) + (letter === 112 ? 12 : 0);
        end = stop;
      }
    }
    return this.settle(text, end, dayNumber(year, month, day), hour * 3600 + minute * 60 + second, fraction);
  }

  private settle(text: string, end: number, day: number, seconds: number, fraction: number): number {
    this.local = (day * 86_400 + seconds) * 1_000_000 + fraction;
    this.end = end;
    return this.zoneAfter(text, end);
  }

  /** An offset, a Z or a zone's abbreviation behind the time; else the source's zone. */
  private zoneAfter(text: string, end: number): number {
    let pos = end;
    if (text.charCodeAt(pos) === 32) pos++;
    const code = text.charCodeAt(pos);
    if (code === 90 && !isLetter(text.charCodeAt(pos + 1))) return this.finish(0, afterName(text, pos + 1));
    if (code === 43 || code === 45) {
      const stop = this.offset(text, pos);
      if (stop > 0) return stop;
    }
    if (pos > end && code >= 65 && code <= 90) {
      let stop = pos;
      while (stop < pos + 5 && text.charCodeAt(stop) >= 65 && text.charCodeAt(stop) <= 90) stop++;
      if (!isLetter(text.charCodeAt(stop))) {
        const offset = abbreviationOffset(text.slice(pos, stop));
        const sign = text.charCodeAt(stop);
        if (offset === 0 && (sign === 43 || sign === 45)) {
          const further = this.offset(text, stop);
          if (further > 0) return further;
        }
        if (!Number.isNaN(offset)) return this.finish(offset, stop);
      }
    }
    this.complete(NaN);
    return this.end;
  }

  /** ±hh, ±hhmm or ±hh:mm, perhaps with the zone's name in brackets behind. */
  private offset(text: string, pos: number): number {
    const hours = digits(text, pos + 1, 2);
    if (hours < 0 || hours > 14) return -1;
    const colon = text.charCodeAt(pos + 3) === 58 ? 1 : 0;
    const minutes = digits(text, pos + 3 + colon, 2);
    if (minutes < 0 && isDigit(text.charCodeAt(pos + 3))) return -1;
    const offset = hours * 60 + Math.max(0, minutes);
    return this.finish(text.charCodeAt(pos) === 45 ? -offset : offset, afterName(text, minutes >= 0 ? pos + 5 + colon : pos + 3));
  }

  private finish(offsetMinutes: number, end: number): number {
    this.complete(offsetMinutes);
    return end;
  }

  /**
   * Sets `at`; a missing year or day is the one that lies nearest to where the source stands, and before its end where it only begins.
   *
   * @param offset minutes east of UTC that the record states, NaN where it states none
   */
  private complete(offset: number): void {
    if (this.lacks === 'nothing') this.at = this.toUtc(this.local, offset);
    else if (this.lacks === 'day') this.completeDay(offset);
    else this.completeYear(offset);
  }
  private toUtc(local: Microseconds, offset: number): Microseconds {
    return Number.isNaN(offset) ? this.clock.toUtc(local, this.anchor) : local - offset * 60_000_000;
  }

  private completeDay(offset: number): void {
    const begun = !Number.isNaN(this.anchor);
    const near = begun ? this.anchor : this.context.modified;
    const clock = this.local;
    const localNear = near + this.clock.offsetAt(Math.floor(near / 1000)) * 1000;
    let local = Math.floor(localNear / DAY) * DAY + clock;
    if (begun) local += Math.ceil((localNear - OUT_OF_ORDER - local) / DAY) * DAY;
    else if (this.context.firstDay !== undefined) local = this.context.firstDay * DAY + clock;
    else if (local > localNear + DAY / 24) local -= DAY;
    this.at = this.toUtc(local, offset);
  }

  private completeYear(offset: number): void {
    const begun = !Number.isNaN(this.anchor);
    const near = begun ? this.anchor : this.context.modified;
    const days = Math.floor(this.local / DAY);
    const rest = this.local - days * DAY;
    const { month, day } = dateOf(days);
    const year = new Date(near / 1000).getUTCFullYear();
    const inYear = (one: number): Microseconds => this.toUtc(dayNumber(one, month, day) * DAY + rest, offset);
    this.at = inYear(year);
    if (begun) {
      if (this.at < near - HALF_YEAR) this.at = inYear(year + 1);
      else if (this.at > near + HALF_YEAR) this.at = inYear(year - 1);
    } else if (this.at > near + 1.5 * DAY) this.at = inYear(year - 1);
  }
}

function dateOf(days: number): { month: number; day: number } {
  const date = new Date(days * 86_400_000);
  return { month: date.getUTCMonth() + 1, day: date.getUTCDate() };
}
/** Blank, hyphen, comma, slash: what stands between the parts of a date with a month's name. */
const isGap = (code: number): boolean => code === 32 || code === 45 || code === 44 || code === 47;

/** Behind a zone's name in brackets, where there is one. */
function afterName(text: string, end: number): number {
  if (text.charCodeAt(end) !== 91 || !isLetter(text.charCodeAt(end + 1))) return end;
  const close = text.indexOf(']', end);
  return close > 0 && close < end + 40 && text.slice(end, close).includes('/') ? close + 1 : end;
}
