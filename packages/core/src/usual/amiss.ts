import type { StrandRecord } from '../path/types.ts';
import { lowerShare } from '../statistics/share.ts';
import { hands } from './handing.ts';
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

/** With this share, by its lower end, something always is so. */
export const SURELY = 0.975;
/** Good legs from which on it is said what none of them has. */
const MANY = 100;
/** Of the legs in which a component speaks, ends with so many are its usual last words. */
const USUAL_LAST = 0.05;
const MOST_OF_ALL = 0.95;
/** Warnings and errors. */
const LOUD = 4;

/**
 * Where a leg lacks what always follows, or has done twice what is done once.
 *
 * @param records in order of time
 * @param surely from which share on, by its lower end, something always is so
 */
export function amiss(records: readonly StrandRecord[], usual: Usual, surely: number): Amiss[] {
  return [...untaken(records, usual, surely), ...astray(records, usual, surely), ...unfinished(records, usual, surely), ...doubled(records, usual)];
}

function untaken(records: readonly StrandRecord[], usual: Usual, surely: number): Amiss[] {
  return hands(records).flatMap(({ record, taker }): Amiss[] => {
    const saying = taker === null ? usual.sayingOf(records[record]!) : undefined;
    if (!saying || lowerShare(saying.hands.taken, saying.hands.legs) < surely) return [];
    return [{ kind: 'untaken', record, missing: saying.hands.by === null ? null : usual.of.sayings[saying.hands.by]! }];
  });
}

function astray(records: readonly StrandRecord[], { of }: Usual, surely: number): Amiss[] {
  if (of.legs < MANY) return [];
  const own = new Set(records.map((record) => record.component));
  const missing = of.components.find(({ component, legs }) => !own.has(component) && lowerShare(legs, of.legs) >= surely);
  if (!missing) return [];
  const known = new Set(of.components.filter(({ legs }) => legs > of.legs * (1 - SURELY)).map(({ component }) => component));
  const record = records.findIndex(({ component }) => !known.has(component));
  return record < 0 ? [] : [{ kind: 'astray', record, missing: missing.component }];
}

function unfinished(records: readonly StrandRecord[], usual: Usual, surely: number): Amiss[] {
  const last = new Map(records.map(({ component }, index) => [component, index]));
  const places = records.map((record) => usual.placeOf(record));
  const there = new Set(places);
  const legsOf = new Map(usual.of.components.map(({ component, legs }) => [component, legs]));
  return [...last.values()].flatMap((record): Amiss[] => {
    const saying = usual.of.sayings[places[record]!];
    if (!saying || lowerShare(saying.legs - saying.last, saying.legs) < surely) return [];
    const { component } = saying;
    const often = (legsOf.get(component) ?? 0) * USUAL_LAST;
    const ended = usual.of.sayings.some((one, place) => one.component === component && one.last >= often && one.last > 0 && there.has(place));
    if (ended) return [];
    const next = saying.then.filter((one) => !there.has(one.saying)).map((one) => usual.of.sayings[one.saying]!);
    return [{ kind: 'unfinished', record, missing: next.find((one) => one.component === component) ?? null }];
  });
}

/** All that a component always says, once, said twice, of what another component handed to it under two names, with nothing gone wrong. */
function doubled(records: readonly StrandRecord[], usual: Usual): Amiss[] {
  const { of } = usual;
  if (of.legs < MANY || records.some(({ level }) => level >= LOUD)) return [];
  const times = new Map<number, number>();
  for (const record of records) {
    const place = usual.placeOf(record);
    times.set(place, (times.get(place) ?? 0) + 1);
  }
  const handed = hands(records).filter((one) => one.taker !== null);
  return of.components.flatMap(({ component, legs }): Amiss[] => {
    if (legs < MANY) return [];
    const always = of.sayings.flatMap((one, place) => (one.component === component && one.legs >= legs * MOST_OF_ALL ? [{ one, place }] : []));
    if (always.length === 0 || !always.every(({ one, place }) => one.twice <= one.legs * (1 - SURELY) && (times.get(place) ?? 0) > 1)) return [];
    const from = handed.filter(({ record, taker }) => records[taker!]!.component === component && records[record]!.component !== component);
    const [first, again] = from;
    return first && again ? [{ kind: 'doubled', record: again.record, first: first.record }] : [];
  });
}
