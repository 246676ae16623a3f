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
  /** Someone never spoke who has a part in nearly every good leg; `record` is behind which that usually begins, or what was said there instead. */
  | { kind: 'absent'; record: number; missing: UsualSaying }
  /** The last word of a component that always goes on behind it; `missing` is its own next word, null where that may be one of several. */
  | { kind: 'unfinished'; record: number; missing: UsualSaying | null }
  /** Handed on once more though all went well before; `first` is where it was handed on at first. */
  | { kind: 'doubled'; record: number; first: number };

/** Warnings and errors. */
const LOUD = 4;
/** Of a component with all that it says it tells more than of one saying: so large a share of good legs is enough. */
const HAS_A_PART = 0.9;
/** What a component says in so many of the legs in which it speaks belongs to its part; it may say it in one way or another. */
const OF_ITS_PART = 0.2;
/** So many good legs begin with it; by clocks that are off something may stand before it. */
const BEGINS = 0.05;
const FIRST_ONES = 3;
/** A word that so few sayings have names one thing. */
const FEW_NAME_IT = 4;
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
    ...absent(records, usual, Math.min(surely, HAS_A_PART)),
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

function absent(records: readonly StrandRecord[], usual: Usual, surely: number): Amiss[] {
  const { of } = usual;
  if (!beginsAsUsual(records, usual)) return []; // it came in by another way: what it lacks tells nothing
  const own = new Set(records.map((record) => record.component));
  const silent = new Map(of.components.flatMap(({ component, legs }) => (!own.has(component) && lowerShare(legs, of.legs) >= surely ? [[component, legs]] : []))); // prettier-ignore
  if (silent.size === 0) return [];
  const [first] = of.sayings
    .filter(({ component, legs }) => legs >= (silent.get(component) ?? Infinity) * OF_ITS_PART)
    .sort((a, b) => a.position - b.position);
  if (!first) return [];
  const record = partedFrom(records, usual, first);
  return record === undefined ? [] : [{ kind: 'absent', record, missing: first }];
}

function beginsAsUsual(records: readonly StrandRecord[], { of: { begins } }: Usual): boolean {
  const usually = (begins ?? []).filter(({ share }) => share >= BEGINS);
  return usually.length === 0 || records.slice(0, FIRST_ONES).some((record) => usually.some((one) => one.component === record.component && one.shape === record.shape)); // prettier-ignore
}

/**
 * Where a leg parted from what leads to a saying: what no good leg says; else what hands it on, what speaks of the same thing (a queue, a folder) as it does, or what comes
 * before it.
 */
function partedFrom(records: readonly StrandRecord[], usual: Usual, first: UsualSaying): number | undefined {
  const { sayings } = usual.of;
  const places = usual.placesOf(records);
  const strange = places.findLastIndex((place) => place < 0 || sayings[place]!.legs === 0);
  if (strange >= 0) return strange;
  const others = sayings.flatMap((one, place) => (one.component === first.component || !places.includes(place) ? [] : [{ one, place }]));
  const [hands] = others
    .filter(
      ({
        one: {
          hands: { by },
        },
      }) => by !== null && sayings[by]!.component === first.component,
    ) // prettier-ignore
    .sort((a, b) => b.one.hands.taken - a.one.hands.taken);
  const rare = wordsOf(first.text).filter((word) => sayings.filter(({ text }) => text.includes(word)).length <= FEW_NAME_IT);
  const same = others.filter(({ one: { text } }) => rare.some((word) => text.includes(word))).map(({ place }) => places.lastIndexOf(place));
  const lastOf = (place: number): number => places.lastIndexOf(place);
  // who hands it on may say more before it is taken up
  const handing =
    hands && places.findLastIndex((place) => sayings[place]!.component === hands.one.component && sayings[place]!.position < first.position);
  const after = [first.after, first.otherwise].flatMap((one) => (one ? [lastOf(one.saying)] : []));
  return [handing === undefined || handing < 0 ? lastOf(hands?.place ?? -1) : handing, Math.max(-1, ...same), ...after].find((index) => index >= 0);
}
const wordsOf = (text: string): string[] => text.split(/[^\p{L}\p{N}._/-]+/u).filter((word) => word.length > 2);

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
