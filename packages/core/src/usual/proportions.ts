import type { StrandRecord } from '../path/types.ts';
import { FEWEST_LEGS, NEARLY_ALWAYS } from './following-on.ts';
import { countsOf } from './numbers.ts';
import { fences, lieOf } from './robust.ts';
import type { Proportion, UsualSaying } from './types.ts';

/** Numbers of a flow that are set beside each other. */
const MOST_NUMBERS = 12;
/** A proportion tells something where it spreads so much less than each of its numbers. */
const TIGHTER = 0.5;
/** What lies beyond differs by so much at least. */
const FACTOR = 1.25;
/** Shares are told apart to a hundredth. */
const UNIT = 0.01;

/** A number of a leg: which saying states it, where in it, at which record. */
interface Stated {
  saying: number;
  of: string;
  value: number;
}

/** The share that one number is of another; none of nothing. */
export const shareOf = (value: number, of: number): number => (of === 0 ? (value === 0 ? 1 : Infinity) : value / of);

/**
 * Numbers of a flow that go together, like what is read and what is written: each of them may vary as it likes, the share does not.
 *
 * @param legs good ones: their records, and the place of each one's saying
 * @param sayings with their volumes
 */
export function proportions(
  legs: readonly { records: readonly StrandRecord[]; places: readonly number[] }[],
  sayings: readonly UsualSaying[],
): Proportion[] {
  const wanted = sayings
    .flatMap((one, saying) => (one.legs >= legs.length * NEARLY_ALWAYS ? one.volumes.map(({ of }) => ({ saying, of, at: one.position })) : []))
    .sort((a, b) => a.at - b.at)
    .slice(0, MOST_NUMBERS);
  if (wanted.length < 2) return [];
  const keys = wanted.map(({ saying, of }) => `${saying} ${of}`);
  const columns = legs.map(({ records, places }) => {
    const stated = new Map<string, number>();
    for (const { saying, of, value } of statedIn(records, places)) if (!stated.has(`${saying} ${of}`)) stated.set(`${saying} ${of}`, value);
    return keys.map((key) => stated.get(key));
  });
  const found: Proportion[] = [];
  for (let b = 0; b < keys.length; b++)
    for (let a = b + 1; a < keys.length; a++) {
      const both = columns.flatMap((row) => {
        const [later, earlier] = [row[a], row[b]];
        return later === undefined || earlier === undefined || earlier === 0 ? [] : [{ a: later, b: earlier }];
      });
      if (both.length < Math.max(FEWEST_LEGS, legs.length * NEARLY_ALWAYS)) continue;
      const spreadOf = (values: readonly number[], unit: number): number => {
        const { up, down } = lieOf(values, unit);
        return up + down;
      };
      const shares = both.map((one) => shareOf(one.a, one.b));
      const least = Math.min(spreadOf(both.map((one) => one.a), 1), spreadOf(both.map((one) => one.b), 1)); // prettier-ignore
      if (least === 0 || spreadOf(shares, UNIT) > least * TIGHTER) continue;
      const lie = lieOf(shares, UNIT);
      const { low, high } = fences(lie, UNIT);
      found.push({
        saying: wanted[a]!.saying,
        of: wanted[a]!.of,
        to: { saying: wanted[b]!.saying, of: wanted[b]!.of },
        median: lie.median,
        low: Math.min(low, lie.median / FACTOR),
        high: Math.max(high, lie.median * FACTOR),
        cases: both.length,
      });
    }
  return found;
}

/** Numbers of a leg with what they stand in; `index` is that of the record. */
export function statedIn(records: readonly StrandRecord[], places: readonly number[]): (Stated & { index: number })[] {
  return records.flatMap((record, index) => {
    const saying = places[index]!;
    return saying < 0 ? [] : countsOf(record).map(({ of, value }) => ({ saying, of, value, index }));
  });
}
