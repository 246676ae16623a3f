import { MARK } from '../path/marks.ts';
import type { StrandRecord } from '../path/types.ts';
import type { Duration } from '../units.ts';
import { keyOf } from './continuing.ts';

/** Where legs begin: several records may tell it at one instant, in any order; of a short leg its third record is no begin. */
const BEGINNING = 3;
const PART = 0.2;
const SECOND: Duration = 1_000_000;
/** How many of its first records may be the begin of a leg: of what is told in whole seconds nobody knows what was first in them. */
function beginning(records: Records): number {
  const begin = Math.max(1, Math.min(BEGINNING, Math.floor(records.length * PART)));
  let together = 1;
  while (together < Math.min(BEGINNING, records.length) && mayBeBefore(records[together]!, records[0]!)) together++;
  return Math.max(begin, together);
}
const mayBeBefore = (one: Records[number], first: Records[number]): boolean =>
  one.at !== undefined && first.at !== undefined && (((one.marks ?? 0) | (first.marks ?? 0)) & MARK.coarse) !== 0 && one.at - first.at < SECOND;
/** What stands at the begin of so many of the legs that have it tells a begin. */
const AT_BEGIN = 0.9;

/** Of the legs that begin with what tells a group, more have nothing rarer. */
const MOSTLY = 0.5;
interface Group {
  by: Pick<StrandRecord, 'component' | 'shape'>;
  count: number;
  legs: number[];
}

type Begin = Pick<StrandRecord, 'component' | 'shape'> & Partial<Pick<StrandRecord, 'at' | 'marks'>>;
type Records = readonly Begin[];

/**
 * Groups legs by how they begin: by what stands at the begin of a leg or nowhere, and of several such by the rarest, as `payment received` says more than that a request came.
 * The rest, of which only something common tells the begin, is no group: there is also whatever got stuck before it told more.
 *
 * @param legs records of legs, arranged
 * @param fewest legs of a group, at least
 * @returns for each group the record that tells it, how many legs begin with such a one, and indexes of the group's legs
 */
export function groupedByBegin(legs: readonly Records[], fewest: number): Group[] {
  const first = new Map<string, number>();
  const anywhere = new Map<string, number>();
  for (const records of legs) {
    for (const key of new Set(records.slice(0, beginning(records)).map(keyOf))) first.set(key, (first.get(key) ?? 0) + 1);
    for (const key of new Set(records.map(keyOf))) anywhere.set(key, (anywhere.get(key) ?? 0) + 1);
  }
  const counts = new Map([...first].filter(([key, count]) => count >= fewest && count >= AT_BEGIN * anywhere.get(key)!));
  const groups = new Map<string, Group>();
  legs.forEach((records, i) => {
    const by = beginOf(records, (key) => counts.get(key));
    if (!by) return;
    const own = groups.get(keyOf(by));
    if (own) own.legs.push(i);
    else groups.set(keyOf(by), { by, count: counts.get(keyOf(by))!, legs: [i] });
  });
  return [...groups.values()].filter((one) => one.legs.length >= fewest && one.legs.length > one.count * MOSTLY);
}

/**
 * The record that tells how a leg begins: the rarest of its first ones; where none of these does, the first one further on, since a clock that is off may have put something before it.
 *
 * @param countOf how many legs begin so, undefined for what tells no begin
 */
export function beginOf<R extends Begin>(records: readonly R[], countOf: (key: string) => number | undefined): R | undefined {
  const begin = beginning(records);
  let best: R | undefined;
  let least = Infinity;
  for (const [i, record] of records.entries()) {
    if (i >= begin && best) break;
    const key = keyOf(record);
    const count = countOf(key);
    // of equally rare ones always the same, in whatever order they stand
    if (count !== undefined && (count < least || (count === least && best && key < keyOf(best)))) [best, least] = [record, count];
    if (i >= begin && best) break;
  }
  return best;
}
