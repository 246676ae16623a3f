import type { Knex } from 'knex';

/** What runs read and wrote. What an earlier version judged is judged again. */
export async function up(db: Knex): Promise<void> {
  await db.raw(`
    create table touched_data (
      founder bigint not null,
      environment text not null,
      name text not null,
      kind text not null,
      writes smallint not null,
      instance text not null,
      at bigint not null,
      last_at bigint not null,
      record bigint not null,
      rows bigint,
      failed smallint not null
    );
    create index touched_data_name on touched_data (name, environment, at);
    create index touched_data_founder on touched_data (founder);
    create index touched_data_at on touched_data (at);
    insert into work (kind, about, why, who, args)
      select 'weave', '', 'an earlier version of the program did not keep what runs touched', 'supplied', '{"all":true,"fresh":true}' where exists (select from strand)
      on conflict do nothing;
  `);
}
