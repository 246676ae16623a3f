import type { Knex } from 'knex';

/** What people say weighs how much, and the weight of strands. Sources are read again: the weight of what an earlier version stored stands in no record. */
export async function up(db: Knex): Promise<void> {
  await db.raw(`
    alter table strand add column weight smallint not null default 0;
    create table weight_rule (
      name text primary key, label text not null, q text not null, weight smallint not null, changed_by text not null, changed_at timestamptz not null default now());
  `);
  const rows = (await db('source').where('records', '>', 0).select('id')) as { id: number }[];
  if (rows.length > 0)
    await db('work').insert({
      kind: 'read-again',
      about: '',
      why: 'an earlier version of the program did not keep how much records weigh',
      who: 'supplied',
      args: JSON.stringify({ ids: rows.map((one) => one.id) }),
    }).onConflict().ignore(); // prettier-ignore
}
