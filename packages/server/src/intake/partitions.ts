import type pg from 'pg';

const DAY = 86_400_000_000;
/** Most leaves; records of further days share one leaf for what is far away. */
const MOST = 1500;

/** Leaves of the record table, one a day of UTC, made when a batch first needs them. */
export class Partitions {
  private readonly known = new Set<number>();
  private making: Promise<void> = Promise.resolve();
  private loaded = false;

  /** Makes the leaves for these days; one at a time, outside of any transaction. */
  async ensure(client: pg.Client, days: readonly number[]): Promise<void> {
    if (this.loaded && days.every((day) => this.known.has(day))) return;
    this.making = this.making.catch(() => {}).then(() => this.make(client, days));
    await this.making;
  }

  private async make(client: pg.Client, days: readonly number[]): Promise<void> {
    if (!this.loaded) await this.load(client);
    for (const day of days) {
      if (this.known.has(day)) continue;
      if (this.known.size >= MOST) throw new Error(`records fall on more than ${MOST} different days: are the times of this source read rightly?`);
      const name = `record_${new Date(day * 86_400_000).toISOString().slice(0, 10).replaceAll('-', '')}`;
      await client.query(`create table if not exists ${name} partition of record for values from (${day * DAY}) to (${(day + 1) * DAY})`);
      await client.query(`do $$ begin
        if not exists (select 1 from pg_constraint where conrelid = '${name}'::regclass and contype = 'p') then alter table ${name} add primary key (at, id); end if; end $$`);
      await client.query(
        `create index if not exists ${name}_keys on ${name} using gin (keys) with (fastupdate = on, gin_pending_list_limit = 16384)`,
      );
      await client.query(`create index if not exists ${name}_whole on ${name} (source_id, shape) where flags & 1 = 0`);
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
    this.loaded = true;
  }
}
