import type pg from 'pg';

const DAY = 86_400_000_000;
/** Most leaves. */
const MOST = 1500;

/** A batch with more records of a day than this goes into its leaf without the index of words, which would slow it tenfold. */
const MANY = 2000;
const leafOf = (day: number): string => `record_${new Date(day * 86_400_000).toISOString().slice(0, 10).replaceAll('-', '')}`;
export const wordsOf = (leaf: string): string => `${leaf}_words`;

/** A source that is at fault itself: it is not tried again. */
export class TooManyDays extends Error {
  readonly code = 'too-many-days';
  constructor() {
    super(`records fall on more than ${MOST} different days: are the times of this source read rightly?`);
  }
}

/** Leaves of the record table, one a day of UTC, made when a batch first needs them. */
export class Partitions {
  private readonly known = new Set<number>();
  /** Leaves with an index of words. */
  private readonly indexed = new Set<string>();
  private making: Promise<void> = Promise.resolve();
  private loaded = false;

  /** Makes the leaves for these days ready to take records; one at a time, outside of any transaction. */
  async ensure(client: pg.Client, days: readonly number[], records: number): Promise<void> {
    const bare = records <= MANY || !days.some((day) => this.indexed.has(leafOf(day)));
    if (this.loaded && bare && days.every((day) => this.known.has(day))) return;
    this.making = this.making.catch(() => {}).then(() => this.make(client, days, records));
    await this.making;
  }
  /** Leaves of at least so many bytes that have no index of words, the latest first. Their size is asked of the files: statistics lag behind. */
  async wordless(client: pg.Client, fewest: number): Promise<string[]> {
    if (!this.loaded) await this.load(client);
    const { rows } = await client.query<{ name: string }>(
      `select c.relname as name from pg_inherits i join pg_class c on c.oid = i.inhrelid
         where i.inhparent = 'record'::regclass and pg_relation_size(c.oid) >= $1 order by c.relname desc`,
      [fewest],
    );
    return rows.map((row) => row.name).filter((name) => !this.indexed.has(name));
  }
  hasWords(leaf: string): void {
    this.indexed.add(leaf);
  }

  private async make(client: pg.Client, days: readonly number[], records: number): Promise<void> {
    if (!this.loaded) await this.load(client);
    if (this.known.size + days.filter((day) => !this.known.has(day)).length > MOST) throw new TooManyDays();
    for (const day of days) {
      const name = leafOf(day);
      if (records > MANY && this.indexed.delete(name)) await client.query(`drop index if exists ${wordsOf(name)}`);
      if (this.known.has(day)) continue;
      await client.query(`create table if not exists ${name} partition of record for values from (${day * DAY}) to (${(day + 1) * DAY})`);
      await client.query(`do $$ begin
        if not exists (select 1 from pg_constraint where conrelid = '${name}'::regclass and contype = 'p') then alter table ${name} add primary key (at, id); end if; end $$`);
      await client.query(
        `create index if not exists ${name}_keys on ${name} using gin (keys) with (fastupdate = on, gin_pending_list_limit = 16384)`,
      );
      await client.query(`create index if not exists ${name}_whole on ${name} (source_id, shape) where flags & 1 = 0`);
      await client.query(`create index if not exists ${name}_grave on ${name} (at, id, level) where level >= 4`);
      this.known.add(day);
    }
  }

  private async load(client: pg.Client): Promise<void> {
    const { rows } = await client.query<{ name: string }>(
      `select c.relname as name from pg_inherits i join pg_class c on c.oid = i.inhrelid where i.inhparent = 'record'::regclass`,
    );
    for (const { name } of rows) {
      const hit = /^record_(\d{4})(\d\d)(\d\d)$/.exec(name);
      if (hit) this.known.add(Date.UTC(Number(hit[1]), Number(hit[2]) - 1, Number(hit[3])) / 86_400_000);
    }
    const words = await client.query<{ name: string; valid: boolean }>(
      `select c.relname as name, x.indisvalid as valid from pg_index x join pg_class c on c.oid = x.indexrelid where c.relname ~ '^record_[0-9]{8}_words$'`,
    );
    for (const { name, valid } of words.rows) {
      if (valid) this.indexed.add(name.slice(0, -'_words'.length));
      else await client.query(`drop index if exists ${name}`); // its making was broken off
    }
    this.loaded = true;
  }
}
