import { ALWAYS } from '../repositories/identifiers.ts';

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
  with leased as materialized (
    select r.home, r.at, r.id, r.component_id, r.host_id, r.level, r.marks, r.took, r.shape, r.shifted, r.traits, left(r.message, 161) as message, r.keys
      from record r join (select distinct key from tie where valid_from > ${-ALWAYS}) k on k.key = r.home where ${within})
  select * from (
    select ${fields} from ${founders} f join tie t using (founder) join record r on r.home = t.key where t.valid_from = ${-ALWAYS} and ${within}
    union all
    select ${fields} from leased r
      cross join lateral (select founder, valid_to from tie where key = r.home and valid_from <= r.at order by valid_from desc limit 1) t
      join ${founders} f on f.founder = t.founder where r.at <= t.valid_to
    union all ${carriedTo(founders, fields)}
  ) all_at_once`;
