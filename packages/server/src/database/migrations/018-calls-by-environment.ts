import type { Knex } from 'knex';

/** Calls know their environment by themselves: those of a window are counted without their strands. */
export async function up(db: Knex): Promise<void> {
  await db.raw(`
    alter table call_told add environment text not null default '';
    update call_told c set environment = s.environment from strand s where s.founder = c.founder;
    alter table call_told alter environment drop default;
    create index call_told_counts on call_told (begun_at) include (environment, state);
  `);
}
