import type { Database } from '../database/connect.ts';
import { RECORD, type RecordRow } from './record-layout.ts';
import type { Cursor } from './records.ts';

/** A record that is not shown by itself: another source tells the same event. */
export type CopiedRow = RecordRow & { of_at: number; of_id: number };
/** What a source is a copy of. */
export interface CopyOf {
  id: number;
  path: string;
}
const MOST = 20;

/** Records that tell what another one tells too: they lie beside the others, and come with the one that is shown. */
export class CopyRepository {
  constructor(private readonly db: Database) {}

  /** Copies of these records, by the number of the one that is shown. */
  async of(records: readonly Pick<RecordRow, 'id'>[]): Promise<Map<number, Cursor[]>> {
    const found = new Map<number, Cursor[]>();
    if (records.length === 0) return found;
    const rows: (Cursor & { of_id: number })[] = await this.db('copied')
      .whereRaw('of_id = any(?)', [records.map((one) => one.id)])
      .orderBy('id')
      .select('at', 'id', 'of_id');
    for (const { at, id, of_id: of } of rows) found.set(of, [...(found.get(of) ?? []), { at, id }]);
    return found;
  }
  /** The same in full, of one. */
  allOf(record: number): Promise<CopiedRow[]> {
    return this.db<CopiedRow>('copied').where({ of_id: record }).orderBy('id').limit(MOST).select(RECORD.names);
  }
  /** The record that is shown for a copy. */
  async shownFor({ at, id }: Cursor): Promise<Cursor | undefined> {
    const row: CopiedRow | undefined = await this.db('copied').where({ at, id }).first('of_at', 'of_id');
    return row && { at: row.of_at, id: row.of_id };
  }

  /** What sources are copies of, by the first part of each. */
  async sources(): Promise<Map<number, CopyOf>> {
    const { rows } = await this.db.raw<{ rows: (CopyOf & { first: number })[] }>(
      `with first as (select family, environment, demo, min(id) as id, case when count(*) = 1 then min(path) else family end as path from source group by 1, 2, 3)
       select f.id as first, min(g.id)::int as id, min(g.path) as path
         from copy_of c join source s on s.id = c.source_id and s.copies > 0 join source o on o.id = c.of_id
         join first f on (f.family, f.environment, f.demo) = (s.family, s.environment, s.demo)
         join first g on (g.family, g.environment, g.demo) = (o.family, o.environment, o.demo) group by f.id limit 2000`,
    );
    return new Map(rows.map(({ first, id, path }) => [first, { id, path }]));
  }
  /** These sources, and all that they are copies of or that are copies of them: what one of them tells is told by the others. */
  async withCopies(ids: readonly number[]): Promise<number[]> {
    const { rows } = await this.db.raw<{ rows: { id: number }[] }>(
      `with recursive own(id) as (
         select unnest(?::int[]) union
         select case when c.source_id = own.id then c.of_id else c.source_id end from own join copy_of c on own.id in (c.source_id, c.of_id))
       select id from own order by id`,
      [[...ids]],
    );
    return rows.map((row) => row.id);
  }
}
