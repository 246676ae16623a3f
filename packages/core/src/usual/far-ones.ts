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
  return far;
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
