import { MARK } from '../path/marks.ts';
import type { StrandRecord } from '../path/types.ts';
import type { Duration } from '../units.ts';
import { habitsOf } from './habits.ts';
import type { Usual } from './index-of.ts';
import { countsOf } from './numbers.ts';
import { shareOf, statedIn } from './proportions.ts';
import type { Proportion, Usually, Volume } from './types.ts';

/** Something in a leg that is not as usual. */
export type Departure =
  | {
      kind: 'late';
      /** Index of the record that came late, and of the one behind which it is waited for. */
      record: number;
      since: number;
      took: Duration;
      usual: Usually;
      excess: Duration;
    }
  | { kind: 'volume'; record: number; value: number; usual: Volume }
  | {
      kind: 'share';
      /** Where it shows: a record that states what is missing, else the one with the later number. */
      record: number;
      value: number;
      /** The record with the earlier number. */
      other: number;
      of: number;
      usual: Proportion;
    };

/** An excess matters where it is this much of what the whole usually takes. */
const MATTERS = 0.25;
const SECOND: Duration = 1_000_000;

/**
 * What departs from the usual in a leg: records that came so late that it matters for the whole, and numbers out of what they usually are. The largest excess first.
 *
 * @param records in order of time
 */
export function departures(records: readonly StrandRecord[], usual: Usual): Departure[] {
  const last = new Map<number, number>();
  const seen = new Set<number>();
  const late: (Departure & { kind: 'late' })[] = [];
  const volumes: Departure[] = [];
  const least = usual.of.whole.median * MATTERS;
  const places = usual.placesOf(records);
  records.forEach((record, index) => {
    const place = places[index]!;
    if (place < 0) return;
    const { after: closest, otherwise, volumes: numbers } = usual.of.sayings[place]!;
    const after = closest && last.has(closest.saying) ? closest : otherwise;
    if (after && !seen.has(place)) {
      const since = last.get(after.saying);
      if (since !== undefined) {
        const took = record.at - records[since]!.at;
        const wait = usual.at(after.wait, record.at);
        const excess = took - wait.median;
        if (took - unseen(record, records[since]!) > wait.fence && excess >= least)
          late.push({ kind: 'late', record: index, since, took, usual: wait, excess });
      }
    }
    if (numbers.length > 0) {
      const stated = countsOf(record);
      for (const one of numbers) {
        const value = stated.find((count) => count.of === one.of)?.value;
        const now = usual.at(one, record.at);
        if (value !== undefined && (value < now.low || value > now.high)) volumes.push({ kind: 'volume', record: index, value, usual: now });
      }
    }
    seen.add(place);
    last.set(place, index);
  });
  return [...withoutFollowers(late, records), ...volumes, ...shares(records, usual)];
}

/** What of the time between two records may be none: whoever tells whole seconds may have meant any time in them. */
const unseen = (one: StrandRecord, other: StrandRecord): Duration => ((one.marks | other.marks) & MARK.coarse ? SECOND : 0);

/** Numbers that are no such share of each other as usual, the first of each later number alone. */
function shares(records: readonly StrandRecord[], usual: Usual): Departure[] {
  if (usual.of.proportions.length === 0) return [];
  const { proportioned } = habitsOf(usual);
  const places = usual.placesOf(records);
  const stated = statedIn(records, places.map((place) => (proportioned.has(place) ? place : -1))); // prettier-ignore
  const find = (saying: number, of: string): (typeof stated)[number] | undefined => stated.find((one) => one.saying === saying && one.of === of);
  const told = new Set<number>();
  return usual.of.proportions.flatMap((one): Departure[] => {
    const [later, earlier] = [find(one.saying, one.of), find(one.to.saying, one.to.of)];
    if (!later || !earlier || told.has(later.index)) return [];
    const share = shareOf(later.value, earlier.value);
    if (share >= one.low && share <= one.high) return [];
    told.add(later.index);
    const missing = statedIn(records, places).find(
      ({ index, value }) => index > earlier.index && index < later.index && value > 0 && value === earlier.value - later.value,
    );
    return [{ kind: 'share', record: (missing ?? later).index, value: later.value, other: earlier.index, of: earlier.value, usual: one }];
  });
}

/**
 * What came late only because another came late before it: of waits that overlap, the one that began last counts, and of those that began and ended together that of a
 * component by itself. Of a time in whole seconds nobody knows when in them it was: what is told more finely within them counts.
 */
function withoutFollowers(late: (Departure & { kind: 'late' })[], records: readonly StrandRecord[]): Departure[] {
  const spans = late.map((one) => {
    const [since, record] = [records[one.since]!, records[one.record]!];
    return { one, from: since.at, to: record.at, alone: since.component === record.component, unseen: unseen(record, since) };
  });
  type Wait = (typeof spans)[number];
  const isWithin = (other: Wait, { from, to, alone, unseen }: Wait): boolean => {
    const room = other.unseen === 0 ? unseen : 0;
    if (other.from < from - room || other.to > to + room) return false;
    return room > 0 || other.to - other.from < to - from || (other.to - other.from === to - from && other.alone && !alone);
  };
  return spans
    .filter((span) => !spans.some((other) => other !== span && isWithin(other, span)))
    .map(({ one }) => one)
    .sort((a, b) => b.excess - a.excess);
}
