import type { Knex } from 'knex';

/** Whether a person said in which zone the times of an import are. */
export async function up(db: Knex): Promise<void> {
  await db.raw('alter table import add column zone_stated boolean not null default false');
}
