import type { StrandRecord } from '../path/types.ts';
import { lowerShare } from '../statistics/share.ts';
import { habitsOf, MANY } from './habits.ts';
import { hands, type Handing } from './handing.ts';
import type { Usual } from './index-of.ts';
import type { UsualSaying } from './types.ts';

/** What a leg lacks or has twice, though its end may look well. */
export type Amiss =
  /** Handed on, and nobody took it up. */
  | { kind: 'untaken'; record: number; missing: UsualSaying | null }
  /** Someone spoke who has no part in it, and someone did not who always has. */
  | { kind: 'astray'; record: number; missing: string }
  /** The last word of a component that always goes on behind it; `missing` is its own next word, null where that may be one of several. */
  | { kind: 'unfinished'; record: number; missing: UsualSaying | null }
  /** Handed on once more though all went well before; `first` is where it was handed on at first. */
  | { kind: 'doubled'; record: number; first: number };

/** Warnings and errors. */
const LOUD = 4;
/** Good legs from which on it is known what is done once. */
const FEWEST = 30;

/**
 * Where a leg lacks what always follows, or has done twice what is done once.
 *
 * @param records in order of time
 * @param surely from which share on, by its lower end, something always is so
 */
export function amiss(records: readonly StrandRecord[], usual: Usual, surely: number): Amiss[] {
  const handings = hands(records);
  return [
    ...untaken(records, usual, surely, handings),
    ...astray(records, usual, surely),
    ...unfinished(records, usual, surely),
    ...doubled(records, usual, handings),
  ];
}

function untaken(records: readonly StrandRecord[], usual: Usual, surely: number, handings: readonly Handing[]): Amiss[] {
  const places = usual.placesOf(records);
  return handings.flatMap(({ record, taker }): Amiss[] => {
    const saying = taker === null ? usual.of.sayings[places[record]!] : undefined;
    if (!saying || lowerShare(saying.hands.taken, saying.hands.legs) < surely) return [];
    return [{ kind: 'untaken', record, missing: saying.hands.by === null ? null : usual.of.sayings[saying.hands.by]! }];
  });
}

function astray(records: readonly StrandRecord[], usual: Usual, surely: number): Amiss[] {
  const { of } = usual;
  if (of.legs < MANY) return [];
  const own = new Set(records.map((record) => record.component));
  const missing = of.components.find(({ component, legs }) => !own.has(component) && lowerShare(legs, of.legs) >= surely);
  if (!missing) return [];
  const { known } = habitsOf(usual);
  const record = records.findIndex(({ component }) => !known.has(component));
  return record < 0 ? [] : [{ kind: 'astray', record, missing: missing.component }];
}

function unfinished(records: readonly StrandRecord[], usual: Usual, surely: number): Amiss[] {
  const last = new Map(records.map(({ component }, index) => [component, index]));
  const places = usual.placesOf(records);
  const there = new Set(places);
  const { components } = habitsOf(usual);
  return [...last.values()].flatMap((record): Amiss[] => {
    const saying = usual.of.sayings[places[record]!];
    if (!saying || lowerShare(saying.legs - saying.last, saying.legs) < surely) return [];
    const { component } = saying;
    if (components.get(component)?.last.some((place) => there.has(place))) return [];
    const next = saying.then.filter((one) => !there.has(one.saying)).map((one) => usual.of.sayings[one.saying]!);
    return [{ kind: 'unfinished', record, missing: next.find((one) => one.component === component) ?? null }];
  });
}

/** All that a component always says, once, said twice, with nothing gone wrong: of what another component handed to it under two names, or of one thing that it did once more. */
function doubled(records: readonly StrandRecord[], usual: Usual, handings: readonly Handing[]): Amiss[] {
  if (usual.of.legs < FEWEST || records.some(({ level }) => level >= LOUD)) return [];
  const at = new Map<number, number[]>();
  usual.placesOf(records).forEach((place, index) => at.set(place, [...(at.get(place) ?? []), index]));
  const isTwice = (places: readonly number[] | null): places is readonly number[] => places?.every((place) => (at.get(place)?.length ?? 0) > 1) === true; // prettier-ignore
  return [...habitsOf(usual).components].flatMap(([component, { once, single }]): Amiss[] => {
    if (usual.of.legs >= MANY && isTwice(once)) {
      const [first, again] = handings.filter(
        ({ record, taker }) => taker !== null && records[taker]!.component === component && records[record]!.component !== component,
      );
      if (first && again) return [{ kind: 'doubled', record: again.record, first: first.record }];
    }
    if (!isTwice(single)) return [];
    // one after the other, of the same thing
    const [first, again] = [0, 1].map((time) => Math.min(...single.map((place) => at.get(place)![time]!))) as [number, number];
    const isOver = Math.max(...single.map((place) => at.get(place)![0]!)) < again;
    return isOver && records[first]!.keys.some((key) => records[again]!.keys.includes(key)) ? [{ kind: 'doubled', record: again, first }] : [];
  });
}
