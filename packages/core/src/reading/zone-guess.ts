import type { Duration, Microseconds } from '../units.ts';
import { isZone, zoneClock } from './zones.ts';

const QUARTER: Duration = 900_000_000;
const HOUR = 4 * QUARTER;
/** Pairs that have to agree before a zone is believed. */
export const FEWEST_PAIRS = 10;
const SHARE = 0.7;
/** So many pairs are compared at most, from all over them. */
const MOST_PAIRS = 3000;
/** Mentions further apart are no pair. */
const FARTHEST: Duration = 15 * HOUR;
/** So many more pairs have to fit a zone that nothing names. */
const CLEARLY = 1.02;
/** The date of a file and its last line are so far apart at most where the file was last written with it. */
const WITH_LAST_LINE: Duration = 2_000_000;

/** One region of each rule by which clocks change, and of each offset that is no whole hour (of the zone data of 2025). */
const REGIONS = (
  'Europe/Berlin Europe/London Europe/Helsinki Europe/Chisinau America/New_York America/Chicago America/Denver America/Los_Angeles America/Anchorage America/Adak ' +
  'America/Halifax America/St_Johns America/Nuuk America/Havana America/Santiago Pacific/Easter Atlantic/Azores Africa/Cairo Africa/Casablanca Asia/Jerusalem Asia/Gaza ' +
  'Asia/Beirut Australia/Sydney Australia/Adelaide Australia/Lord_Howe Pacific/Auckland Pacific/Chatham Pacific/Norfolk Asia/Kolkata Asia/Kathmandu Asia/Kabul Asia/Tehran ' +
  'Asia/Yangon Australia/Darwin Australia/Eucla Pacific/Marquesas'
).split(' ');

/** The first time that a source names an identifier. */
export interface FirstMention {
  key: number;
  source: number;
  /** For a source in question the wall clock, as it is written; for others the moment. */
  at: Microseconds;
}
/** An identifier's first mention in a source whose zone is in question, and in one whose zone is known. */
export interface TimePair {
  /** The wall clock, as it is written. */
  local: Microseconds;
  /** The moment at which the other one names it. */
  at: Microseconds;
}

/**
 * By source, what it names first together with each of the others that name it too.
 *
 * @param mentions one of each source and key at most, in order of the key
 * @param isAsked sources whose zone is in question: they are compared with the others, not with each other
 */
export function pairsOf(mentions: readonly FirstMention[], isAsked: (source: number) => boolean): Map<number, TimePair[]> {
  const found = new Map<number, TimePair[]>();
  for (const same of byKey(mentions)) {
    const others = same.filter(({ source }) => !isAsked(source));
    for (const { source, at: local } of same) {
      if (!isAsked(source)) continue;
      const own = found.get(source) ?? [];
      found.set(source, own);
      for (const { at } of others) if (Math.abs(local - at) < FARTHEST) own.push({ local, at });
    }
  }
  return found;
}
function* byKey(mentions: readonly FirstMention[]): Generator<FirstMention[]> {
  for (let from = 0, to = 0; from < mentions.length; from = to) {
    while (to < mentions.length && mentions[to]!.key === mentions[from]!.key) to++;
    yield mentions.slice(from, to);
  }
}

/** How many pairs fall within the same quarter of an hour when the wall clock is that of a zone. */
function fitting(pairs: readonly TimePair[], zone: string): number {
  const clock = zoneClock(zone);
  return pairs.reduce((count, { local, at }) => count + (Math.abs(clock.toUtc(local, at) - at) <= QUARTER / 2 ? 1 : 0), 0);
}

/**
 * The zone in which a source's wall clock falls together with what others say. A region counts before an offset, one that is named before one that is not, and one that
 * nothing names only where no offset fits both sides of a clock change.
 *
 * @param now the zone in which it is read so far: it stays where none fits better
 * @param likely zones that are named, the likeliest first
 * @param others also zones that nothing names
 * @returns null where it stays, or where nothing is sure
 */
export function zoneOf(all: readonly TimePair[], now: string, likely: readonly string[], others = true): string | null {
  if (all.length < FEWEST_PAIRS) return null;
  const every = Math.ceil(all.length / MOST_PAIRS);
  const pairs = all.filter((_, i) => i % every === 0);
  const enough = Math.max(FEWEST_PAIRS, pairs.length * SHARE);
  let best = { zone: now, count: fitting(pairs, now) };
  const consider = (zone: string, more: number): void => {
    const count = fitting(pairs, zone);
    if (count > best.count * more) best = { zone, count };
  };
  for (const zone of new Set(likely)) if (isZone(zone)) consider(zone, 1);
  if (others) for (const zone of offsetsOf(pairs)) consider(zone, CLEARLY);
  // on both sides of a clock change no offset fits all
  if (others && best.count < pairs.length * 0.98) for (const zone of REGIONS) consider(zone, CLEARLY);
  return best.zone !== now && best.count >= enough ? best.zone : null;
}

