import type { Outcome } from '@fadenweg/core/path';
import type { Microseconds } from '@fadenweg/core/units';
import type { Database } from '../database/connect.ts';

const MINUTE = 60_000_000;
const HOUR = 60 * MINUTE;
const NOT_AMISS = "('done', 'running', 'out-of-sight')";

/** A stretch of time; of several, `place` and `day` tell which. */
export interface Range {
  place: number;
  /** So many days before. */
  day: number;
  from: Microseconds;
  to: Microseconds;
}
export interface SumRow {
  place: number;
  /** '' for none. */
  flow: string;
  outcome: Outcome;
  lasted: number;
  strands: number;
}
export interface PastRow {
  place: number;
  day: number;
  flow: string;
  strands: number;
  amiss: number;
}

/** Strands counted by time, as the database keeps them while strands come and go (migration 006). Times are those at which strands began. */
export class SumRepository {
  constructor(private readonly db: Database) {}

  /** By flow, what came in each of these stretches, how it ended and how long it lasted. */
  async within(ranges: readonly Range[], environment: string[]): Promise<SumRow[]> {
    const { rows } = await this.db.raw<{ rows: SumRow[] }>(
      `select r.place, m.* from ${RANGES} cross join lateral (
         select flow, outcome, lasted, sum(strands)::int as strands from ${tableOf(ranges)} where environment = any(?) and slot >= r.begins and slot < r.ends group by 1, 2, 3) m`,
      [...boundsOf(ranges), environment],
    );
    return rows;
  }

  /** The same without how long it lasted, how many there were and how many of them were amiss. */
  async past(ranges: readonly Range[], environment: string[]): Promise<PastRow[]> {
    if (ranges.length === 0) return [];
    const { rows } = await this.db.raw<{ rows: PastRow[] }>(
      `select r.place, r.day, m.* from ${RANGES} cross join lateral (
         select flow, sum(strands)::int as strands, coalesce(sum(strands) filter (where outcome not in ${NOT_AMISS}), 0)::int as amiss
           from ${tableOf(ranges)} where environment = any(?) and slot >= r.begins and slot < r.ends group by 1) m`,
      [...boundsOf(ranges), environment],
    );
    return rows;
  }

  /** How long what ended well lasted, by flow and bucket. */
  async lasted(ranges: readonly Range[], environment: string[]): Promise<{ flow: string; bucket: number; count: number }[]> {
    if (ranges.length === 0) return [];
    const { rows } = await this.db.raw<{ rows: { flow: string; bucket: number; count: number }[] }>(
      `select m.flow, m.bucket, sum(m.strands)::int as count from ${RANGES} cross join lateral (
         select flow, lasted as bucket, sum(strands) as strands from ${tableOf(ranges)}
           where environment = any(?) and slot >= r.begins and slot < r.ends and outcome in ('done', 'slow') group by 1, 2) m group by 1, 2`,
      [...boundsOf(ranges), environment],
    );
    return rows;
  }

  /** Of one flow, all strands, by so many minutes. */
  async course(
    flow: string,
    environment: string[],
    { from, to, minutes }: { from: Microseconds; to: Microseconds; minutes: number },
  ): Promise<{ at: Microseconds; all: number }[]> {
    const { rows } = await this.db.raw<{ rows: { piece: number; all: number }[] }>(
      'select slot / ?::int as piece, sum(strands)::int as all from strand_minute where slot >= ? and slot < ? and environment = any(?) and flow = ? group by 1 order by 1',
      [minutes, Math.floor(from / MINUTE), Math.ceil(to / MINUTE), environment, flow],
    );
    return rows.map(({ piece, all }) => ({ at: piece * minutes * MINUTE, all }));
  }

  /** From the first to the last minute in which anything was collected; null where nothing was. */
  async evidence(environment: string[]): Promise<{ from: Microseconds; to: Microseconds } | null> {
    const { rows } = await this.db.raw<{ rows: { first: number | null; last: number | null }[] }>(
      `select min((select min(minute) from minute_count where source_id = s.id)) as first, max((select max(minute) from minute_count where source_id = s.id)) as last
         from source s where environment = any(?)`,
      [environment],
    );
    const { first, last } = rows[0]!;
    return first === null || last === null ? null : { from: first, to: last + MINUTE };
  }

  /** Of each stretch, whether any record at all is of it. */
  async seen(ranges: readonly Range[], environment: string[]): Promise<boolean[]> {
    if (ranges.length === 0) return [];
    const { rows } = await this.db.raw<{ rows: { seen: boolean }[] }>(
      `with own as (select id from source where environment = any(?))
       select exists (select from minute_count m join own on own.id = m.source_id where m.minute >= r.begins and m.minute < r.ends) as seen
         from unnest(?::bigint[], ?::bigint[]) with ordinality r(begins, ends, place) order by r.place`,
      [environment, ranges.map((one) => Math.floor(one.from / MINUTE) * MINUTE), ranges.map((one) => Math.ceil(one.to))],
    );
    return rows.map((one) => one.seen);
  }
}

/** Whole hours are summed by hour, all else by minute. */
const byHour = (ranges: readonly Range[]): boolean => ranges.every(({ from, to }) => from % HOUR === 0 && to % HOUR === 0);
const tableOf = (ranges: readonly Range[]): string => (byHour(ranges) ? 'strand_hour' : 'strand_minute');
/** Each by itself: joined as a whole the planner, which cannot tell how few rows a stretch holds, goes through all of them for each. */
const RANGES = 'unnest(?::int[], ?::int[], ?::int[], ?::int[]) r(place, day, begins, ends)';
function boundsOf(ranges: readonly Range[]): [number[], number[], number[], number[]] {
  const unit = byHour(ranges) ? HOUR : MINUTE;
  return [
    ranges.map((one) => one.place),
    ranges.map((one) => one.day),
    ranges.map((one) => Math.floor(one.from / unit)),
    ranges.map((one) => Math.ceil(one.to / unit)),
  ];
}
