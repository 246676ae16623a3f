import type { Microseconds } from '../units.ts';
import { abbreviationOffset, zoneClock, type ZoneClock } from './zones.ts';
import type { ReadingContext } from './types.ts';

/**
 * Reads times by hand, digit by digit: patterns compiled for each line cost more than all the rest of reading.
 * A layout is tried at a position; it tells where the time ends, or -1.
 */
export type TimeLayout = 'iso' | 'day-first' | 'access' | 'epoch' | 'month-name';
export const TIME_LAYOUTS: readonly TimeLayout[] = ['iso', 'day-first', 'access', 'month-name', 'epoch'];

const MONTHS = 'jan feb mar apr may jun jul aug sep oct nov dec'.split(' ');
const DAYS_BEFORE = [0, 31, 59, 90, 120, 151, 181, 212, 243, 273, 304, 334];

/** Days since 1970-01-01 of a date of the Gregorian calendar (month from 1). */
function dayNumber(year: number, month: number, day: number): number {
  const y = month > 2 ? year : year - 1;
  const leaps = Math.floor(y / 4) - Math.floor(y / 100) + Math.floor(y / 400) - 477;
  return (year - 1970) * 365 + leaps + DAYS_BEFORE[month - 1]! + day - 1;
}

/** One time reader for a source: keeps the zone, and what the last call found. */
export class TimeReader {
  /** What the last successful call read. */
  at: Microseconds = NaN;
  private readonly clock: ZoneClock;
  private local: Microseconds = 0;
  private end = 0;

  constructor(private readonly context: ReadingContext) {
    this.clock = zoneClock(context.zone);
  }

  /** Where the time that begins at `pos` ends, or -1 if there is none in this layout. Sets `at`. */
  read(text: string, pos: number, layout: TimeLayout): number {
    switch (layout) {
      case 'iso':
        return this.iso(text, pos);
      case 'day-first':
        return this.dayFirst(text, pos);
      case 'access':
        return this.access(text, pos);
      case 'month-name':
        return this.monthName(text, pos);
      case 'epoch':
        return this.epoch(text, pos);
    }
  }

  /** The first layout that fits at the position, with its end. */
  readAny(text: string, pos: number): { layout: TimeLayout; end: number } | null {
    for (const layout of TIME_LAYOUTS) {
      const end = this.read(text, pos, layout);
      if (end > 0) return { layout, end };
    }
    return null;
  }

  private iso(text: string, pos: number): number {
    const year = digits(text, pos, 4);
    const separator = text.charCodeAt(pos + 4);
    if (year < 1970 || (separator !== 45 && separator !== 47 && separator !== 46)) return -1;
    const month = digits(text, pos + 5, 2);
    const day = digits(text, pos + 8, 2);
    if (text.charCodeAt(pos + 7) !== separator) return -1;
    const between = text.charCodeAt(pos + 10);
    if (between !== 84 && between !== 32 && between !== 95 && between !== 116) return -1;
    return this.clockAndZone(text, pos + 11, year, month, day);
  }

  private dayFirst(text: string, pos: number): number {
    const day = digits(text, pos, 2);
    const separator = text.charCodeAt(pos + 2);
    if (day < 0 || (separator !== 46 && separator !== 47 && separator !== 45)) return -1;
    if (text.charCodeAt(pos + 5) !== separator) return -1;
    const month = digits(text, pos + 3, 2);
    const year = digits(text, pos + 6, 4);
    let next = pos + 10;
    if (text.charCodeAt(next) === 44) next++;
    if (year < 1970 || text.charCodeAt(next) !== 32) return -1;
    return this.clockAndZone(text, next + 1, year, month, day);
  }

  /** dd/Mon/yyyy:HH:MM:SS +zzzz */
  private access(text: string, pos: number): number {
    const day = digits(text, pos, 2);
    if (day < 0 || text.charCodeAt(pos + 2) !== 47 || text.charCodeAt(pos + 6) !== 47 || text.charCodeAt(pos + 11) !== 58) return -1;
    const month = MONTHS.indexOf(text.slice(pos + 3, pos + 6).toLowerCase()) + 1;
    const year = digits(text, pos + 7, 4);
    if (month < 1 || year < 1970) return -1;
    return this.clockAndZone(text, pos + 12, year, month, day);
  }

  /** Mon dd HH:MM:SS, without a year (RFC 3164, section 4.1.2) */
  private monthName(text: string, pos: number): number {
    const month = MONTHS.indexOf(text.slice(pos, pos + 3).toLowerCase()) + 1;
    if (month < 1 || text.charCodeAt(pos + 3) !== 32) return -1;
    const day = text.charCodeAt(pos + 4) === 32 ? digits(text, pos + 5, 1) : digits(text, pos + 4, 2);
    if (text.charCodeAt(pos + 6) !== 32) return -1;
    return this.clockAndZone(text, pos + 7, this.context.year, month, day);
  }

