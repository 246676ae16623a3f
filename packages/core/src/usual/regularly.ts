import { zoneClock } from '../reading/zones.ts';
import type { Microseconds } from '../units.ts';
import { awayFromTheRest, medianOf, ranksOf, SURE } from './ranks.ts';

/** Hours of the day or days of the week at which something regularly goes otherwise than at others. */
export interface Span {
  by: 'hour' | 'weekday';
  /** The first one, hours from 0, days from 0 for Sunday, in the zone. */
  from: number;
  /** How many in a row, around midnight or the end of the week as well. */
  count: number;
}

/** A case of something that takes a time or counts something. */
export interface Case {
  at: Microseconds;
  value: number;
}

export interface Regular {
  span: Span;
  inside: Case[];
  /** Different days on which it was so. */
  days: number;
}

const FEWEST_CASES = 10;
/** An incident of one morning is not usual. */
const FEWEST_DAYS = 3;
/** On so many of the days it has to be so. */
const MOST_DAYS = 0.75;
const LONGEST = { hour: 12, weekday: 3 } as const;
const SLOTS = { hour: 24, weekday: 7 } as const;
const HOUR_MS = 3_600_000;
const DAY_MS = 24 * HOUR_MS;

/** Local hours and days of moments; keeps the clock of a zone. */
export class LocalSlots {
  private readonly clock;
  /** By the hours since 1970: zones change at whole hours of UTC, all but one. */
  private readonly offsets = new Map<number, number>();
  constructor(zone: string) {
    this.clock = zoneClock(zone);
  }
  hour(at: Microseconds): number {
    return Math.floor((this.local(at) / HOUR_MS) % 24);
  }
  weekday(at: Microseconds): number {
    // the first day of 1970 was a Thursday
    return (this.day(at) + 4) % 7;
  }
  /** Days since 1970. */
  day(at: Microseconds): number {
    return Math.floor(this.local(at) / DAY_MS);
  }
  isIn({ by, from, count }: Span, at: Microseconds): boolean {
    const slot = by === 'hour' ? this.hour(at) : this.weekday(at);
    return (slot - from + SLOTS[by]) % SLOTS[by] < count;
  }
  private local(at: Microseconds): number {
    const utc = Math.floor(at / 1000);
    const hour = Math.floor(utc / HOUR_MS);
    let offset = this.offsets.get(hour);
    if (offset === undefined) this.offsets.set(hour, (offset = this.clock.offsetAt(hour * HOUR_MS)));
    return utc + offset;
  }
}

/**
 * The hours or weekdays at which cases regularly lie otherwise than at all others: by ranks (Mann and Whitney), where it is on several days and most of them,
 * and so far that the middle inside lies beyond nine of ten outside.
 *
 * @returns null where it does not matter when
 */
export function regularly(cases: readonly Case[], slots: LocalSlots): Regular | null {
  if (cases.length < 3 * FEWEST_CASES) return null;
  const ranks = ranksOf(cases);
  let best: { span: Span; z: number } | null = null;
  for (const by of ['hour', 'weekday'] as const) {
    const size = SLOTS[by];
    const counts = new Float64Array(size);
    const sums = new Float64Array(size);
    cases.forEach(({ at }, i) => {
      const slot = by === 'hour' ? slots.hour(at) : slots.weekday(at);
      counts[slot]!++;
      sums[slot]! += ranks.of[i]!;
    });
    for (let from = 0; from < size; from++) {
      let [n, sum] = [0, 0];
      for (let count = 1; count <= LONGEST[by]; count++) {
        n += counts[(from + count - 1) % size]!;
        sum += sums[(from + count - 1) % size]!;
        if (n < FEWEST_CASES || cases.length - n < n) continue;
        const z = awayFromTheRest(n, sum, ranks);
        if (z > (best?.z ?? SURE)) best = { span: { by, from, count }, z };
      }
    }
  }
  return best && recurring(cases, best.span, slots);
}

function recurring(cases: readonly Case[], span: Span, slots: LocalSlots): Regular | null {
  const inside = cases.filter(({ at }) => slots.isIn(span, at));
  const outside = cases.filter(({ at }) => !slots.isIn(span, at)).map(({ value }) => value).sort((a, b) => a - b); // prettier-ignore
  const at = (share: number): number => outside[Math.min(outside.length - 1, Math.floor(outside.length * share))]!;
  const middle = medianOf(inside.map(({ value }) => value));
  const isMore = middle > at(0.9);
  if (!isMore && middle >= at(0.1)) return null;
  const days = new Map<number, number[]>();
  for (const { at: moment, value } of inside) {
    const day = slots.day(moment);
    const own = days.get(day);
    if (own) own.push(value);
    else days.set(day, [value]);
  }
  const alike = [...days.values()].filter((own) => (isMore ? medianOf(own) > at(0.75) : medianOf(own) < at(0.25)));
  return days.size >= FEWEST_DAYS && alike.length >= days.size * MOST_DAYS ? { span, inside, days: days.size } : null;
}
