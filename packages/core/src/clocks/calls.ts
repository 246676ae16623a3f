import { MARK } from '../path/marks.ts';
import type { Duration } from '../units.ts';
import { believableMessages, messages } from './messages.ts';
import type { Bound, ClockRecord } from './types.ts';

/** Calls that take longer bound nothing closely, and stretches with longer pauses are several, in microseconds. */
const LONGEST: Duration = 60_000_000;
/** Likely calls that leave more room are no help, in microseconds. */
const CLOSELY: Duration = 100_000;
/** Strands with more records are left out: what belongs to what is not to be told there by counting. */
const MOST_RECORDS = 300;
/** Cases from which a kind of call is judged. */
const FEWEST = 20;
/** What is called ends before its caller goes on: in nearly all cases the inner time is the shorter one. */
const NEARLY_ALWAYS = 0.97;
const SECOND: Duration = 1_000_000;
/** What takes so many times what a clock tells apart is long by it; cases of it from which a kind of call is judged, and of these so many have a long inner time. */
const SEVERAL = 2;
const FEWEST_LONG = 5;
const MOSTLY_LONG = 0.8;
/** Most strands by which kinds of calls are learned. */
const LEARNED_BY = 2000;

/** A stretch of records of one clock. */
interface Stretch {
  begin: number;
  end: number;
  first: number;
  last: number;
  /** Number of its look: clock and shapes. */
  look: number;
  /** A time of it is told in whole seconds, though others of its clock may not be. */
  coarse: boolean;
}
/** Numbers for looks, the same for the same one. */
class Looks {
  private readonly known = new Map<string, number>();
  of(clock: number, first: number, last: number): number {
    const look = `${clock} ${first} ${last}`;
    let number = this.known.get(look);
    if (number === undefined) this.known.set(look, (number = this.known.size));
    return number;
  }
}
/** More looks than there are. */
const MANY_LOOKS = 2 ** 24;
/**
 * @param bound null where the inner time is longer than the outer one
 * @param coarse how coarsely the inner time is told
 */
type See = (kind: number, bound: Bound | null, outer: Duration, inner: Duration, coarse: Duration) => void;

/**
 * Bounds between clocks from calls and messages.
 *
 * A kind of call is known by its four shapes: those of the two neighbouring records around it, and those that it begins and ends with. It is believed where
 * the inner time is nearly always shorter than the outer one, which varies, and varies with it: the difference of the two has at most half the spread of
 * the outer time (between the quartiles). Neither needs the clocks to agree. Where the inner time is nearly always a little shorter and both clocks may
 * agree, but the times do not vary together, a call is likely. Learned where one kind occurs once in a strand.
 * Messages are told in messages.ts.
 *
 * @param strands records of one strand each, in any order
 * @param resolution by clock: how coarsely it writes its times
 */
export function boundsOf(strands: readonly (readonly ClockRecord[])[], resolution: readonly Duration[]): Bound[] {
  const looks = new Looks();
  const believed = believedKinds(strands.slice(0, LEARNED_BY), resolution, looks);
  const believable = believableMessages(strands);
  const bounds: Bound[] = [];
  for (const records of strands) {
    if (records.length > MOST_RECORDS) continue;
    calls(records, resolution, looks, (kind, bound) => {
      const likely = believed.get(kind);
      if (bound && likely !== undefined) bounds.push({ ...bound, likely });
    });
    bounds.push(...messages(records, resolution, believable));
  }
  return bounds;
}

function believedKinds(strands: readonly (readonly ClockRecord[])[], resolution: readonly Duration[], looks: Looks): Map<number, boolean> {
  const cases = new Map<number, { outer: number[]; rest: number[]; fitting: number; alike: number; coarse: Duration }>();
  for (const records of strands) {
    if (records.length > MOST_RECORDS) continue;
    const here = new Map<number, { outer: Duration; inner: Duration; bound: Bound | null; coarse: Duration } | null>();
    calls(records, resolution, looks, (kind, bound, outer, inner, coarse) => here.set(kind, here.has(kind) ? null : { outer, inner, bound, coarse }));
    for (const [kind, one] of here) {
      if (!one) continue;
      let own = cases.get(kind);
      if (!own) cases.set(kind, (own = { outer: [], rest: [], fitting: 0, alike: 0, coarse: one.coarse }));
      own.outer.push(one.outer);
      own.rest.push(one.outer - one.inner);
      if (one.bound) own.fitting++;
      if (one.bound && one.bound.low <= 0 && one.bound.high >= 0) own.alike++;
    }
  }
  const believed = new Map<number, boolean>();
  for (const [kind, { outer, rest, fitting, alike, coarse }] of cases) {
    if (outer.length < FEWEST || fitting < outer.length * NEARLY_ALWAYS) continue;
    if (spread(rest) <= spread(outer) / 2 || longOnesAreLong(outer, rest, coarse)) believed.set(kind, false);
    else if (alike >= outer.length * NEARLY_ALWAYS && median(rest) <= CLOSELY) believed.set(kind, true);
  }
  return believed;
}

