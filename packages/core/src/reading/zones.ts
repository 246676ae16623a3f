import type { Microseconds } from '../units.ts';

const HOUR = 3_600_000;
/** Records of one source may be this much out of order, in microseconds, before a step back counts as a clock change. */
const SLACK = 120_000_000;
const QUARTER = 900_000;
const DAY = 24 * HOUR;
const MOST_DAYS = 20_000;
const cache = new Map<string, ZoneClock>();

/**
 * Local time of one IANA zone → UTC, with the platform's zone data; offsets are kept by quarter hour of local time.
 * An hour that a clock change repeats is taken as its first occurrence, or as its second where the source has passed the first already;
 * an hour that it leaves out is moved forward.
 */
export class ZoneClock {
  private readonly format: Intl.DateTimeFormat;
  private readonly offsets = new Map<number, { first: number; second: number }>();
  /** By day of UTC; NaN for one on which it changes: then each instant is worked out. */
  private readonly steady = new Map<number, number>();
  private lastSlot = NaN;
  private last = { first: 0, second: 0 };

  /** @throws RangeError when the zone is not known */
  constructor(readonly zone: string) {
    this.format = new Intl.DateTimeFormat('en-US', {
      timeZone: zone,
      hourCycle: 'h23',
      year: 'numeric',
      month: 'numeric',
      day: 'numeric',
      hour: 'numeric',
      minute: 'numeric',
      second: 'numeric',
    });
  }

  /** Offset from UTC in milliseconds at an instant (milliseconds of UTC). */
  offsetAt(utcMs: number): number {
    const day = Math.floor(utcMs / DAY);
    let offset = this.steady.get(day);
    if (offset === undefined) {
      const [first, last] = [this.workedOut(day * DAY), this.workedOut((day + 1) * DAY - 1000)];
      offset = first === last ? first : NaN;
      if (this.steady.size >= MOST_DAYS) this.steady.clear();
      this.steady.set(day, offset);
    }
    return Number.isNaN(offset) ? this.workedOut(utcMs) : offset;
  }
  private workedOut(utcMs: number): number {
    const part: Record<string, number> = {};
    for (const { type, value } of this.format.formatToParts(utcMs)) part[type] = Number(value);
    const local = Date.UTC(part.year!, part.month! - 1, part.day!, part.hour!, part.minute!, part.second!);
    return local - Math.floor(utcMs / 1000) * 1000;
  }

  /**
   * UTC of a local wall-clock time, both in microseconds.
   *
   * @param reached where the source stands: tells which of two readings follows, NaN where nothing is known
   */
  toUtc(local: Microseconds, reached: Microseconds = NaN): Microseconds {
    const slot = Math.floor(local / 900_000_000);
    if (slot !== this.lastSlot) {
      this.lastSlot = slot;
      this.last = this.offsetsOfSlot(slot);
    }
    const at = local - this.last.first * 1000;
    if (this.last.second === this.last.first || !(reached > at + SLACK)) return at;
    const later = local - this.last.second * 1000;
    return Math.abs(later - reached) < reached - at ? later : at;
  }

  private offsetsOfSlot(slot: number): { first: number; second: number } {
    const known = this.offsets.get(slot);
    if (known !== undefined) return known;
    const localMs = slot * QUARTER;
    const before = this.offsetAt(localMs - 14 * HOUR);
    const after = this.offsetAt(localMs + 14 * HOUR);
    let first = before;
    let second = before;
    if (before !== after) {
      if (this.offsetAt(localMs - before) !== before) first = after;
      second = this.offsetAt(localMs - after) === after && first === before && after < before ? after : first;
    }
    const found = { first, second };
    this.offsets.set(slot, found);
    return found;
  }
}

/** One clock a zone for the whole process. */
export function zoneClock(zone: string): ZoneClock {
  let clock = cache.get(zone);
  if (!clock) cache.set(zone, (clock = new ZoneClock(zone)));
  return clock;
}

export function isZone(zone: string): boolean {
  try {
    zoneClock(zone);
    return true;
  } catch {
    return false;
  }
}

/** Zone abbreviations that database servers and programs write, in minutes east of UTC. Only those with one meaning in common use. */
const ABBREVIATIONS: Record<string, number> = {
  UTC: 0,
  GMT: 0,
  Z: 0,
  WET: 0,
  WEST: 60,
  CET: 60,
  CEST: 120,
  MEZ: 60,
  MESZ: 120,
  EET: 120,
  EEST: 180,
  MSK: 180,
  BST: 60,
  EST: -300,
  EDT: -240,
  CDT: -300,
  MST: -420,
  MDT: -360,
  PST: -480,
  PDT: -420,
  JST: 540,
};
/** Minutes east of UTC, NaN for an abbreviation that is not known. */
export const abbreviationOffset = (text: string): number => (Object.hasOwn(ABBREVIATIONS, text) ? ABBREVIATIONS[text]! : NaN);
