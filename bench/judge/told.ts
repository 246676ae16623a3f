import type { HeldRecord, Understanding, UnderstoodStrand } from '@fadenweg/core/understanding';
import type { Place, ToldStrand } from '@fadenweg/standin';

/** What was understood, in the terms of the judge. */
export interface InPlaces {
  strands: ToldStrand[];
  /** Where the record of a place is shown: the record that holds that line, or the one that it is a copy of; null where the line holds several. */
  shownAt(place: Place): Place | null;
  /** The record that is shown for a place, null where none is. */
  recordAt(place: Place): HeldRecord | null;
}

/** Paths as they are unpacked. */
const unpacked = (path: string): string => path.replace(/\.gz$/, '');

export function inPlaces({ sources, records, copies, strands }: Understanding): InPlaces {
  const paths = sources.map((source) => unpacked(source.path));
  const placeOf = ({ source, line }: HeldRecord): Place => `${paths[source]}:${line}`;
  const shown = new Map<HeldRecord, HeldRecord>(copies.map((one) => [one.copy, one.shown]));
  const bySource = new Map<string, HeldRecord[]>(paths.map((path) => [path, []]));
  for (const record of [...records, ...shown.keys()]) bySource.get(paths[record.source]!)!.push(record);
  for (const own of bySource.values()) own.sort((a, b) => a.line - b.line);
  const several = crowded(bySource);
  const known = new Map<Place, HeldRecord | null>();
  const recordAt = (place: Place): HeldRecord | null => {
    let record = known.get(place);
    if (record === undefined) {
      const colon = place.lastIndexOf(':');
      const holder = holding(bySource.get(unpacked(place.slice(0, colon))) ?? [], Number(place.slice(colon + 1)));
      known.set(place, (record = holder && (shown.get(holder) ?? holder)));
    }
    return record;
  };
  return {
    strands: strands.map((strand) => toldStrand(strand, placeOf, several)),
    shownAt: (place) => {
      if (several.has(unpacked(place.slice(0, place.lastIndexOf(':'))) + place.slice(place.lastIndexOf(':')))) return null;
      const record = recordAt(place);
      return record ? placeOf(record) : place;
    },
    recordAt,
  };
}

/** Lines at which several records begin: by their place it cannot be told which one is meant. */
function crowded(bySource: ReadonlyMap<string, readonly HeldRecord[]>): Set<Place> {
  const found = new Set<Place>();
  for (const [path, own] of bySource) own.forEach(({ line }, i) => i > 0 && own[i - 1]!.line === line && found.add(`${path}:${line}`));
  return found;
}
/** The record that holds a line: the last one that begins there or before. */
function holding(own: readonly HeldRecord[], line: number): HeldRecord | null {
  let [low, high] = [0, own.length];
  while (low < high) {
    const middle = (low + high) >> 1;
    if (own[middle]!.line <= line) low = middle + 1;
    else high = middle;
  }
  return own[low - 1] ?? null;
}

function toldStrand(
  { kind, value, outcome, identifiers, legs, path, held, findings }: UnderstoodStrand,
  placeOf: (record: HeldRecord) => Place,
  several: ReadonlySet<Place>,
): ToldStrand {
  const legAt = new Map<number, number>();
  for (const leg of path.legs) for (const index of leg.records) legAt.set(index, leg.id);
  return {
    id: `${kind} ${value}`,
    outcome,
    identifiers: identifiers.filter((one) => one.role !== 'shared').map((one) => one.value),
    legs: legs as string[],
    records: held.map((record, index) => ({ place: placeOf(record), leg: legAt.get(index) ?? 1 })).filter(({ place }) => !several.has(place)),
    findings: findings.map(({ record, component, failedIn, confidence, missingNext }) => ({
      leg: legAt.get(record) ?? 1,
      component,
      failedIn,
      place: placeOf(held[record]!),
      confidence,
      missingNext,
    })),
  };
}
