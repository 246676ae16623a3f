import type { Duration, Microseconds } from '../units.ts';
import { isZone, zoneClock } from './zones.ts';

const QUARTER: Duration = 900_000_000;
/** Pairs that have to agree before a shift is believed. */
const FEWEST = 10;
const SHARE = 0.7;

/** The first time that a source names an identifier. */
export interface FirstMention {
  key: number;
  source: number;
  at: Microseconds;
}

/**
 * By source, how many identifiers it first names so many quarters of an hour later than each of the others that name them too.
 *
 * @param mentions one of each source and key at most, in order of the key
 * @param isAsked sources whose zone is in question: they are compared with the others, not with each other
 * @param farthest mentions further apart are no pair
 */
export function quartersLater(
  mentions: readonly FirstMention[],
  isAsked: (source: number) => boolean,
  farthest: Duration,
): Map<number, Map<number, number>> {
  // prettier-ignore
  const found = new Map<number, Map<number, number>>();
  for (let from = 0, to = 0; from < mentions.length; from = to) {
    while (to < mentions.length && mentions[to]!.key === mentions[from]!.key) to++;
    const same = mentions.slice(from, to);
    const others = same.filter(({ source }) => !isAsked(source));
    for (const { source, at } of same) {
      if (!isAsked(source)) continue;
      const own = found.get(source) ?? new Map<number, number>();
      found.set(source, own);
      for (const other of others) {
        const apart = at - other.at;
        const quarter = Math.round(apart / QUARTER);
        if (Math.abs(apart) < farthest) own.set(quarter, (own.get(quarter) ?? 0) + 1);
      }
    }
  }
  return found;
}

/**
 * By how much a source is shifted against others, told by identifiers that both name: whole quarters of an hour, since that is how zones differ.
 *
 * @param quarters how many identifiers are first named so many quarters of an hour later here than there
 * @returns 0 where they agree or where nothing is sure
 */
export function shiftOf(quarters: ReadonlyMap<number, number>): Duration {
  let total = 0;
  let best = 0;
  for (const [quarter, count] of quarters) {
    total += count;
    if (count > (quarters.get(best) ?? 0)) best = quarter;
  }
  const count = quarters.get(best) ?? 0;
  return count >= FEWEST && count >= total * SHARE ? best * QUARTER : 0;
}

/**
 * A zone in which a source's times fit those of the others.
 *
 * @param zone in which they were read
 * @param shift by which they then come too late
 * @param at moments at which the zones have to differ by just that, as read
 * @param candidates zones that are likely, the likeliest first
 * @returns null where none fits
 */
export function zoneFor(zone: string, shift: Duration, at: readonly Microseconds[], candidates: readonly string[]): string | null {
  const offset = (name: string, moment: Microseconds): number => zoneClock(name).offsetAt(Math.floor(moment / 1000)) * 1000;
  const hours = shift / (4 * QUARTER);
  const own = Number.isInteger(hours) ? (offset(zone, at[0] ?? 0) + shift) / (4 * QUARTER) : NaN;
  // the names of fixed offsets count to the west
  const fixed = Number.isInteger(own) ? [own === 0 ? 'UTC' : `Etc/GMT${own > 0 ? '-' : '+'}${Math.abs(own)}`] : [];
  const fits = (name: string): boolean => isZone(name) && at.every((moment) => offset(name, moment - shift) === offset(zone, moment) + shift);
  return [...candidates, ...fixed].find(fits) ?? null;
}