/** A source that has nothing in common with any whose zone is known. */
export interface OpenZone {
  id: number;
  zone: string;
  likely: readonly string[];
}
/**
 * Zones of sources that only others without a zone have something in common with. Two of them that are hours apart could both be amiss: one whose clock a named zone explains
 * changes, where the other's would not be explained by any.
 *
 * @param zones of all sources that tell none, as they are read or were found out
 */
export function zonesAmong(open: readonly OpenZone[], mentions: readonly FirstMention[], zones: ReadonlyMap<number, string>): Map<number, string> {
  const asked = new Map(open.map(({ id }) => [id, { pairs: [] as TimePair[], partners: new Map<number, number>() }]));
  for (const same of byKey(mentions)) {
    for (const one of same) {
      const own = asked.get(one.source);
      if (!own) continue;
      for (const other of same) {
        if (other === one) continue;
        const zone = zones.get(other.source);
        const at = zone === undefined ? other.at : zoneClock(zone).toUtc(other.at);
        if (Math.abs(one.at - at) < FARTHEST) own.pairs.push({ local: one.at, at });
        own.partners.set(other.source, (own.partners.get(other.source) ?? 0) + 1);
      }
    }
  }
  const proposed = new Map<number, string>();
  for (const { id, zone, likely } of open) {
    const better = zoneOf(asked.get(id)!.pairs, zone, likely, false);
    if (better !== null) proposed.set(id, better);
  }
  // where each of two would be explained, nothing tells which is amiss
  const alone = (id: number): boolean => ![...asked.get(id)!.partners].some(([other, count]) => count >= FEWEST_PAIRS && proposed.has(other));
  return new Map([...proposed].filter(([id]) => alone(id)));
}

/** Fixed offsets by which most wall clocks are away from the moments. */
function offsetsOf(pairs: readonly TimePair[]): string[] {
  const counts = new Map<number, number>();
  for (const { local, at } of pairs) {
    const hours = Math.round((local - at) / HOUR);
    if (hours < WESTMOST || hours > EASTMOST) continue;
    if (Math.abs(local - at - hours * HOUR) <= QUARTER / 2) counts.set(hours, (counts.get(hours) ?? 0) + 1);
  }
  return [...counts].sort((a, b) => b[1] - a[1]).slice(0, 2).map(([hours]) => fixed(hours)); // prettier-ignore
}
/** No clock on earth is further off universal time. */
const WESTMOST = -12;
const EASTMOST = 14;
/** The names of fixed offsets count to the west. */
const fixed = (hours: number): string => (hours === 0 ? 'UTC' : `Etc/GMT${hours > 0 ? '-' : '+'}${Math.abs(hours)}`);

/**
 * The likely zone in which a file was last written when its last line says: dates of files are told in universal time.
 *
 * @param last wall clock of its last record
 * @param modified date of the file
 * @returns null where it was written at another time, or where that is the zone of now
 */
export function zoneOfDate(last: Microseconds, modified: Microseconds, now: string, likely: readonly string[]): string | null {
  // a date that was set by hand or lost its seconds tells nothing
  if (modified % 60_000_000 === 0) return null;
  const fits = (zone: string): boolean => isZone(zone) && Math.abs(zoneClock(zone).toUtc(last, modified) - modified) <= WITH_LAST_LINE;
  return fits(now) ? null : (likely.find(fits) ?? null);
}

/** Names of regions as they stand in settings and behind times. */
const REGION = /\b(?:Africa|America|Antarctica|Asia|Atlantic|Australia|Europe|Indian|Pacific)\/[A-Z][A-Za-z_]+(?:\/[A-Z][A-Za-z_]+)?/g;
/** Abbreviations that change with the clock, and the zones of the platform's data that do so. */
const CHANGING: readonly [RegExp, string][] = [
  [/\d (?:CES?T|MESZ|MEZ)\b/, 'CET'],
  [/\d EES?T\b/, 'EET'],
  [/\d WES?T\b/, 'WET'],
  [/\d E[SD]T\b/, 'EST5EDT'],
  [/\d C[SD]T\b/, 'CST6CDT'],
  [/\d M[SD]T\b/, 'MST7MDT'],
  [/\d P[SD]T\b/, 'PST8PDT'],
];
const MOST_REGIONS = 3;

/** The regions that a text names, by their names or by abbreviations behind its times; the most frequent first. */
export function regionsIn(text: string): string[] {
  const counts = new Map<string, number>();
  for (const [name] of text.matchAll(REGION)) counts.set(name, (counts.get(name) ?? 0) + 1);
  const named = [...counts].sort((a, b) => b[1] - a[1]).flatMap(([name]) => (isZone(name) ? [name] : [])); // prettier-ignore
  const short = CHANGING.flatMap(([pattern, zone]) => (pattern.test(text) && isZone(zone) ? [zone] : []));
  return [...named, ...short].slice(0, MOST_REGIONS);
}
