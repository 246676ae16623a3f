import type { Knex } from 'knex';

/** What there is to say of strands that are calls: columns by which they are listed, and the rest. What an earlier version judged is judged again. */
export async function up(db: Knex): Promise<void> {
  await db.raw(`
    create table call_told (
      founder bigint primary key,
      begun_at bigint not null,
      caller text not null,
      called text not null,
      final text not null,
      state text not null,
      status integer,
      post_dial bigint,
      set_up bigint,
      talking bigint,
      facts text not null
    );
    create index call_told_begun on call_told (begun_at, founder);
    create index call_told_dial on call_told (coalesce(post_dial, -1), founder);
    create index call_told_set_up on call_told (coalesce(set_up, -1), founder);
    create index call_told_talking on call_told (coalesce(talking, -1), founder);
    create index call_told_caller on call_told (caller, begun_at);
    create index call_told_called on call_told (called, begun_at);
    create index call_told_final on call_told (final, begun_at) where final <> called;
    insert into work (kind, about, why, who, args)
      select 'weave', '', 'an earlier version of the program did not keep what is told of calls', 'supplied', '{"all":true,"fresh":true}' where exists (select from strand)
      on conflict do nothing;
  `);
}
