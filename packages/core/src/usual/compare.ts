import type { StrandRecord } from '../path/types.ts';
import type { Duration } from '../units.ts';
import { departures } from './depart.ts';
import type { Usual } from './index-of.ts';
import type { Usually, UsualSaying } from './types.ts';

/** One line of a leg beside what is usual. */
export interface Compared {
  /** `extra` is what good legs hardly ever have, `repeated` what they have less often, `number` a number out of what it usually is. */
  kind: 'as usual' | 'late' | 'missing' | 'extra' | 'repeated' | 'number';
  /** Index of its record, null for what is missing. */
  record: number | null;
  saying: UsualSaying | null;
  /** Since what usually comes before it. */
  took: Duration | null;
  wait: Usually | null;
  /** How often it occurs in this leg; told at its first record. */
  times: number;
}

/** What nearly all good legs have is missed where it is not there. */
const NEARLY_ALL = 0.95;
/** What fewer good legs have is extra. */
const HARDLY_EVER = 0.01;

/**
 * A leg line by line beside the usual, in its own order; what is missing stands behind what it usually follows.
 *
 * @param records in order of time
 */
export function compareWithUsual(records: readonly StrandRecord[], usual: Usual): Compared[] {
  const { sayings, legs } = usual.of;
  const places = usual.placesOf(records);
  const counts = new Map<number, number>();
  for (const place of places) counts.set(place, (counts.get(place) ?? 0) + 1);
  const numbers = new Set(departures(records, usual).flatMap((one) => (one.kind === 'late' ? [] : [one.record])));
  const last = new Map<number, number>();
  const seen = new Set<number>();
  const rows: Compared[] = [];
  records.forEach((record, index) => {
    const place = places[index]!;
    const saying = sayings[place] ?? null;
    const first = !seen.has(place);
    const since = saying?.after && first ? last.get(saying.after.saying) : undefined;
    const took = since === undefined ? null : record.at - records[since]!.at;
    const wait = saying?.after ? usual.at(saying.after.wait, record.at) : null;
    last.set(place, index);
    seen.add(place);
    const times = counts.get(place)!;
    rows.push({ kind: kindOf(), record: index, saying, took, wait, times });

    function kindOf(): Compared['kind'] {
      if (!saying || saying.legs < legs * HARDLY_EVER) return 'extra';
      if (took !== null && wait && took > wait.fence) return 'late';
      if (numbers.has(index)) return 'number';
      return times > saying.most && !first ? 'repeated' : 'as usual';
    }
  });
  const missing = sayings
    .map((saying, place) => ({ saying, place }))
    .filter(({ saying, place }) => saying.legs >= legs * NEARLY_ALL && !counts.has(place))
    .sort((a, b) => a.saying.position - b.saying.position);
  for (const { saying } of missing) {
    const before = saying.after ? rows.findLastIndex((row) => row.saying === sayings[saying.after!.saying]) : -1;
    const behind = before >= 0 ? before + 1 : rows.findIndex((row) => (row.saying?.position ?? -1) > saying.position);
    rows.splice(behind < 0 ? rows.length : behind, 0, {
      kind: 'missing',
      record: null,
      saying,
      took: null,
      wait: saying.after?.wait ?? null,
      times: 0,
    });
  }
  return rows;
}
