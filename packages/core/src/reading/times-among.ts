import type { Microseconds } from '../units.ts';
import { readInOrder, type DateOrder } from './calendar.ts';
import type { ReadingHints } from './types.ts';
import { FEWEST_PAIRS, pairsOf, zoneOf, zoneOfDate, zonesAmong, type FirstMention } from './zone-guess.ts';
import { zoneClock } from './zones.ts';

const DAY = 86_400_000_000;
/** Sources that end further apart are of different years. */
const APART = 0.6 * 365 * DAY;
const ORDERS: readonly DateOrder[] = ['day-first', 'month-first', 'year-first'];

/** A source that was read, as much of it as tells how its times compare with those of others. */
export interface TimedSource {
  id: number;
  /** With what it was brought in. */
  importId: number;
  environment: string;
  /** IANA name of the zone in which it was read, and who says so. */
  zone: string;
  zoneBy: 'given' | 'guessed' | 'set';
  hints: ReadingHints;
  /** Between which moments it speaks. */
  first: Microseconds;
  last: Microseconds;
}
/** What was brought in together, and until when it speaks. */
export interface Brought {
  importId: number;
  environment: string;
  end: Microseconds;
}
/** How a source is to be read instead. */
export interface BetterTimes {
  id: number;
  zone?: string;
  hints?: ReadingHints;
}

/**
 * A year that a source does not state is that of what came with it, or else of what else there is in its environment.
 *
 * @param lacking sources that state no year
 * @param told when others end that state theirs
 */
export function yearsAmong(lacking: readonly TimedSource[], told: readonly Brought[]): BetterTimes[] {
  const endFor = (source: TimedSource): number | undefined => {
    const own = told.filter((one) => one.environment === source.environment);
    const beside = own.filter((one) => one.importId === source.importId);
    const ends = (beside.length > 0 ? beside : own).map((one) => one.end);
    return ends.length > 0 ? Math.max(...ends) : undefined;
  };
  // once: where it still ends in another year then, it does so by what it says itself
  const isNew = ({ hints: { yearBy } }: TimedSource, end: number): boolean => yearBy === undefined || Math.abs(yearBy - end) > APART;
  return lacking.flatMap((source) => {
    const end = endFor(source);
    if (end === undefined || !isNew(source, end) || Math.abs(source.last - end) <= APART) return [];
    return [{ id: source.id, hints: { ...source.hints, modified: end + DAY, yearBy: end } }];
  });
}

/**
 * Dates that may be read in two orders are read in the one in which they fall together with what came with them, or else with what is there.
 *
 * @param open sources whose order was guessed
 * @param sure others of their environments
 */
export function ordersAmong(
  open: readonly TimedSource[],
  sure: readonly Pick<TimedSource, 'importId' | 'environment' | 'first' | 'last'>[],
): BetterTimes[] {
  return open.flatMap((source) => {
    const all = sure.filter((one) => one.environment === source.environment);
    const beside = all.filter((one) => one.importId === source.importId);
    const others = beside.length > 0 ? beside : all;
    const read = source.hints.dateOrder ?? 'day-first';
    const overlaps = (order: DateOrder): boolean => {
      const [from, to] = [source.first, source.last].map((at) => readInOrder(at, read, order)).sort((a, b) => a - b);
      return others.some((one) => from! <= one.last + DAY && to! >= one.first - DAY);
    };
    if (others.length === 0 || overlaps(read)) return [];
    const better = ORDERS.filter((order) => order !== read && overlaps(order));
    return better.length === 1 ? [{ id: source.id, hints: { ...source.hints, dateOrder: better[0]!, orderBy: 'neighbours' as const } }] : [];
  });
}

/**
 * A zone that a source does not state is one in which its identifiers fall together with those of sources that state theirs; else that in which it ends with its file; else,
 * where others without a zone name the same at other hours, one that is named, if that explains it in one way alone.
 *
 * @param lacking sources of one environment that state no zone
 * @param mentions what sources name first, in order of the key; those of `lacking` by their wall clock
 * @param likely zones that a source may be in, the likeliest first
 */
export function zonesFor(
  lacking: readonly TimedSource[],
  mentions: readonly FirstMention[],
  likely: (source: TimedSource) => string[],
): BetterTimes[] {
  const asked = new Set(lacking.map((source) => source.id));
  const found = new Map<number, string>();
  const open: TimedSource[] = [];
  const sure = pairsOf(mentions, (source) => asked.has(source));
  for (const source of lacking) {
    const pairs = sure.get(source.id) ?? [];
    const zone = zoneOf(pairs, source.zone, likely(source));
    // what was guessed gives way to what more pairs say, and to nothing else: without new evidence it stays
    const byDate = zone === null && pairs.length < FEWEST_PAIRS && source.zoneBy === 'given';
    const dated = byDate ? zoneOfDate(wallClock(source.last, source.zone), source.hints.modified, source.zone, likely(source)) : null;
    if (zone ?? dated) found.set(source.id, (zone ?? dated)!);
    else if (byDate) open.push(source);
  }
  const zones = new Map(lacking.map(({ id, zone }) => [id, found.get(id) ?? zone]));
  const left = open.map((source) => ({ id: source.id, zone: source.zone, likely: likely(source) }));
  for (const [id, zone] of zonesAmong(left, mentions, zones)) found.set(id, zone);
  return [...found].map(([id, zone]) => ({ id, zone }));
}

/**
 * Zones that a source may be in: those that are named on its machine, then in its environment, then those in which others are read.
 *
 * @param beside sources of its environment with the number of their host
 * @param own zone of this machine
 */
export function likelyZones(
  host: number,
  beside: readonly { host: number; zone: string; zoneBy: TimedSource['zoneBy']; hints: ReadingHints }[],
  own: string,
): string[] {
  const named = ({ hints, zone, zoneBy }: (typeof beside)[number]): string[] => [
    ...(hints.regions ?? []),
    ...(zone !== 'UTC' && (zoneBy === 'set' || hints.lacksZone) && !zone.startsWith('Etc/') ? [zone] : []),
  ];
  const machine = beside.filter((one) => one.host === host);
  return [...new Set([...machine.flatMap(named), ...beside.flatMap(named), 'UTC', own])];
}

/** The wall clock as it is written. */
export const wallClock = (at: Microseconds, zone: string): Microseconds => at + zoneClock(zone).offsetAt(Math.floor(at / 1000)) * 1000;
