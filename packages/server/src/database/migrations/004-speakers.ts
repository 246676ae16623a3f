import type { Knex } from 'knex';

/** Which components and hosts speak in each source: what none tells of any more is listed nowhere. */
export async function up(db: Knex): Promise<void> {
  await db.raw(`
    create table speaker (
      source_id int not null references source on delete cascade, component_id smallint not null references component, host_id smallint not null references host,
      primary key (source_id, component_id, host_id));
    create index on speaker (host_id, component_id);
    insert into speaker select distinct source_id, component_id, host_id from record;
  `);
}
