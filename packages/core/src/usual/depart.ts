import type { StrandRecord } from '../path/types.ts';
import type { Duration } from '../units.ts';
import type { Usual } from './index-of.ts';
import { countsOf } from './numbers.ts';
import type { Usually, Volume } from './types.ts';

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
  | { kind: 'volume'; record: number; value: number; usual: Volume };

/** An excess matters where it is this much of what the whole usually takes. */
const MATTERS = 0.25;

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
  records.forEach((record, index) => {
    const place = usual.placeOf(record);
    if (place < 0) return;
    const { after: closest, otherwise, volumes: numbers } = usual.of.sayings[place]!;
    const after = closest && last.has(closest.saying) ? closest : otherwise;
    if (after && !seen.has(place)) {
      const since = last.get(after.saying);
      if (since !== undefined) {
        const took = record.at - records[since]!.at;
        const wait = usual.at(after.wait, record.at);
        const excess = took - wait.median;
        if (took > wait.fence && excess >= least) late.push({ kind: 'late', record: index, since, took, usual: wait, excess });
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
  return [...withoutFollowers(late, records), ...volumes];
}

/** What came late only because another came late before it: of waits that overlap, the one that began last counts. */
function withoutFollowers(late: (Departure & { kind: 'late' })[], records: readonly StrandRecord[]): Departure[] {
  const spans = late.map((one) => ({ one, from: records[one.since]!.at, to: records[one.record]!.at }));
  return spans
    .filter(
      ({ one, from, to }) => !spans.some((other) => other.one !== one && other.from >= from && other.to <= to && other.to - other.from < to - from),
    )
    .map(({ one }) => one)
    .sort((a, b) => b.excess - a.excess);
}
