import type { Knex } from 'knex';
import type { Database } from '../database/connect.ts';
import { lockSources, transaction } from '../database/transaction.ts';
import { tell } from '../platform/happenings/tell.ts';
import { READ_TABLES, type NewSource } from '../evidence/sources.ts';

export interface ImportRow {
  id: number;
  /** Following: files that grow are read as they do, without end. */
  state: 'receiving' | 'reading' | 'following' | 'done' | 'failed' | 'cancelled' | 'removing';
  who: string;
  environment: string;
  zone: string;
  zone_stated: boolean;
  demo: boolean;
  started_at: Date;
  ended_at: Date | null;
  files: number;
  already_there: number;
  bytes: number;
  errors: { path: string; error: string }[];
}
export interface ImportSums {
  records: number;
  understood: number;
  readBytes: number;
  total: number;
  first: number | null;
  last: number | null;
}

export type ArrivedCounts = Partial<Pick<ImportRow, 'files' | 'bytes' | 'already_there'>>;

/** The lock under which arriving sources are noted. */
const ARRIVING = 0x61727276;

/** Imports: what came when, from whom, and what it comes to. */
export class ImportRepository {
  constructor(private readonly db: Database) {}

  latest(limit = 50): Promise<ImportRow[]> {
    return this.db('import').orderBy('id', 'desc').limit(limit).select('*');
  }
  one(id: number): Promise<ImportRow | undefined> {
    return this.db('import').where({ id }).first();
  }
  async add(row: Partial<ImportRow>): Promise<number> {
    const [added] = await this.db('import').insert(row).returning('id');
    return added.id as number;
  }
  /** Counts what arrived with an import. */
  async countIn(id: number, more: ArrivedCounts, db: Knex = this.db): Promise<void> {
    const { files = 0, bytes = 0, already_there: alreadyThere = 0 } = more;
    await db.raw('update import set files = files + ?, bytes = bytes + ?, already_there = already_there + ? where id = ?', [
      files,
      bytes,
      alreadyThere,
      id,
    ]);
  }
  /**
   * Notes sources that arrived, and counts what did, all of it or nothing. Two imports may bring the same bytes at one time, and neither sees the
   * other's before it is noted: here they come one after the other.
   *
   * @returns those that had come meanwhile, and are counted as being there already
   */
  async arrived(id: number, sources: readonly NewSource[], counts: ArrivedCounts): Promise<NewSource[]> {
    return transaction(this.db, async (trx) => {
      await trx.raw('select pg_advisory_xact_lock(?)', [ARRIVING]);
      const held: Pick<NewSource, 'size' | 'content_hash'>[] = await trx('source')
        .whereIn(
          'content_hash',
          sources.map((one) => one.content_hash),
        ) // prettier-ignore
        .whereNot({ state: 'cancelled' })
        .whereNotIn('import_id', trx('import').where({ state: 'removing' }).select('id'))
        .select('size', 'content_hash');
      const isHeld = (one: NewSource): boolean => held.some((other) => other.size === one.size && other.content_hash === one.content_hash);
      const twice = sources.filter(isHeld);
      const fresh = sources.filter((one) => !isHeld(one));
      await this.countIn(id, { ...counts, already_there: (counts.already_there ?? 0) + twice.length }, trx);
      if (fresh.length > 0) await trx('source').insert(fresh);
      return twice;
    });
  }
  async change(id: number, change: Partial<ImportRow>): Promise<void> {
    await this.db('import')
      .where({ id })
      .update({ ...change, ...(change.errors ? { errors: JSON.stringify(change.errors) } : {}) });
  }
  /** All of it is read and judged, or nothing of it could be read. */
  async end(id: number, state: 'done' | 'failed'): Promise<void> {
    await transaction(this.db, async (trx) => {
      await trx('import').where({ id }).update({ state, ended_at: new Date() });
      await tell(trx, 'import-ended', { importId: id, state });
    });
  }
  /** Those that have no end yet, the latest first. */
  unended(): Promise<ImportRow[]> {
    return this.db('import').whereIn('state', ['receiving', 'reading', 'removing']).orderBy('id', 'desc').select('*');
  }
  /** Sources that an import waits for. */
  async unread(id: number): Promise<{ sources: number; example: string }> {
    const { rows } = await this.db.raw<{ rows: { sources: number; example: string | null }[] }>(
      `select count(*)::int as sources, min(path) as example from source where read_for = ? and state in ('waiting', 'reading')`,
      [id],
    );
    return { sources: rows[0]!.sources, example: rows[0]!.example ?? '' };
  }
  /** What an import's sources come to. */
  async sums(importId: number): Promise<ImportSums> {
    const { rows } = await this.db.raw<{ rows: ImportSums[] }>(
      `select coalesce(sum(records), 0)::bigint as records, coalesce(sum(understood), 0)::bigint as understood, min(first_at) as first, max(last_at) as last,
          coalesce(sum(done_bytes), 0)::bigint as "readBytes", coalesce(sum(size), 0)::bigint as total from source where import_id = ?`,
      [importId],
    );
    return rows[0]!;
  }

  /** Takes an import out, whole, in one go. */
  async remove(id: number): Promise<number[]> {
    const ids: number[] = await this.db('source').where({ import_id: id }).pluck('id');
    await transaction(this.db, async (trx) => {
      await trx.raw('set local statement_timeout = 0');
      await lockSources(trx, ids);
      await trx('record').whereIn('source_id', ids).delete();
      for (const table of [...READ_TABLES, 'raw_block'] as const) await trx(table).whereIn('source_id', ids).delete();
      await trx('source').where({ import_id: id }).delete();
      await trx('import').where({ id }).delete();
      await tell(trx, 'import-removed', { importId: id });
    });
    return ids;
  }
}
