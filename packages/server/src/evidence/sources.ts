import type { ReadingHints } from '@fadenweg/core/reading';
import { patiently, type Database } from '../database/connect.ts';
import { lockSources, transaction } from '../database/transaction.ts';
import { tell } from '../platform/happenings/tell.ts';
import { SPANS, type ComponentSpan } from './component-spans.ts';
import { FLAG } from './record-id.ts';
import type { ReaderState } from './batch.ts';

export interface SourceRow {
  id: number;
  import_id: number;
  /** The import that waits for its reading: its own, or a later one that brought it in again, grown. */
  read_for: number;
  path: string;
  format: string;
  confidence: number;
  zone: string;
  /** Given with the import, guessed from what other sources say, or set by hand. */
  zone_by: 'given' | 'guessed' | 'set';
  encoding: string;
  hints: ReadingHints;
  /** What the parts of one rotated log have in common. */
  family: string;
  /** Set by hand: then it counts for every record, whatever the records name. */
  component_fixed: boolean;
  host_fixed: boolean;
  component_id: number;
  host_id: number;
  environment: string;
  demo: boolean;
  size: number;
  head_hash: string;
  content_hash: string;
  /** File with its bytes from `spool_from` on, until they are read. */
  spool: string | null;
  spool_from: number;
  /** More is expected: what may be a part of a record at the end is left until it shows. */
  growing: boolean;
  state: 'waiting' | 'reading' | 'done' | 'failed' | 'cancelled';
  error: string | null;
  done_bytes: number;
  done_lines: number;
  reader_state: ReaderState | null;
  records: number;
  understood: number;
  first_at: number | null;
  last_at: number | null;
  /** Records that tell the same as one of another source: they are not shown by themselves. */
  copies: number;
  /** A person said that it is a copy of none. */
  apart: boolean;
  /** How far it was read when copies were looked for. */
  compared_bytes: number;
}
/** A source that waits to be read. */
export type NewSource = Partial<SourceRow> & Pick<SourceRow, 'size' | 'content_hash'> & { spool: string };
export interface EnvironmentRow {
  name: string;
  demo: boolean;
  someDemo: boolean;
  sources: number;
  records: number;
  first: number | null;
  last: number | null;
}
export type FamilyRow = Pick<
  SourceRow,
  | 'id'
  | 'path'
  | 'format'
  | 'confidence'
  | 'zone'
  | 'zone_by'
  | 'encoding'
  | 'component_id'
  | 'host_id'
  | 'environment'
  | 'demo'
  | 'size'
  | 'done_bytes'
  | 'records'
  | 'copies'
  | 'understood'
  | 'first_at'
  | 'last_at'
  | 'error'
  | 'import_id'
  | 'state'
> & {
  parts: number;
  lacks_zone: boolean;
  order_by: string | null;
  date_order: string | null;
  time_layout: string | null;
  stands_at: string | null;
  snapshots: boolean | null;
  apart: boolean;
};
/** Of sources that tell times; where none does, of all: those stand at the dates of their files, which say little. */
const told = (of: string): string => `coalesce(${of} filter (where understood > 0), ${of})`;
/** Until when the sources speak. */
export const EVIDENCE_END = `select ${told('max(last_at)')} as end from source`;
/** Tables that hold what was read from a source, besides its kept bytes. */
export const READ_TABLES = [
  'sighting',
  'edge',
  'minute_count',
  'coverage',
  'carried',
  'sign',
  'speaker',
  'fault_record',
  'shape_slot',
  'copied',
  'copy_of',
] as const;

export class SourceRepository {
  constructor(private readonly db: Database) {}

