import { lowerShare } from '../statistics/share.ts';
import { byTimes } from './at-times.ts';
import type { Case, LocalSlots } from './regularly.ts';
import { usually } from './robust.ts';
import type { Usually, UsualSaying } from './types.ts';

/** Good legs from which it can be said what is usual. */
export const FEWEST_LEGS = 12;
/** That nearly always one comes behind or before the other. */
export const NEARLY_ALWAYS = 0.95;
/** More different sayings of one leg are not compared with each other. */
const MOST_SAYINGS = 150;
/** Times within which something surely comes, that differ by no more than this, are alike. */
const AS_SURE = 1.5;
const MOST_THEN = 4;
/** What comes before and behind what is chosen by the first so many cases, of legs in the order of hashes; how long after that it comes is then learned from all. */
const SAMPLE = 200;

/** A leg as the places of its sayings (-1 for none) with their times. */
export interface Placed {
  places: readonly number[];
  at(index: number): number;
}
type Before = { saying: number; wait: Usually };
export type FollowingOn = Pick<UsualSaying, 'after' | 'otherwise' | 'then'>;

/**
 * For each saying the two that come closest before it nearly always, and those that come behind it nearly always, the soonest first, with how long that takes.
 *
 * @param cases in how many legs each saying occurs
 */
export function followingOn(legs: readonly Placed[], cases: Float64Array, componentOf: (saying: number) => string, slots: LocalSlots): FollowingOn[] {
  const count = cases.length;
  const gaps = new Map<number, { times: number; sample: number[] }>();
  for (const leg of legs)
    firstBehind(leg, (before, behind, gap) => {
      const own = gaps.get(before * count + behind);
      if (!own) gaps.set(before * count + behind, { times: 1, sample: [gap] });
      else if (own.times++ < SAMPLE) own.sample.push(gap);
    });
  const candidates: Before[][] = Array.from(cases, () => []);
  const then: { saying: number; share: number; wait: Usually }[][] = Array.from(cases, () => []);
  for (const [key, { times, sample }] of gaps) {
    if (times < FEWEST_LEGS) continue;
    const before = Math.floor(key / count);
    const behind = key % count;
    const isBefore = times >= cases[behind]! * NEARLY_ALWAYS;
    const share = lowerShare(times, cases[before]!);
    if (before === behind || (!isBefore && share < NEARLY_ALWAYS)) continue;
    const wait = usually(sample);
    if (isBefore) candidates[behind]!.push({ saying: before, wait });
    if (share >= NEARLY_ALWAYS) then[before]!.push({ saying: behind, share, wait });
  }
  const closest = candidates.map((own, behind) => closestOf(own, componentOf(behind), componentOf));
  for (const own of then) own.sort((a, b) => a.wait.median - b.wait.median).splice(MOST_THEN);
  const waits = new Map<number, Case[]>();
  closest.forEach((own, behind) => own.forEach(({ saying }) => waits.set(saying * count + behind, [])));
  for (const leg of legs) firstBehind(leg, (before, behind, value, at) => waits.get(before * count + behind)?.push({ at, value }));
  return closest.map((own, saying) => {
    const [after = null, otherwise = null] = own.map((one) => ({ saying: one.saying, wait: byTimes(waits.get(one.saying * count + saying)!, slots) })); // prettier-ignore
    return { after, otherwise, then: then[saying]! };
  });
}

/** For each saying's first occurrence in a leg, how long it comes behind the last occurrence of every other. */
function firstBehind({ places, at }: Placed, take: (before: number, behind: number, gap: number, at: number) => void): void {
  const last = new Map<number, number>();
  places.forEach((place, index) => {
    if (place < 0) return;
    const now = at(index);
    if (!last.has(place) && last.size < MOST_SAYINGS) for (const [before, then] of last) take(before, place, now - then, now);
    last.set(place, now);
  });
}

/**
 * The two that come closest before a saying. What comes within a time for sure counts before what only happens to lie closer in some legs, and what its own
 * component said before what another one did: an answer follows its request.
 */
function closestOf(own: Before[], component: string, componentOf: (saying: number) => string): Before[] {
  const surest = Math.min(...own.map(({ wait }) => wait.fence)) * AS_SURE;
  const rank = ({ saying, wait }: Before): number => (wait.fence > surest ? 2 : componentOf(saying) === component ? 0 : 1);
  return own.sort((a, b) => rank(a) - rank(b) || (rank(a) === 2 ? a.wait.fence - b.wait.fence : a.wait.median - b.wait.median)).slice(0, 2);
}
