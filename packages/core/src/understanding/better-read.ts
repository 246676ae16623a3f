import { betterElsewhere } from '../reading/better-elsewhere.ts';
import { SAMPLE } from '../reading/describe.ts';
import { namesByFolder } from '../reading/host-folders.ts';
import { placesIn, SLICE } from '../reading/sample.ts';
import {
  likelyZones,
  ordersAmong,
  wallClock,
  yearsAmong,
  zonesFor,
  type BetterTimes,
  type Brought,
  type TimedSource,
} from '../reading/times-among.ts';
import type { FirstMention } from '../reading/zone-guess.ts';
import { standsAt } from '../path/stands-at.ts';
import type { Known } from '../records/types.ts';
import type { HeldSource } from './held-source.ts';

/** Records that were not understood, and their share, from which on other places of a source are looked at. */
const FEWEST = 20;
const SHARE = 0.1;

/**
 * Sources that show to have been read wrongly, by what all of them tell. What is found is noted in them: they are to be read again. Each of these looks comes to an end: what
 * it finds of a source it finds once, or only by more evidence than before.
 */
export function readElsewhere(sources: readonly HeldSource[]): HeldSource[] {
  return sources.filter((source) => {
    const { about, records, understood, size, path, zone } = source;
    const lost = records.length - understood;
    if (size <= SAMPLE || about.hints.sampleAt || lost < FEWEST || lost < SHARE * records.length) return false;
    const places = placesIn(size);
    const slices = places.map((place) => source.text(place, SLICE));
    const better = betterElsewhere(path, { format: about.format, beginning: source.text(0, SAMPLE) }, slices, about.hints, zone);
    if (!better) return false;
    about.format = better.format;
    about.hints = { ...better.hints, sampleAt: better.by.map((place) => places[place]!) };
    return true;
  });
}

/** Tables whose rows are states that were seen at an instant. */
export function asSnapshots(sources: readonly HeldSource[]): HeldSource[] {
  const found = sources.filter(({ state, about }) => state?.snapshots === true && about.hints.snapshots === undefined);
  for (const { about } of found) about.hints = { ...about.hints, snapshots: true };
  return found;
}

/** Those in which a field parts the work on several transactions. */
export function withLanes(sources: readonly HeldSource[]): HeldSource[] {
  return sources.filter(({ state, about }) => {
    if (!state?.laneBy || about.hints.laneBy !== undefined) return false;
    about.hints = { ...about.hints, laneBy: state.laneBy };
    return true;
  });
}

/** Those whose folders name their machine. */
export function namedByFolders(sources: readonly HeldSource[]): HeldSource[] {
  const hosts = new Set(sources.flatMap(({ records }) => records.map((one) => one.host)).filter((host) => host !== ''));
  const namesOf = namesByFolder(
    sources.map(({ path, state }) => ({ path, shapes: state?.shapes ?? [] })),
    hosts,
  );
  return sources.filter(({ about, path }) => {
    const { component, host } = namesOf({ path, component: about.component, host: about.host, componentFixed: false, hostFixed: false });
    if (component === about.component && host === about.host) return false;
    about.component = component;
    about.host = host;
    return true;
  });
}

/** Those whose year, order of day and month, or zone is another one. */
export function otherTimes(sources: readonly HeldSource[], known: Known, ownZone: string): HeldSource[] {
  const spoken = sources.filter((one) => one.records.length > 0);
  const own = spoken.filter(({ about: { hints } }) => hints.lacksZone === true || hints.lacksYear === true || hints.orderBy === 'guessed').map(timed);
  const better = [...years(own, spoken), ...orders(own, spoken)];
  const dated = own.filter((source) => !better.some((one) => one.id === source.id));
  better.push(...zones(dated.filter((one) => one.hints.lacksZone), spoken, known, ownZone)); // prettier-ignore
  return better.map(({ id, zone, hints }) => {
    const source = sources[id]!;
    if (zone) [source.zone, source.zoneBy] = [zone, 'guessed'];
    if (hints) source.about.hints = hints;
    return source;
  });
}
const IMPORT = 0;
const timed = ({ index, zone, zoneBy, about, first, last }: HeldSource): TimedSource => ({
  id: index,
  importId: IMPORT,
  environment: '',
  zone,
  zoneBy,
  hints: about.hints,
  first,
  last,
});

function years(own: readonly TimedSource[], spoken: readonly HeldSource[]): BetterTimes[] {
  const told = spoken.filter(({ about, understood }) => about.hints.lacksYear !== true && understood > 0);
  const brought: Brought[] = told.length === 0 ? [] : [{ importId: IMPORT, environment: '', end: Math.max(...told.map((one) => one.last)) }];
  return yearsAmong(own.filter((one) => one.hints.lacksYear), brought); // prettier-ignore
}
function orders(own: readonly TimedSource[], spoken: readonly HeldSource[]): BetterTimes[] {
  const sure = spoken.filter(({ about, understood }) => about.hints.orderBy !== 'guessed' && understood > 0);
  return ordersAmong(own.filter((one) => one.hints.orderBy === 'guessed'), sure.map(timed)); // prettier-ignore
}
function zones(lacking: readonly TimedSource[], spoken: readonly HeldSource[], { kinds }: Known, ownZone: string): BetterTimes[] {
  if (lacking.length === 0) return [];
  const lacks = new Map(lacking.map((one) => [one.id, one.zone]));
  const mentions: FirstMention[] = [];
  for (const source of spoken) {
    const { hints } = source.about;
    if (hints.lacksZone && !lacks.has(source.index)) continue;
    for (const [key, { kind, first }] of source.named.sightings) {
      const { role, leaseMs } = kinds[kind]!;
      if (role === 'shared' || leaseMs !== null) continue;
      const zone = lacks.get(source.index);
      mentions.push({ key, source: source.index, at: zone === undefined ? first : wallClock(first, zone) });
    }
  }
  mentions.sort((a, b) => a.key - b.key);
  const hosts = [...new Set(spoken.map((one) => one.about.host))];
  const beside = spoken.map(({ about, zone, zoneBy }) => ({ host: hosts.indexOf(about.host), zone, zoneBy, hints: about.hints })).reverse();
  return zonesFor(lacking, mentions, ({ id }) => likelyZones(hosts.indexOf(spoken.find((one) => one.index === id)!.about.host), beside, ownZone));
}

/** Those whose records that state a duration stand at its begin, by what other sources say of the same meanwhile. */
export function atTheirEnds(sources: readonly HeldSource[]): HeldSource[] {
  return sources.filter((source) => {
    const { about, state } = source;
    if (about.hints.standsAt !== undefined || !state?.lasting?.length) return false;
    const others = (key: number): number[] =>
      sources.flatMap((other) => {
        const seen = other === source ? undefined : other.named.sightings.get(key);
        return seen ? [seen.first, seen.last] : [];
      });
    const end = standsAt(state.lasting.map(({ keys, ...one }) => ({ ...one, others: keys.flatMap(others) })));
    if (end !== null) about.hints = { ...about.hints, standsAt: end };
    return end === 'begin';
  });
}
