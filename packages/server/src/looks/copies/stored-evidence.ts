import type pg from 'pg';
import type { ComparedEvidence, ComparedRecord } from '@fadenweg/core/copies';
import { COLUMNS, toldOf, type CopyRow, type Names } from './told.ts';

/** Records as the database holds them, for comparing sources. */
export class StoredEvidence implements ComparedEvidence {
  private readonly ids: number[];

  /** @param components of the sources that are compared, by their numbers */
  constructor(
    private readonly client: pg.Client,
    private readonly components: ReadonlyMap<number, number>,
    private readonly names: Names,
  ) {
    this.ids = [...components.keys()];
  }

  async minutes(source: number): Promise<{ minute: number; count: number }[]> {
    const { rows } = await this.client.query<{ minute: number; count: number }>(
      `select minute, sum(count)::int as count from minute_count where source_id = $1 and count > 0 group by minute order by minute limit 200000`,
      [source],
    );
    return rows;
  }
  async timesOf(source: number, from: number, before: number, most: number): Promise<number[]> {
    const { rows } = await this.client.query<{ at: number }>(
      'select at from record where at >= $1 and at < $2 and source_id = $3 order by at, id limit $4',
      [from, before, source, most],
    );
    return rows.map((row) => row.at);
  }
  async records(from: number, to: number, most: number): Promise<ComparedRecord[]> {
    const { rows } = await this.client.query<CopyRow>(
      `select ${COLUMNS} from record where at >= $1 and at <= $2 and source_id = any($3) order by at, id limit $4`,
      [from, to, this.ids, most],
    );
    return rows.map((row) => ({
      source: row.source_id,
      at: row.at,
      names: row.keys?.length ?? 0,
      told: toldOf(row, this.names, this.components.get(row.source_id)!),
    }));
  }
}
