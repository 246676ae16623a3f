import type { StrandRecord } from '../path/types.ts';

import { lowerShare } from '../statistics/share.ts';
import type { Usual } from './index-of.ts';
import { plainTraits } from './index-of.ts';
import { countsOf } from './numbers.ts';
import { fences, OF_90, TOLD_APART } from './robust.ts';

/** What more than one in twenty do counts as usual, if it is known that more do. */
const USUAL = 0.05;
/** Said in this share of those far off at least, and in so few of the others at most, something tells that they go another way. */
const TELLING = 0.5;
/** A whole that is less than half as long again, or a number that is more than half and less than twice what is usual, is not far off. */
const MUCH = { time: 1.5, number: 2 };
/** Numbers of which fewer are different vary by steps: what is far off is not known of them. */
const DIFFERENT = 10;
/** Fewer cases tell nothing of when they are late. */
const SEVERAL = 5;
/** Of all cases, more are no exception. */
const MOST_TOGETHER = 0.25;
/** Spreads of a normal distribution up to three quarters of it. */
const OF_75 = 0.6745;

interface Leg {
  records: readonly StrandRecord[];
}

/**
 * Of legs that went well those that took far longer, or state a number far greater or smaller, than nine of ten allow, where they may still be as few as one in twenty by
 * chance. A fence that rests on nineteen of twenty lies beyond them, so that they would count as usual. None where something is said in them that the others do not say:
 * they go another way.
 *
 * @param legs their records in order of time
 */
export function farOnes<L extends Leg>(legs: readonly L[], usual: Usual): ReadonlySet<L> {
  const varied = new Set(usual.of.varied);
  const any = legs.filter(({ records }) => usual.at(usual.of.whole, records[0]!.at) === usual.of.whole);
  const wholes = any.map((leg) => ({ leg, value: leg.records[leg.records.length - 1]!.at - leg.records[0]!.at }));
  const far = new Set(farOf(wholes, TOLD_APART, MUCH.time, false, varied));
  for (const stated of statedBy(legs, usual)) for (const leg of farOf(stated, 1, MUCH.number, true, varied)) far.add(leg);
  for (const waits of [wholes, ...waitsIn(legs, usual)]) for (const leg of lateTogether(waits)) far.add(leg);
  return far;
}

/** How long everything came after what it usually follows, by what it is. */
function waitsIn<L extends Leg>(legs: readonly L[], usual: Usual): Iterable<Stated<L>[]> {
  const all = new Map<number, Stated<L>[]>();
  for (const leg of legs) {
    const last = new Map<number, number>();
    for (const [index, place] of usual.placesOf(leg.records).entries()) {
      const { at } = leg.records[index]!;
      const { after, otherwise } = usual.of.sayings[place] ?? {};
      const since = (after && last.get(after.saying)) ?? (otherwise && last.get(otherwise.saying));
      if (since !== undefined && since !== null && !last.has(place)) {
        const own = all.get(place);
        if (own) own.push({ leg, value: at - since });
        else all.set(place, [{ leg, value: at - since }]);
      }
      if (place >= 0) last.set(place, at);
    }
  }
  return all.values();
}

/**
 * Those that came far later than three of four allow, where they stand together in time: a queue that grew and was worked off, a machine that was slow for a while. However many they are, that is no
 * custom; what is as often late at any time is.
 */
