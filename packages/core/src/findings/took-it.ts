import { MARK } from '../path/marks.ts';
import type { StrandRecord } from '../path/types.ts';
import type { Departure } from '../usual/depart.ts';
import type { Usual } from '../usual/index-of.ts';
import type { Duration, Microseconds } from '../units.ts';
import { reports } from './answers.ts';
import { tellingRecords } from './telling.ts';
import { waitsFor } from './waits-for.ts';

/** Whoever took so much of what came late is why. */
const MOST_OF_IT = 0.6;
/** Clocks and what is written behind a work's end leave so much room. */
const ROOM: Duration = 20_000;
const SECOND: Duration = 1_000_000;
const LOUD = 4;

/**
 * What took the time in which something came late: work that another component states and that lies in it and fills most of it, or a warning there that no good leg has; of several that of whoever waits
 * for none of the others.
 *
 * @returns its index; null where nothing tells
 */
export function whatTookIt(
  records: readonly StrandRecord[],
  { record: index, since, excess }: Departure & { kind: 'late' },
  usual: Usual,
): number | null {
  const own = records[index]!.component;
  const [from, to] = [records[since]!.at, records[index]!.at];
  const passedOn = reports(records);
  const telling = new Set(tellingRecords(records, usual));
  const waits = waitsFor(records);
  const within = (record: StrandRecord, begin: Microseconds, end: Microseconds): boolean => {
    const room = ROOM + (record.marks & MARK.coarse ? SECOND : 0);
    return begin >= from - room && end <= to + room;
  };
  const some = records.flatMap((record, i) => {
    if (i === index || i === since) return [];
    const [begin, end] = timeOf(record);
    // whoever was at it since the leg began waited too
    const all = since > 0 && begin <= records[0]!.at + ROOM;
    const worked = record.took >= MOST_OF_IT * excess && !all && within(record, begin, end);
    const warned = telling.has(i) && record.level >= LOUD && !passedOn.has(i) && within(record, record.at, record.at);
    return worked || warned ? [{ i, warned, component: record.component, begin }] : [];
  });
  const innermost = some.filter((one) => !some.some((other) => waits(one.component, other.component)) && !waits(one.component, own));
  const others = innermost.filter((one) => one.component !== own);
  const [first] = (others.length > 0 ? others : innermost.filter((one) => one.warned)).sort((a, b) => Number(b.warned) - Number(a.warned) || b.begin - a.begin || a.i - b.i); // prettier-ignore
  return first?.i ?? null;
}

const timeOf = ({ at, took, marks }: StrandRecord): [Microseconds, Microseconds] => {
  const time = took > 0 ? took : 0;
  return marks & MARK.begins ? [at, at + time] : [at - time, at];
};