  sources(where: Partial<SourceRow> = {}): Promise<SourceRow[]> {
    return this.db('source').where(where).orderBy('path').orderBy('id').select('*');
  }
  /** Sources as a person counts them: the parts of a rotated log are one. */
  async families(where: { id?: number } = {}, limit = 2000): Promise<FamilyRow[]> {
    const { rows } = await this.db.raw<{ rows: FamilyRow[] }>(
      `select min(id)::int as id, case when count(*) = 1 then min(path) else family end as path, count(*)::int as parts,
          (array_agg(format order by size desc, id))[1] as format, min(confidence) as confidence, (array_agg(zone order by id))[1] as zone, (array_agg(zone_by order by id))[1] as zone_by,
          bool_or(coalesce((hints->>'lacksZone')::boolean, false)) as lacks_zone, (array_agg(hints->>'orderBy' order by id))[1] as order_by, (array_agg(hints->>'dateOrder' order by id))[1] as date_order, (array_agg(hints->>'timePattern' order by id))[1] as time_layout, (array_agg(hints->>'standsAt' order by id))[1] as stands_at,
          (array_agg(encoding order by id))[1] as encoding, (array_agg(component_id order by id))[1] as component_id, (array_agg(host_id order by id))[1] as host_id,
          environment, demo, sum(size)::bigint as size, sum(done_bytes)::bigint as done_bytes, sum(records)::bigint as records, sum(copies)::bigint as copies, sum(understood)::bigint as understood, bool_or(apart) as apart, bool_or((hints->>'snapshots')::boolean) as snapshots,
          min(first_at) as first_at, max(last_at) as last_at, max(error) as error, min(import_id)::int as import_id,
          case when bool_or(state = 'reading') then 'reading' when bool_or(state = 'waiting') then 'waiting' when bool_or(state = 'failed') then 'failed'
            when bool_and(state = 'cancelled') then 'cancelled' else 'done' end as state
        from source ${where.id === undefined ? '' : 'where (family, environment, demo) = (select family, environment, demo from source where id = ?)'}
        group by family, environment, demo order by environment, path limit ?`,
      [...(where.id === undefined ? [] : [where.id]), limit],
    );
    return rows;
  }
  /** What is loaded, by environment: sums, never a list of sources. */
  async environments(): Promise<EnvironmentRow[]> {
    const { rows } = await this.db.raw<{ rows: EnvironmentRow[] }>(
      `select environment as name, bool_and(demo) as demo, bool_or(demo) as "someDemo", count(distinct family)::int as sources,
          coalesce(sum(records - copies), 0)::bigint as records, ${told('min(first_at)')} as first, ${told('max(last_at)')} as last
         from source group by environment order by bool_and(demo), environment limit 200`,
    );
    return rows;
  }

  /** All parts of the log that a source is a part of. */
  async partsOf(id: number): Promise<SourceRow[]> {
    return this.db('source')
      .whereRaw('(family, environment, demo) = (select family, environment, demo from source where id = ?)', [id])
      .orderBy('first_at')
      .orderBy('id')
      .limit(20_000)
      .select('*');
  }

  /** The numbers of all parts of these logs. */
  async withParts(ids: readonly number[]): Promise<number[]> {
    const { rows } = await this.db.raw<{ rows: { id: number }[] }>(
      'select id from source where (family, environment, demo) in (select family, environment, demo from source where id = any(?)) limit 100000',
      [[...ids]],
    );
    return rows.map((row) => row.id);
  }

