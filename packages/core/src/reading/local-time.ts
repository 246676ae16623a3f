import type { Duration, Microseconds } from '../units.ts';
import { dayNumber, type DateOrder } from './calendar.ts';
import { abbreviationOffset, zoneClock, type ZoneClock } from './zones.ts';
import type { ReadingContext } from './types.ts';
import { isDigit, isLetter, letterEnd, micros, digits } from './digits.ts';

const DAY: Duration = 86_400_000_000;
const HALF_YEAR = 183 * DAY;
/** Records of one source stand this much out of order at most; a clock that is further back is that of the next day. */
const OUT_OF_ORDER = DAY / 24;

/** Zones that texts name behind their times; null for words that only look like it. */
const named = new Map<string, ZoneClock | null>();
const MOST_NAMED = 1000;
function clockOf(name: string): ZoneClock | null {
  let clock = named.get(name);
  if (clock === undefined) {
    try {
      clock = zoneClock(name);
    } catch {
      clock = null; // another word with a slash: it belongs to the message
    }
    if (named.size < MOST_NAMED) named.set(name, clock);
  }
  return clock;
}
const isOfName = (code: number): boolean => isLetter(code) || isDigit(code) || code === 47 || code === 95 || code === 45 || code === 43;

/** What stands behind the date: clock, half of the day, offset or zone; and what is made of a time that lacks its day or its year. */
export class LocalTime {
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
  protected lacks: 'nothing' | 'year' | 'day' = 'nothing';

  /** The order of dates in numbers that is known, and when the source was last written. */
  get given(): DateOrder | undefined {
    return this.context.dateOrder;
  }
  /** The layout of times that a person typed. */
  get pattern(): string {
    return this.context.timePattern ?? '';
  }
  /** What was read last tells day and year. */
  get isWhole(): boolean {
    return this.lacks === 'nothing';
  }
  get modified(): Microseconds {
    return this.context.modified;
  }

  constructor(protected readonly context: ReadingContext) {
    this.clock = zoneClock(context.zone);
    this.order = context.dateOrder ?? 'day-first';
    this.anchor = context.anchor ?? NaN;
  }

  /** The record that was read last stands: later times without year or day are read as near to it. */
  reached(): void {
    this.anchor = this.at;
  }

  protected clockAndZone(text: string, pos: number, year: number, month: number, day: number): number {
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
      // behind another sign milliseconds alone are a fraction
      const odd = (point === 58 || point === 39 || point === 0x2019 || point === 0xb4) && digits(text, end + 1, 3) >= 0;
      if ((point === 46 || point === 44 || odd) && isDigit(text.charCodeAt(end + 1))) {
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

  /** @param offset minutes east of UTC that are told before, NaN where none are */
  protected settle(text: string, end: number, day: number, seconds: number, fraction: number, offset = NaN): number {
    this.local = (day * 86_400 + seconds) * 1_000_000 + fraction;
    this.end = end;
    if (!Number.isNaN(offset)) return this.finish(offset, end);
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
      const named = this.lacks === 'nothing' ? this.named(text, pos) : -1;
      if (named > 0) return named;
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

  /** The name of a zone (IANA) behind the time. */
  private named(text: string, pos: number): number {
    let stop = letterEnd(text, pos);
    if (text.charCodeAt(stop) !== 47) return -1;
    while (stop < pos + 40 && isOfName(text.charCodeAt(stop))) stop++;
    const clock = clockOf(text.slice(pos, stop));
    return clock ? this.finish((this.local - clock.toUtc(this.local, this.anchor)) / 60_000_000, stop) : -1;
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

  protected finish(offsetMinutes: number, end: number): number {
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

/** Month and day from 1 of a day since 1970. */
export function dateOf(days: number): { month: number; day: number } {
  const date = new Date(days * 86_400_000);
  return { month: date.getUTCMonth() + 1, day: date.getUTCDate() };
}

/** Behind a zone's name in brackets, where there is one. */
function afterName(text: string, end: number): number {
  if (text.charCodeAt(end) !== 91 || !isLetter(text.charCodeAt(end + 1))) return end;
  const close = text.indexOf(']', end);
  return close > 0 && close < end + 40 && text.slice(end, close).includes('/') ? close + 1 : end;
}
