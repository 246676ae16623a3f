import type { Knex } from 'knex';

/** Rows that a strand says it read, wrote, rejected and skipped, -1 where it says nothing. What an earlier version judged is judged again. */
export async function up(db: Knex): Promise<void> {
  await db.raw(`
    alter table strand add column told_rows bigint[] not null default '{}';
    insert into work (kind, about, why, who, args)
      select 'weave', '', 'an earlier version of the program did not keep the rows that runs tell', 'supplied', '{"all":true,"fresh":true}' where exists (select from strand)
      on conflict do nothing;
  `);
}
