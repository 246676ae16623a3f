import type { Knex } from 'knex';

/**
 * Faults: where errors come from. Each failed strand is of one, by the record that its first finding tells; each record of level error and above is of one; `mentions` are those of a strand's
 * other such records; `named`: 1 where it names something, so that it may belong to a strand. What people say of a fault is never overwritten: the last that was said counts.
 *
 * Sources in which errors stand are read again, so that what an earlier version stored has its faults too.
 */
export async function up(db: Knex): Promise<void> {
  await db.raw(`
    create table fault (id bigint primary key, component text not null, types text[] not null, calls text[] not null, shape bigint not null, traits text not null);
    create table fault_record (fault bigint not null, at bigint not null, id bigint not null, source_id int not null, host_id smallint not null, named smallint not null);
    create index on fault_record (fault, at);
    create index on fault_record (at);
    create index on fault_record (source_id);
    alter table strand add column fault bigint, add column fault_at bigint, add column fault_record bigint, add column mentions bigint[] not null default '{}';
    create index on strand (fault, started_at) where fault is not null;
    create index on strand using gin (mentions) where mentions <> '{}';
    create table fault_said (
      id bigint generated always as identity primary key, fault bigint not null, state text not null, owner text not null, note text not null, ticket text not null,
      version text not null, since_at bigint, until_at bigint, who text not null, said_at timestamptz not null default now());
    create index on fault_said (fault, id);
  `);
  const rows = (await db('minute_count').where('level', '>=', 5).distinct('source_id')) as { source_id: number }[];
  if (rows.length > 0)
    await db('work').insert({
      kind: 'read-again',
      about: '',
      why: 'an earlier version of the program did not keep where errors come from',
      who: 'supplied',
      args: JSON.stringify({ ids: rows.map((one) => one.source_id) }),
    }).onConflict().ignore(); // prettier-ignore
}
