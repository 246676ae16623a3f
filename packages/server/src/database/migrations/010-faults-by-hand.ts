import { SETTLED_FAULTS } from '@fadenweg/core/quiet';
import type { Knex } from 'knex';

/**
 * What people put together and part of faults, one saying after the other: `together`: the fault counts as the other; `parted`: what is of the fault and holds the words is the
 * other. `head`: as which fault one counts, null for itself; made of these.
 */
export async function up(db: Knex): Promise<void> {
  await db.raw(`
    alter table fault add column head bigint, add column words text not null default '';
    create index on fault (head) where head is not null;
    create table fault_hand (
      id bigint generated always as identity primary key, kind text not null, fault bigint not null, other bigint not null, words text not null default '',
      who text not null, said_at timestamptz not null default now());
  `);
  const { name, label, why } = SETTLED_FAULTS;
  await db('quiet_rule').insert({ name, label, why, q: '', is_on: true, supplied: true, changed_by: 'supplied' }).onConflict().ignore();
}