/**
 * Where the inner time is told in whole seconds and is shorter than one, it cannot be seen to vary with the outer one. Where a call takes several seconds for once, it can: then the inner time is long as well.
 */
function longOnesAreLong(outer: readonly Duration[], rest: readonly Duration[], coarse: Duration): boolean {
  const long = outer.flatMap((time, i) => (time >= SEVERAL * coarse ? [rest[i]! <= coarse + time / 2] : []));
  const short = outer.length - long.length;
  return long.length >= FEWEST_LONG && short >= FEWEST && long.filter((one) => one).length >= MOSTLY_LONG * long.length;
}

/** Tells of every stretch of one clock that may have been called between two neighbouring records of another. */
function calls(records: readonly ClockRecord[], resolution: readonly Duration[], looks: Looks, see: See): void {
  const byClock = new Map<number, ClockRecord[]>();
  for (const record of records) {
    const own = byClock.get(record.clock);
    if (own) own.push(record);
    else byClock.set(record.clock, [record]);
  }
  if (byClock.size < 2) return;
  const stretches = new Map<number, { pauses: Stretch[]; blocks: Stretch[] }>();
  for (const [clock, own] of byClock) stretches.set(clock, { pauses: pausesOf(own), blocks: blocksOf(own) });
  for (const [clock, { pauses, blocks }] of stretches) {
    for (const one of pauses) one.look = looks.of(clock, one.first, one.last);
    for (const one of blocks) one.look = looks.of(clock, one.first, one.last);
  }
  for (const [a, { pauses }] of stretches) {
    for (const [b, { blocks }] of stretches) {
      if (a === b) continue;
      for (const outer of pauses) {
        for (const inner of blocks) {
          const [time, used] = [outer.end - outer.begin, inner.end - inner.begin];
          const [grain, fine] = [inner.coarse ? Math.max(SECOND, resolution[b]!) : resolution[b]!, outer.coarse ? Math.max(SECOND, resolution[a]!) : resolution[a]!]; // prettier-ignore
          const high = inner.begin + grain - outer.begin;
          const low = inner.end - outer.end - fine;
          const bound = low > high ? null : { a, b, atA: outer.begin, atB: inner.begin, low, high, likely: false };
          see(outer.look * MANY_LOOKS + inner.look, bound, time, used, grain);
        }
      }
    }
  }
}

/** Pauses between neighbouring records of one clock, and what records say that they took. */
function pausesOf(own: ClockRecord[]): Stretch[] {
  own.sort((x, y) => x.at - y.at);
  const found: Stretch[] = [];
  for (let i = 0; i < own.length; i++) {
    const { at, took, shape } = own[i]!;
    if (took > 0 && took <= LONGEST) found.push({ ...timeOf(own[i]!), first: -1, last: shape, look: 0, coarse: isCoarse(own[i]!) });
    const next = own[i + 1];
    if (next && next.at > at && next.at - at <= LONGEST)
      found.push({ begin: at, end: next.at, first: shape, last: next.shape, look: 0, coarse: isCoarse(own[i]!) || isCoarse(next) });
  }
  return found;
}

const isCoarse = ({ marks }: ClockRecord): boolean => (marks & MARK.coarse) !== 0;
/** The time that a record says it took: behind it where it stands at its begin. */
const timeOf = ({ at, took, marks }: ClockRecord): { begin: number; end: number } =>
  marks & MARK.begins ? { begin: at, end: at + took } : { begin: at - took, end: at };

/** Stretches of records of one clock without a long pause; a record that says what it took is one too. */
function blocksOf(own: readonly ClockRecord[]): Stretch[] {
  const found: Stretch[] = [];
  let open: Stretch | null = null;
  for (const record of own) {
    const { at, took, shape } = record;
    if (took > 0 && took <= LONGEST) found.push({ ...timeOf(record), first: -1, last: shape, look: 0, coarse: isCoarse(record) });
    if (open && at - open.end <= LONGEST) {
      open.end = at;
      open.last = shape;
      open.coarse ||= isCoarse(record);
    } else found.push((open = { begin: at, end: at, first: shape, last: shape, look: 0, coarse: isCoarse(record) }));
  }
  return found;
}

function ranked(numbers: readonly number[], share: number): number {
  return Float64Array.from(numbers).sort()[Math.min(numbers.length - 1, Math.floor(numbers.length * share))]!;
}
const median = (numbers: readonly number[]): number => ranked(numbers, 0.5);
/** Between the quartiles. */
const spread = (numbers: readonly number[]): number => ranked(numbers, 0.75) - ranked(numbers, 0.25);

/** How coarsely each clock writes its times: seconds, milliseconds or microseconds. */
export function resolutions(strands: readonly (readonly ClockRecord[])[], clocks: number): Duration[] {
  const found = new Array<Duration>(clocks).fill(1_000_000);
  for (const records of strands) {
    for (const { at, clock } of records) {
      while (at % found[clock]! !== 0) found[clock] = found[clock]! / 1000;
    }
  }
  return found;
}
