import type { NumberClass } from './number-classes.ts';
import { MOSTLY, risingShare } from './rising.ts';
import type { SuggestRecord } from './suggest.ts';

/** What is named again after so large a part of what was looked at was away, in one component. */
const FAR = 0.02;
/** A long number that more records name ties nothing. */
const MOST_RECORDS = 60;

/** Records that long numbers, and links that are known, tie together. */
export interface Pieces {
  of(place: number): number;
  /** Records of the piece that a record is of. */
  size(place: number): number;
}

/** How the values of a class behave. */
export interface NumberFacts {
  of: NumberClass;
  /** They are given out one after another. */
  rises: boolean;
  /** Share of the values that several components name. */
  across: number;
  /** Share of the values that come again, by themselves or in what is tied to the record that names them. */
  recurring: number;
  /** Share of the values that come again by themselves. */
  again: number;
  /** Of the pieces that are named, the share of those with one value only. */
  alone: number;
  /** Share of the values that name one piece only. */
  single: number;
  /** Values that are named again after a long time. */
  far: string[];
  /** Records that name one. */
  named: number;
  /** By piece, the values that are named in it. */
  byPiece: Map<number, Set<string>>;
}

/** Ties records by what is so long that two of them are never alike by chance. */
export function piecesOf(records: readonly SuggestRecord[], classes: readonly NumberClass[]): Pieces {
  const parent = records.map((_, place) => place);
  const find = (place: number): number => {
    while (parent[place] !== place) place = parent[place] = parent[parent[place]!]!;
    return place;
  };
  const tie = (places: readonly number[]): void => {
    if (places.length <= MOST_RECORDS) for (const place of places) parent[find(place)] = find(places[0]!);
  };
  const known = new Map<string, number[]>();
  records.forEach(({ known: own }, place) => {
    for (const { role, value } of own) if (role === 'link') known.set(value, [...(known.get(value) ?? []), place]);
  });
  for (const places of known.values()) tie(places);
  for (const { form, by, values } of classes) if (by === 'form' && /h{8,}/.test(form)) for (const places of values.values()) tie(places);
  const sizes = new Map<number, number>();
  records.forEach((_, place) => sizes.set(find(place), (sizes.get(find(place)) ?? 0) + 1));
  return { of: find, size: (place) => sizes.get(find(place))! };
}

export function factsOf(of: NumberClass, records: readonly SuggestRecord[], pieces: Pieces): NumberFacts {
  const { values } = of;
  const byPiece = new Map<number, Set<string>>();
  const far: string[] = [];
  let [recurring, again, wide, single, named] = [0, 0, 0, 0, 0];
  for (const [value, places] of values) {
    if (places.length > 1) again++;
    if (places.length > 1 || pieces.size(places[0]!) > 1) recurring++;
    if (longestPause(places, records) > FAR * records.length) far.push(value);
    if (new Set(places.map((place) => records[place]!.component)).size > 1) wide++;
    named += places.length;
    const own = new Set(places.map(pieces.of));
    if (own.size === 1) single++;
    for (const piece of own) byPiece.set(piece, (byPiece.get(piece) ?? new Set()).add(value));
  }
  return {
    of,
    rises: risingShare(firstMentions(values, records)) >= MOSTLY,
    across: wide / values.size,
    recurring: recurring / values.size,
    again: again / values.size,
    alone: [...byPiece.values()].filter((own) => own.size === 1).length / byPiece.size,
    single: single / values.size,
    far,
    named,
    byPiece,
  };
}

/** By component, the values in the order in which it names them first. */
function firstMentions(values: ReadonlyMap<string, readonly number[]>, records: readonly SuggestRecord[]): string[][] {
  const byComponent = new Map<string, [string, number][]>();
  for (const [value, places] of values) {
    const seen = new Set<string>();
    for (const place of places) {
      const { component } = records[place]!;
      if (seen.has(component)) continue;
      seen.add(component);
      const own = byComponent.get(component);
      if (own) own.push([value, place]);
      else byComponent.set(component, [[value, place]]);
    }
  }
  return [...byComponent.values()].map((own) => own.sort(([, a], [, b]) => a - b).map(([value]) => value));
}

/** The longest time without a value in one component, in records: those of another one may stand elsewhere as long as nobody knows its zone. */
function longestPause(places: readonly number[], records: readonly SuggestRecord[]): number {
  const last = new Map<string, number>();
  let longest = 0;
  for (const place of places) {
    const { component } = records[place]!;
    longest = Math.max(longest, place - (last.get(component) ?? place));
    last.set(component, place);
  }
  return longest;
}