function lateTogether<L extends Leg>(waits: readonly Stated<L>[]): L[] {
  if (waits.length < SEVERAL * DIFFERENT) return [];
  const begin = ({ leg }: Stated<L>): number => leg.records[0]!.at;
  const sorted = Float64Array.from(waits, ({ value }) => Math.max(0, value)).sort();
  const rank = (share: number): number => sorted[Math.floor((sorted.length - 1) * share)]!;
  const [median, p75] = [rank(0.5), rank(0.75)];
  const { high } = fences({ median, up: Math.log((p75 + TOLD_APART) / (median + TOLD_APART)) / OF_75, down: 0 }, TOLD_APART, waits.length);
  const late = waits.filter(({ value }) => value > Math.max(high, median * MUCH.time)).sort((a, b) => begin(a) - begin(b));
  if (late.length < DIFFERENT || late.length > waits.length * MOST_TOGETHER) return [];
  const [from, to] = [begin(late[Math.floor(late.length * USUAL)]!), begin(late[Math.floor((late.length - 1) * (1 - USUAL))]!)];
  const inside = waits.filter((one) => begin(one) >= from && begin(one) <= to).length;
  const lateInside = late.filter((one) => begin(one) >= from && begin(one) <= to).length;
  const outside = (late.length - lateInside) / Math.max(1, waits.length - inside);
  const together = lateInside >= inside * TELLING && outside <= USUAL / 2 && waits.length - inside >= inside;
  return together ? late.map(({ leg }) => leg) : [];
}

interface Stated<L> {
  leg: L;
  value: number;
}

/** The numbers that are volumes, each with the first case of it in every leg; those that are regularly otherwise at some times are left out. */
function statedBy<L extends Leg>(legs: readonly L[], usual: Usual): Iterable<Stated<L>[]> {
  const all = new Map<string, Stated<L>[]>();
  for (const leg of legs) {
    const seen = new Set<string>();
    const places = usual.placesOf(leg.records);
    for (const [index, record] of leg.records.entries()) {
      const place = places[index]!;
      const volumes = usual.of.sayings[place]?.volumes ?? [];
      if (!volumes.some((one) => !one.times)) continue;
      for (const { of, value } of countsOf(record)) {
        const key = `${place} ${of}`;
        if (seen.has(key) || !volumes.some((one) => one.of === of && !one.times)) continue;
        seen.add(key);
        const own = all.get(key);
        if (own) own.push({ leg, value });
        else all.set(key, [{ leg, value }]);
      }
    }
  }
  return all.values();
}

function farOf<L extends Leg>(stated: readonly Stated<L>[], unit: number, much: number, below: boolean, varied: ReadonlySet<string>): L[] {
  if (stated.length === 0) return [];
  const sorted = Float64Array.from(stated, ({ value }) => value).sort();
  const rank = (share: number): number => sorted[Math.min(sorted.length - 1, Math.floor(sorted.length * share))]!;
  const [p10, median, p90] = [rank(0.1), rank(0.5), rank(0.9)];
  const spread = (low: number, high: number): number => Math.log((high + unit) / (low + unit)) / OF_90;
  const { low, high } = fences({ median, up: spread(median, p90), down: spread(p10, median) }, unit);
  const isFar = (value: number): boolean => value > Math.max(high, median * much) || (below && value < Math.min(low, median / much));
  const far = stated.filter(({ value }) => isFar(value));
  if (far.length <= stated.length * USUAL || lowerShare(far.length, stated.length) > USUAL) return [];
  if (new Set(sorted.filter((value) => !isFar(value))).size < DIFFERENT) return [];
  const [inFar, inOthers] = [true, false].map((of) => sayingsIn(stated.filter(({ value }) => isFar(value) === of), varied)) as [Map<string, number>, Map<string, number>]; // prettier-ignore
  const others = stated.length - far.length;
  const another = [...inFar].some(([saying, n]) => n >= far.length * TELLING && (inOthers.get(saying) ?? 0) <= others * USUAL);
  return another ? [] : far.map(({ leg }) => leg);
}

/** In how many legs each saying stands. */
function sayingsIn(stated: readonly Stated<Leg>[], varied: ReadonlySet<string>): Map<string, number> {
  const counts = new Map<string, number>();
  for (const { leg } of stated) {
    const own = new Set(leg.records.map((record) => `${record.component}\u0000${record.shape}\u0000${plainTraits(record, varied)}`));
    for (const saying of own) counts.set(saying, (counts.get(saying) ?? 0) + 1);
  }
  return counts;
}
