import { daysBefore, slotsOf, type SlotSeen } from '@fadenweg/core/rounds';
import type { Duration, Microseconds } from '@fadenweg/core/units';
import type { Range, SumRepository } from '../rollups/sums.ts';

const HOUR = 3_600_000_000;
const DAY = 24 * HOUR;
/** Longer windows are summed by hours. */
const LONG = 2 * DAY;
/** Earlier days that are looked at. */
const DAYS = 28;
const WEEK = 7;
/** So many earlier weeks or days, each seen in most of its slots, make a usual. */
const FEWEST = 3;

export interface Asked {
  from: Microseconds;
  to: Microseconds;
  environment: string[];
  zone: string;
}
/** A window in slots, and the earlier slots that it is compared with. */
export interface Window {
  length: Duration;
  bounds: Microseconds[];
  slots: SlotSeen[];
  usualBy: 'week' | 'day' | 'window';
  /** Of the earlier days, those of which anything was collected in that slot. */
  past: Range[];
  days: number;
}

/**
 * Cuts a window into slots and finds what it is compared with: the same hours of that weekday in earlier weeks; where fewer than three of those are known, of earlier days; else
 * the window itself. Slots in which nothing was collected tell nothing.
 */
export async function windowOf(sums: SumRepository, { from, to, environment, zone }: Asked): Promise<Window> {
  const [begin, end] = to - from > LONG ? [Math.floor(from / HOUR) * HOUR, Math.ceil(to / HOUR) * HOUR] : [from, to];
  const { length, bounds } = slotsOf(begin, end, zone);
  const own = rangesOf(bounds, 0);
  const first = Math.ceil((end - begin) / DAY);
  const earlier = Array.from({ length: DAYS }, (_, i) => first + i).flatMap((day) => rangesOf(daysBefore(bounds, day, zone), day));
  const [seen, evidence] = await Promise.all([sums.seen([...own, ...earlier], environment), sums.evidence(environment)]);
  // of a slot counts what of it was asked for, and as far as our evidence reaches
  const [since, until] = [Math.max(from, evidence?.from ?? from), Math.min(to, evidence?.to ?? to)];
  const slots = own.map((one, i) => ({ exposure: Math.max(0, Math.min(one.to, until) - Math.max(one.from, since)) / length, seen: seen[i]! }));
  const known = earlier.filter((_, i) => seen[own.length + i]!);
  const bySeen = new Map<number, number>();
  for (const { day } of known) bySeen.set(day, (bySeen.get(day) ?? 0) + 1);
  const whole = [...bySeen].flatMap(([day, count]) => (2 * count >= own.length ? [day] : []));
  const weeks = whole.filter((day) => day % WEEK === 0);
  const [usualBy, days] =
    weeks.length >= FEWEST ? (['week', weeks] as const) : whole.length >= FEWEST ? (['day', whole] as const) : (['window', []] as const);
  const taken = new Set(days);
  return { length, bounds, slots, usualBy, past: known.filter((one) => taken.has(one.day)), days: taken.size };
}

export const rangesOf = (bounds: readonly Microseconds[], day: number): Range[] =>
  bounds.slice(1).map((to, place) => ({ place, day, from: bounds[place]!, to }));
