import type { Knex } from 'knex';

/**
 * A strand knows the hosts that its records are of, and how long each of its components worked for it (in the order of `components`, microseconds): one host or component is compared
 * with all others by that. What an earlier version judged is judged again.
 *
 * Groups of flows, as people name them.
 */
export async function up(db: Knex): Promise<void> {
  await db.raw(`
    alter table strand add column hosts bigint[] not null default '{}', add column worked bigint[] not null default '{}';
    create index on strand using gin (hosts);
    insert into work (kind, about, why, who, args)
      select 'weave', '', 'an earlier version of the program did not keep the hosts of strands', 'supplied', '{"all":true,"fresh":true}' where exists (select from strand)
      on conflict do nothing;
    create table flow_group (flow text primary key, name text not null, changed_by text not null, changed_at timestamptz not null default now());
  `);
}