  private epoch(text: string, pos: number): number {
    let end = pos;
    while (isDigit(text.charCodeAt(end))) end++;
    const length = end - pos;
    if (length !== 10 && length !== 13 && length !== 16 && length !== 19) return -1;
    let value = Number(text.slice(pos, pos + Math.min(length, 16)));
    if (length === 13) value *= 1000;
    if (length === 10) {
      value *= 1_000_000;
      if (text.charCodeAt(end) === 46 && isDigit(text.charCodeAt(end + 1))) {
        const from = end + 1;
        end = from;
        while (isDigit(text.charCodeAt(end))) end++;
        value += micros(text, from, end);
      }
    }
    if (value < 631_152_000e6 || value > 4_102_444_800e6) return -1;
    this.at = value;
    return end;
  }

  private clockAndZone(text: string, pos: number, year: number, month: number, day: number): number {
    if (month < 1 || month > 12 || day < 1 || day > 31) return -1;
    const hour = digits(text, pos, 2);
    const minute = digits(text, pos + 3, 2);
    if (hour < 0 || hour > 24 || minute < 0 || minute > 59 || text.charCodeAt(pos + 2) !== 58) return -1;
    let end = pos + 5;
    let second = 0;
    let fraction = 0;
    if (text.charCodeAt(end) === 58) {
      second = digits(text, end + 1, 2);
      if (second < 0 || second > 60) return -1;
      end += 3;
      const point = text.charCodeAt(end);
      if ((point === 46 || point === 44) && isDigit(text.charCodeAt(end + 1))) {
        const from = end + 1;
        end = from;
        while (isDigit(text.charCodeAt(end))) end++;
        fraction = micros(text, from, end);
      }
    }
    this.local = (dayNumber(year, month, day) * 86_400 + hour * 3600 + minute * 60 + second) * 1_000_000 + fraction;
    this.end = end;
    return this.zoneAfter(text, end);
  }

  /** An offset, a Z or a zone's abbreviation behind the time; else the source's zone. */
  private zoneAfter(text: string, end: number): number {
    let pos = end;
    if (text.charCodeAt(pos) === 32) pos++;
    const code = text.charCodeAt(pos);
    if (code === 90 && !isLetter(text.charCodeAt(pos + 1))) return this.finish(0, pos + 1);
    if ((code === 43 || code === 45) && isDigit(text.charCodeAt(pos + 1)) && isDigit(text.charCodeAt(pos + 2))) {
      const hours = digits(text, pos + 1, 2);
      const colon = text.charCodeAt(pos + 3) === 58 ? 1 : 0;
      const minutes = digits(text, pos + 3 + colon, 2);
      if (hours <= 14 && (minutes >= 0 || !isDigit(text.charCodeAt(pos + 3)))) {
        const offset = hours * 60 + Math.max(0, minutes);
        return this.finish(code === 45 ? -offset : offset, minutes >= 0 ? pos + 5 + colon : pos + 3);
      }
    }
    if (pos > end && code >= 65 && code <= 90) {
      let stop = pos;
      while (stop < pos + 5 && text.charCodeAt(stop) >= 65 && text.charCodeAt(stop) <= 90) stop++;
      if (!isLetter(text.charCodeAt(stop))) {
        const offset = abbreviationOffset(text.slice(pos, stop));
        if (!Number.isNaN(offset)) return this.finish(offset, stop);
      }
    }
    this.at = this.clock.toUtc(this.local);
    return this.end;
  }

  private finish(offsetMinutes: number, end: number): number {
    this.at = this.local - offsetMinutes * 60_000_000;
    return end;
  }
}

const isDigit = (code: number): boolean => code >= 48 && code <= 57;
const isLetter = (code: number): boolean => (code >= 65 && code <= 90) || (code >= 97 && code <= 122);

/** The number in exactly `count` digits at `pos`, or -1. */
function digits(text: string, pos: number, count: number): number {
  let value = 0;
  for (let i = pos; i < pos + count; i++) {
    const digit = text.charCodeAt(i) - 48;
    if (!(digit >= 0 && digit <= 9)) return -1;
    value = value * 10 + digit;
  }
  return value;
}

/** A decimal fraction of a second between two positions, in whole microseconds. */
function micros(text: string, from: number, to: number): number {
  let value = 0;
  let unit = 100_000;
  for (let i = from; i < to && unit >= 1; i++, unit /= 10) value += (text.charCodeAt(i) - 48) * unit;
  return value;
}
