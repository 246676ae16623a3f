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
      `select r.place, m.flow, m.outcome, m.lasted, sum(m.strands)::int as strands from ${rangesOf(ranges)}
         join ${tableOf(ranges)} m on m.slot >= r.begins and m.slot < r.ends where m.environment = any(?) group by 1, 2, 3, 4`,
      [...boundsOf(ranges), environment],
    );
    return rows;
  }

  /** The same without how long it lasted, how many there were and how many of them were amiss. */
  async past(ranges: readonly Range[], environment: string[]): Promise<PastRow[]> {
    if (ranges.length === 0) return [];
    const { rows } = await this.db.raw<{ rows: PastRow[] }>(
      `select r.place, r.day, m.flow, sum(m.strands)::int as strands, coalesce(sum(m.strands) filter (where m.outcome not in ${NOT_AMISS}), 0)::int as amiss
         from ${rangesOf(ranges)} join ${tableOf(ranges)} m on m.slot >= r.begins and m.slot < r.ends where m.environment = any(?) group by 1, 2, 3`,
      [...boundsOf(ranges), environment],
    );
    return rows;
  }

  /** How long what ended well lasted, by flow and bucket. */
  async lasted(ranges: readonly Range[], environment: string[]): Promise<{ flow: string; bucket: number; count: number }[]> {
    if (ranges.length === 0) return [];
    const { rows } = await this.db.raw<{ rows: { flow: string; bucket: number; count: number }[] }>(
      `select m.flow, m.lasted as bucket, sum(m.strands)::int as count from ${rangesOf(ranges)} join ${tableOf(ranges)} m on m.slot >= r.begins and m.slot < r.ends
         where m.environment = any(?) and m.outcome in ('done', 'slow') group by 1, 2`,
      [...boundsOf(ranges), environment],
    );
    return rows;
  }

  /** By flow, the hour in which the first strand began. */
  async firsts(environment: string[]): Promise<Map<string, Microseconds>> {
    const { rows } = await this.db.raw<{ rows: { flow: string; first: number }[] }>(
      'select flow, min(slot) as first from strand_hour where environment = any(?) group by 1',
      [environment],
    );
    return new Map(rows.map(({ flow, first }) => [flow, first * HOUR]));
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
const rangesOf = (_ranges: readonly Range[]): string => 'unnest(?::int[], ?::int[], ?::int[], ?::int[]) r(place, day, begins, ends)';
function boundsOf(ranges: readonly Range[]): [number[], number[], number[], number[]] {
  const unit = byHour(ranges) ? HOUR : MINUTE;
  return [
    ranges.map((one) => one.place),
    ranges.map((one) => one.day),
    ranges.map((one) => Math.floor(one.from / unit)),
    ranges.map((one) => Math.ceil(one.to / unit)),
  ];
}
