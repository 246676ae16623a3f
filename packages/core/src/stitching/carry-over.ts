import { lowerShare } from '../statistics/share.ts';
import type { Microseconds } from '../units.ts';

/** Records of one source that state who worked (a thread, a process), in columns, in the order in which they stand there. */
export interface LaneRecords {
  /** Number of the thread or process. */
  lane: Int32Array;
  at: Float64Array;
  /** Number of the strand that the record belongs to by what it names; NAMELESS where it names nothing that ties; STRANGE where that belongs to no strand. */
  strand: Int32Array;
  /** Number of the message's shape. */
  shape: Float64Array;
  length: number;
}
export const NAMELESS = -1;
export const STRANGE = -2;

/** Pauses in a lane within one strand from which a limit is learned, at least. */
const ENOUGH = 12;
/** Two pauses in a row that differ by so much part work from idling. */
const APART = 8;
/** Share of a shape's records that stand within the work on a strand, at least, by the lower end of what is likely. */
const USUALLY = 0.5;
/** Share of turns that come back to a strand, from which a lane is mixed. */
const MIXED = 0.03;
/** One side of a shape's habit outweighs the other. */
const OUTWEIGHS = 4;

/** Where a nameless record stands, by its neighbours in the lane that name something. */
const enum Place {
  Alone,
  Between,
  After,
  Before,
  Torn,
}
interface Habit {
  between: number;
  after: number;
  before: number;
  alone: number;
}

/**
 * Which records without an identifier were written while their thread or process worked on a strand.
 *
 * A record belongs where its neighbours in the lane belong: between two of one strand, or next to one of them where records of its shape usually
 * stand so. It never goes over a record that names something else, nor over a pause longer than those within the work on one strand (a limit that
 * is learned from this source). Shapes that come as often outside of any strand are left alone, and so are lanes that work on several strands at once.
 *
 * @returns for each record the place of the one that it is carried over from, or -1
 */
export function carryOver(records: LaneRecords): Int32Array {
  const from = new Int32Array(records.length).fill(-1);
  const { previous, next } = neighbours(records);
  const within = pausesWithin(records, previous, next);
  if (within.length < ENOUGH) return from;
  const { strand, shape, lane } = records;
  const widest = upToWidestStep(within);
  const mixed = mixedLanes(records, widest);
  const limit = Math.min(widest, untilIdle(records, mixed));
  const considered = (i: number): boolean => strand[i] === NAMELESS && !mixed.has(lane[i]!);
  const reach = reachable(records, previous, next, limit);
  const placeOf = (i: number): Place => {
    const before = reach.before[i]!;
    const after = reach.after[i]!;
    if (before >= 0 && after >= 0) return strand[before] === strand[after] ? Place.Between : Place.Torn;
    return before >= 0 ? Place.After : after >= 0 ? Place.Before : Place.Alone;
  };
  const habits = new Map<number, Habit>();
  for (let i = 0; i < records.length; i++) {
    if (!considered(i)) continue;
    let habit = habits.get(shape[i]!);
    if (!habit) habits.set(shape[i]!, (habit = { between: 0, after: 0, before: 0, alone: 0 }));
    const place = placeOf(i);
    if (place === Place.Between) habit.between++;
    else if (place === Place.After) habit.after++;
    else if (place === Place.Before) habit.before++;
    else if (place === Place.Alone) habit.alone++;
  }
  for (let i = 0; i < records.length; i++) {
    if (!considered(i)) continue;
    const habit = habits.get(shape[i]!)!;
    const side = sideOf(placeOf(i), habit);
    if (side !== 0) from[i] = side < 0 ? reach.before[i]! : reach.after[i]!;
  }
  return from;
}

/** -1 to the record before, 1 to the one after, 0 to neither. */
function sideOf(place: Place, { between, after, before, alone }: Habit): number {
  const all = between + after + before + alone;
  const usually = (count: number): boolean => lowerShare(count, all) >= USUALLY;
  switch (place) {
    case Place.Between:
      return usually(between + after + before) ? -1 : 0;
    case Place.After:
      return usually(between + after) ? -1 : 0;
    case Place.Before:
      return usually(between + before) ? 1 : 0;
    case Place.Torn:
      if (after > OUTWEIGHS * before && usually(between + after)) return -1;
      return before > OUTWEIGHS * after && usually(between + before) ? 1 : 0;
    case Place.Alone:
      return 0;
  }
}

/** For each record the one before and after it in its lane, -1 for none. */
function neighbours({ lane, length }: LaneRecords): { previous: Int32Array; next: Int32Array } {
  const previous = new Int32Array(length).fill(-1);
  const next = new Int32Array(length).fill(-1);
  const last = new Map<number, number>();
  for (let i = 0; i < length; i++) {
    const before = last.get(lane[i]!);
    if (before !== undefined) {
      previous[i] = before;
      next[before] = i;
    }
    last.set(lane[i]!, i);
  }
  return { previous, next };
}

