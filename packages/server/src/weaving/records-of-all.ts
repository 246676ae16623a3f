import { JUDGED_NAMED } from '../evidence/judged-record.ts';
import type pg from 'pg';
import { ALWAYS } from '../evidence/identifiers.ts';
import { copyOut, type RowReader } from '../database/copy-out.ts';

/**
 * A query for the records that are carried over to strands.
 *
 * @param founders a table with a column `founder`
 * @param fields of the tie `t` and the record `r`
 */
export const carriedTo = (founders: string, fields: string): string => `select ${fields} from ${founders} f join tie t using (founder)
  join carried c on c.home = t.key and c.at between t.valid_from and t.valid_to join record r on r.at = c.at and r.id = c.id`;

/**
 * A query for all records of many strands at once, in one pass over the records.
 * A reused key has thousands of ties, so joining them by the key alone would multiply: its records look the one tie up
 * that began last before them. Records at home with lasting keys are joined by hash.
 *
 * @param founders a table with a column `founder`
 * @param fields of the tie `t` and the record `r`
 * @param within a condition over `r` that holds for all of them that name what belongs to the strands
 */
export const recordsOfAll = (founders: string, fields: string, within = 'true'): string => `
  ${atHomeOfAll(founders, fields, within)}
    union all ${carriedTo(founders, fields)}`;
/** The same of those alone that name what belongs to the strands themselves. */
export const atHomeOfAll = (founders: string, fields: string, within = 'true'): string => `
  with leased as materialized (
    select r.home, r.at, r.id, r.shifted, ${JUDGED_NAMED}
      from record r join (select distinct key from tie where valid_from > ${-ALWAYS}) k on k.key = r.home where ${within})
    select ${fields} from ${founders} f join tie t using (founder) join record r on r.home = t.key where t.valid_from = ${-ALWAYS} and ${within}
    union all
    select ${fields} from leased r
      cross join lateral (select founder, valid_to from tie where key = r.home and valid_from <= r.at order by valid_from desc limit 1) t
      join ${founders} f on f.founder = t.founder where r.at <= t.valid_to`;

/** Strands that are looked up at once. */
const CHUNK = 200;

/**
 * Records of some strands, strand after strand, in the order of the second and third field, looked up by what they name.
 *
 * @param fields of the tie `t` and the record `r`, the founder first
 * @param more `progress` is told of how many strands were looked up; `carried`: also those that are carried over
 */
export async function recordsOfSome(
  client: pg.Client,
  founders: readonly number[],
  fields: string,
  take: (row: RowReader) => void,
  { progress = () => {}, carried = true }: { progress?: (done: number) => void; carried?: boolean } = {},
): Promise<void> {
  for (let i = 0; i < founders.length; i += CHUNK) {
    const some = founders.slice(i, i + CHUNK);
    const { rows } = await client.query<{ key: number; low: number; high: number }>(
      `select t.key, greatest(t.valid_from, min(s.first_at)) as low, least(t.valid_to, max(s.last_at)) as high
         from tie t join sighting s on s.key = t.key where t.founder = any($1) group by t.key, t.valid_from, t.valid_to`,
      [some],
    );
    if (rows.length > 0) {
      const low = rows.reduce((least, row) => Math.min(least, row.low), Infinity);
      const high = rows.reduce((most, row) => Math.max(most, row.high), -Infinity);
      const keys = [...new Set(rows.map((row) => row.key))].join(',');
      const these = `t.founder in (${some.join(',')})`;
      await copyOut(
        client,
        `select * from (
          select ${fields} from tie t join record r on r.home = t.key and r.at >= t.valid_from and r.at <= t.valid_to
            where ${these} and r.keys && '{${keys}}'::bigint[] and r.at between ${low} and ${high}
          ${
            carried
              ? `union all
          select ${fields} from tie t join carried c on c.home = t.key and c.at between t.valid_from and t.valid_to join record r on r.at = c.at and r.id = c.id
            where ${these}`
              : ''
          }) one order by 1, 2, 3`,
        take,
      );
    }
    progress(Math.min(i + CHUNK, founders.length));
  }
}
