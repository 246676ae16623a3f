import type { Database } from '../../database/connect.ts';
import type { SourceRow } from '../../evidence/sources.ts';

export interface FollowRow {
  id: number;
  /** Of a file or a folder. */
  path: string;
  environment: string;
  zone: string;
  demo: boolean;
  import_id: number;
  who: string;
  since: Date;
}
/** A file that is followed into a source. */
export interface FollowedRow {
  source_id: number;
  follow_id: number;
  file: string;
  file_key: string;
  /** It was replaced, and all of it is read. */
  over: boolean;
}

/** What is followed, and which file went into which source. */
export class FollowRepository {
  constructor(private readonly db: Database) {}

  all(): Promise<FollowRow[]> {
    return this.db('follow').orderBy('id').limit(500).select('*');
  }
  async add(row: Omit<FollowRow, 'id' | 'since'>): Promise<FollowRow> {
    const [added] = await this.db('follow').insert(row).returning('*');
    return added as FollowRow;
  }
  async remove(id: number): Promise<boolean> {
    return (await this.db('follow').where({ id }).delete()) > 0;
  }
  /** The files of what is followed, with how far each source was given to its readers. */
  files(followId: number): Promise<(FollowedRow & Pick<SourceRow, 'state' | 'size' | 'done_bytes' | 'content_hash' | 'path'>)[]> {
    return this.db('followed as f')
      .join('source as s', 's.id', 'f.source_id')
      .where({ follow_id: followId })
      .orderBy('f.source_id')
      .limit(100_000)
      .select('f.*', 's.state', 's.size', 's.done_bytes', 's.content_hash', 's.path');
  }
  async keep(row: FollowedRow): Promise<void> {
    await this.db('followed').insert(row).onConflict('source_id').merge();
  }
  async end(sourceId: number): Promise<void> {
    await this.db('followed').where({ source_id: sourceId }).update({ over: true });
  }
}
