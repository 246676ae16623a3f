import { stretchesOf, type Stretch } from '@fadenweg/core/coverage';
import type { Database } from '../database/connect.ts';

export interface CoverageRow extends Stretch {
  /** The first part of the source. */
  source: number;
}

/** When each source speaks, worked out when it has been read. */
export class CoverageRepository {
  constructor(private readonly db: Database) {}

  /** Works out the coverage of sources anew, from their counts by minute. */
  async learn(sourceIds: readonly number[]): Promise<void> {
    const counted: { source_id: number; minutes: number[] }[] = await this.db('minute_count')
      .whereIn('source_id', sourceIds)
      .groupBy('source_id')
      .select('source_id', this.db.raw('array_agg(distinct minute order by minute) as minutes'));
    const rows = counted.flatMap(({ source_id, minutes }) => stretchesOf(minutes).map(({ from, to }) => ({ source_id, from_at: from, to_at: to })));
    await this.db.transaction(async (trx) => {
      await trx('coverage').whereIn('source_id', sourceIds).delete();
      for (let i = 0; i < rows.length; i += 1000) await trx('coverage').insert(rows.slice(i, i + 1000));
    });
  }

  /** Of sources that were read to their end just before a kill. */
  async learnMissing(): Promise<void> {
    const ids: number[] = await this.db('source')
      .where({ state: 'done' })
      .where('records', '>', 0)
      .whereNotExists(this.db('coverage').whereRaw('coverage.source_id = source.id').select(this.db.raw('1')))
      .pluck('id');
    for (let i = 0; i < ids.length; i += 500) await this.learn(ids.slice(i, i + 500));
  }

  /** Stretches that reach into a window, by source (the parts of a log as one), at most `limit`. */
  async within(from: number, to: number, limit = 20_000): Promise<CoverageRow[]> {
    const { rows } = await this.db.raw<{ rows: CoverageRow[] }>(
      `select f.id as source, c.from_at as "from", c.to_at as "to" from coverage c join source s on s.id = c.source_id
         join (select family, environment, demo, min(id) as id from source group by 1, 2, 3) f using (family, environment, demo)
        where c.to_at > ? and c.from_at < ? order by f.id, c.from_at limit ?`,
      [from, to, limit],
    );
    return rows;
  }
}