/** Pauses between neighbours where the next names on both sides are of one strand, ascending. */
function pausesWithin({ at, strand, length }: LaneRecords, previous: Int32Array, next: Int32Array): Microseconds[] {
  /** The strand of the nearest name at a record or before it, and at it or after it. */
  const named = { before: new Int32Array(length), after: new Int32Array(length) };
  for (let i = 0; i < length; i++) named.before[i] = strand[i] !== NAMELESS || previous[i]! < 0 ? strand[i]! : named.before[previous[i]!]!;
  for (let i = length - 1; i >= 0; i--) named.after[i] = strand[i] !== NAMELESS || next[i]! < 0 ? strand[i]! : named.after[next[i]!]!;
  const within: Microseconds[] = [];
  for (let i = 0; i < length; i++) {
    const before = previous[i]!;
    if (before >= 0 && named.before[before]! >= 0 && named.before[before] === named.after[i]) within.push(pause(at, before, i));
  }
  return within.sort((a, b) => a - b);
}
/** At least a millisecond: what most logs tell apart. */
const pause = (at: Float64Array, from: number, to: number): Microseconds => Math.max(1000, Math.abs(at[to]! - at[from]!));

/** The longest pause that lies within the work on a strand: up to the widest step on the logarithmic scale, where that is wide enough to part two kinds of pauses. */
function upToWidestStep(within: readonly Microseconds[]): Microseconds {
  let widest = APART;
  let limit = within[within.length - 1]!;
  for (let i = within.length >> 1; i + 1 < within.length; i++) {
    const step = within[i + 1]! / within[i]!;
    if (step > widest) {
      widest = step;
      limit = Math.sqrt(within[i]! * within[i + 1]!);
    }
  }
  return limit;
}

/**
 * From where on a lane idles: pauses between two names of one strand are set against those from the last name of one strand to the first of the next, and
 * the limit is where it parts them best. A lane that waits minutes for an answer idles meanwhile, as it does between two strands.
 */
function untilIdle({ at, strand, lane, length }: LaneRecords, mixed: ReadonlySet<number>): Microseconds {
  const last = new Map<number, number>();
  /** Names that come again in their lane, and those that came before. */
  const returns = new Uint8Array(length);
  const returned = new Uint8Array(length);
  const seen = new Map<number, number>();
  for (let i = 0; i < length; i++) {
    if (strand[i]! < 0 || mixed.has(lane[i]!)) continue;
    const key = lane[i]! * 2 ** 20 + strand[i]!;
    const before = seen.get(key);
    if (before !== undefined) returns[before] = returned[i] = 1;
    seen.set(key, i);
  }
  const pauses: { long: Microseconds; within: boolean }[] = [];
  for (let i = 0; i < length; i++) {
    if (strand[i] === NAMELESS || mixed.has(lane[i]!)) continue;
    const before = last.get(lane[i]!);
    last.set(lane[i]!, i);
    if (before === undefined) continue;
    const within = strand[before] === strand[i];
    if (within ? strand[i]! >= 0 : !returns[before] && !returned[i]) pauses.push({ long: pause(at, before, i), within });
  }
  pauses.sort((a, b) => a.long - b.long);
  let [best, sum, limit] = [-Infinity, 0, Infinity];
  pauses.forEach(({ long, within }, i) => {
    sum += within ? 1 : -1;
    const then = pauses[i + 1]?.long ?? Infinity;
    if (then === long || sum < best) return;
    best = sum;
    limit = Math.sqrt(long * then);
  });
  return limit;
}

/**
 * Lanes in which the work on several strands is mixed: they turn to another strand and come back to the one before within a pause as it lies within the
 * work on one. What such a lane says between belongs to none in particular.
 */
function mixedLanes({ at, strand, lane, length }: LaneRecords, limit: Microseconds): Set<number> {
  const known = new Map<number, { now: number; last: Map<number, Microseconds>; turns: number; returns: number }>();
  for (let i = 0; i < length; i++) {
    const one = strand[i]!;
    if (one < 0) continue;
    let own = known.get(lane[i]!);
    if (!own) known.set(lane[i]!, (own = { now: one, last: new Map(), turns: 0, returns: 0 }));
    if (own.now !== one) {
      own.turns++;
      own.now = one;
      const before = own.last.get(one);
      if (before !== undefined && at[i]! - before <= limit) own.returns++;
    }
    own.last.set(one, at[i]!);
  }
  return new Set([...known].filter(([, { turns, returns }]) => lowerShare(returns, turns) > MIXED).map(([number]) => number));
}

/** For each nameless record the nearest ones of a strand before and after it in its lane, -1 beyond a pause or another name. */
function reachable({ at, strand, length }: LaneRecords, previous: Int32Array, next: Int32Array, limit: Microseconds) {
  const before = new Int32Array(length).fill(-1);
  const after = new Int32Array(length).fill(-1);
  const step = (i: number, other: number, known: Int32Array): number => {
    if (other < 0 || Math.abs(at[i]! - at[other]!) > limit) return -1;
    return strand[other] === NAMELESS ? known[other]! : strand[other]! >= 0 ? other : -1;
  };
  for (let i = 0; i < length; i++) if (strand[i] === NAMELESS) before[i] = step(i, previous[i]!, before);
  for (let i = length - 1; i >= 0; i--) if (strand[i] === NAMELESS) after[i] = step(i, next[i]!, after);
  return { before, after };
}