  async byIds(ids: readonly number[]): Promise<Map<number, { path: string; environment: string; understood: number }>> {
    const rows: { id: number; path: string; environment: string; understood: number }[] = await this.db('source')
      .whereIn('id', [...new Set(ids)])
      .select('id', 'path', 'environment', 'understood');
    return new Map(rows.map((row) => [row.id, row]));
  }
  /** Until when the sources speak, in microseconds. */
  async evidenceEnd(): Promise<number> {
    const { rows } = await this.db.raw<{ rows: { end: number | null }[] }>(EVIDENCE_END);
    return rows[0]?.end ?? 0;
  }
  /** Between which moments there are records at all. */
  async evidence(): Promise<{ first: number; last: number }> {
    const { rows } = await this.db.raw<{ rows: { first: number | null; last: number | null }[] }>(
      'select min(first_at) as first, max(last_at) as last from source',
    );
    return { first: rows[0]?.first ?? 0, last: rows[0]?.last ?? -1 };
  }
  /** Components that records are of. */
  async components(): Promise<string[]> {
    const { rows } = await this.db.raw<{ rows: { name: string }[] }>(
      `select name from component c where name <> '' and exists (select from speaker s where s.component_id = c.id) order by name limit 2000`,
    );
    return rows.map((row) => row.name);
  }
  /** First and last record of each source, by the component that it is of. */
  async spans(): Promise<ComponentSpan[]> {
    return (await this.db.raw<{ rows: ComponentSpan[] }>(SPANS)).rows;
  }
  source(id: number): Promise<SourceRow | undefined> {
    return this.db('source').where({ id }).first();
  }
  byNumbers(ids: readonly number[]): Promise<SourceRow[]> {
    return this.db('source').whereIn('id', ids).orderBy('id');
  }
  /** A source that holds exactly these bytes already, or shorter ones that may be their beginning: whoever goes on compares. */
  async twin(
    family: string,
    size: number,
    contentHash: string,
    headHash: string,
    environment: string,
    states: readonly SourceRow['state'][] = ['done'],
  ): Promise<{ same: SourceRow | null; shorter: SourceRow[] }> {
    const same: SourceRow | undefined = await this.db('source')
      .where({ content_hash: contentHash, size })
      .whereNot({ state: 'cancelled' })
      .whereNotIn('import_id', this.db('import').where({ state: 'removing' }).select('id'))
      .first();
    const shorter: SourceRow[] = same
      ? []
      : await this.db('source')
          .whereIn('state', [...states])
          .where((or) => or.where({ family }).orWhere({ head_hash: headHash }))
          .where('size', '<', size)
          // many logs are called alike: those of the same environment that begin alike come first
          .orderByRaw('environment = ? desc, head_hash = ? desc, size desc', [environment, headHash])
          .limit(20);
    return { same: same ?? null, shorter };
  }
  async add(row: Partial<SourceRow>): Promise<number> {
    const [added] = await this.db('source').insert(row).returning('id');
    return added.id as number;
  }
  /** @param which one source or several */
  async change(which: number | readonly number[], change: Partial<SourceRow>): Promise<void> {
    const ids = [which].flat();
    await transaction(this.db, async (trx) => {
      await lockSources(trx, ids);
      await trx('source').whereIn('id', ids).update(change);
    });
  }

  /**
   * The files of sources that are read to their end are not needed. One that was given more to read meanwhile has another one; one that is to be read again, from its
   * file, keeps it.
   *
   * @returns files that nothing needs any more
   */
  async forgetFiles(of: readonly { id: number; spool: string }[]): Promise<string[]> {
    if (of.length === 0) return [];
    const ids = of.map((one) => one.id);
    const forgotten: { id: number }[] = await this.db('source').whereIn('id', ids).where({ state: 'done' }).update({ spool: null }).returning('id');
    const free = new Set(forgotten.map((one) => one.id));
    const now = new Map((await this.byNumbers(ids.filter((id) => !free.has(id)))).map((row) => [row.id, row.spool]));
    return of.filter(({ id, spool }) => free.has(id) || now.get(id) !== spool).map((one) => one.spool);
  }
  /** Files that sources are still to be read from. */
  spoolFiles(): Promise<string[]> {
    return this.db('source').whereNotNull('spool').pluck('spool');
  }
  /** Gives a source that is read to its end more to read; false where it is being read, or is gone. */
  async handOver(id: number, more: Pick<SourceRow, 'spool' | 'spool_from' | 'size' | 'content_hash' | 'growing'>): Promise<boolean> {
    return (
      (await this.db('source')
        .where({ id, state: 'done' })
        .update({ ...more, state: 'waiting' })) === 1
    );
  }

  /** Whether anything that an import waits for is still to be read. */
  async anyUnread(importId: number): Promise<boolean> {
    return (await this.db('source').where({ read_for: importId }).whereIn('state', ['waiting', 'reading']).first('id')) !== undefined;
  }
  /** Whether there were sources, and none of them could be read. */
  async nothingRead(importId: number): Promise<boolean> {
    const own = (): ReturnType<Database> => this.db('source').where({ read_for: importId });
    return (await own().first('id')) !== undefined && (await own().whereNot({ state: 'failed' }).first('id')) === undefined;
  }
  failedOf(importId: number, limit: number): Promise<{ path: string; error: string | null }[]> {
    return this.db('source').where({ read_for: importId, state: 'failed' }).orderBy('path').limit(limit).select('path', 'error');
  }
  /** Numbers of sources that wait to be read or are being read. */
  underWay(): Promise<number[]> {
    return this.db('source').whereIn('state', ['waiting', 'reading']).pluck('id');
  }
  /** Sources that wait to be read or are being read. */
  async unread(): Promise<number> {
    const row = await this.db('source').whereIn('state', ['waiting', 'reading']).count({ count: '*' }).first();
    return Number(row?.count ?? 0);
  }

  /**
   * Tells the database how many there are of what records are joined to. Of a table that it has never looked at it takes a condition to leave one row, and would go through
   * the records for each of those that it does leave.
   */
  async counted(): Promise<void> {
    await patiently(this.db, (trx) => trx.raw('analyze source, component, host, shape'));
  }

  /** Sources that are not done yet are not taken up again. */
  async cancel(ids: readonly number[]): Promise<void> {
    await this.db('source').whereIn('id', ids).whereIn('state', ['waiting', 'reading']).update({ state: 'cancelled' });
  }

  /** An import ends when these are read, whichever brought them. */
  async readFor(ids: readonly number[], importId: number): Promise<void> {
    await this.db('source').whereIn('id', ids).update({ read_for: importId });
  }

  /** Sources that name identifiers of these kinds. */
  async withKinds(kindIds: readonly number[]): Promise<number[]> {
    return patiently(this.db, (trx) =>
      trx('sighting')
        .whereIn('kind_id', kindIds as number[])
        .distinct()
        .pluck('source_id'),
    );
  }

  /** Sources in which a component says one of these texts, or says more than is kept of it; null stands for every component. */
  async saying(texts: readonly { component: string | null; contains: string }[]): Promise<number[]> {
    const of = '(component_id in (select id from component where name = ?) and strpos(message, ?) > 0)';
    const said = texts.map(({ component }) => (component === null ? 'strpos(message, ?) > 0' : of));
    const { rows } = await patiently(this.db, (trx) =>
      trx.raw<{ rows: { source_id: number }[] }>(
        `select distinct source_id from record where flags & ${FLAG.shortened} <> 0 or ${said.join(' or ')}`,
        texts.flatMap(({ component, contains }) => (component === null ? [contains] : [component, contains])),
      ),
    );
    return rows.map((row) => row.source_id);
  }

  /** Sources of an environment that are read and hold a text that a pattern finds, or a field of a name. */
  async naming(patterns: readonly string[], fields: readonly string[], environment: string): Promise<number[]> {
    const texts = patterns.map((pattern) => `(?:${pattern})`).join('|');
    const own: number[] = await this.db('source').where({ environment }).pluck('id');
    const names = fields.map((field) => `%${field.replace(/[%_\\]/g, '\\$&')}":%`);
    const { rows } = await patiently(this.db, (trx) =>
      trx.raw<{ rows: { source_id: number }[] }>(
        // the records once, whatever is known of these tables: joined to the sources, they were gone through for each of these
        `select distinct source_id from record where source_id = any(?) and (attributes::text like any(?) ${patterns.length > 0 ? 'or message ~ ? or attributes::text ~ ?' : ''})`,
        [own, names, ...(patterns.length > 0 ? [texts, texts] : [])],
      ),
    );
    const ids = rows.map((row) => row.source_id);
    return this.db('source').whereIn('id', ids).where({ state: 'done', environment }).pluck('id');
  }

  /** Takes out what was read from sources; their kept bytes stay, and they can be read again from the beginning. */
  async forgetRead(ids: readonly number[]): Promise<void> {
    if (ids.length === 0) return;
    await transaction(this.db, async (trx) => {
      await trx.raw('set local statement_timeout = 0');
      await lockSources(trx, ids);
      // of a file that grows only the end is at hand; whoever follows it brings it again
      await trx('source')
        .whereIn('id', ids)
        .where('spool_from', '>', 0)
        .whereNotNull('spool')
        .update({ spool: null, size: trx.ref('done_bytes') });
      await trx('source').whereIn('id', ids).update({
        growing: false,
        spool_from: 0,
        state: 'waiting',
        done_bytes: 0,
        carried_bytes: 0,
        done_lines: 0,
        reader_state: null,
        records: 0,
        understood: 0,
        first_at: null,
        last_at: null,
        error: null,
        copies: 0,
        compared_bytes: 0,
      });
      await trx('record').whereIn('source_id', ids).delete();
      for (const table of READ_TABLES) await trx(table).whereIn('source_id', ids).delete();
      // bytes that are still at hand in a file are kept anew as they are read
      await trx('raw_block').whereIn('source_id', trx('source').whereIn('id', ids).whereNotNull('spool').select('id')).delete();
      await tell(trx, 'source-changed', { sources: [...ids], what: 'read-again' });
    });
  }
}
