import type { Knex } from 'knex';

/** How often each shape was said, by ten minutes (number of the slot since 1970), source and component; the level is the highest of them. Copies that were taken out of sight count as minus. */
export async function up(db: Knex): Promise<void> {
  await db.raw(`
    create table shape_slot (slot int not null, source_id int not null, component_id smallint not null, shape bigint not null, level smallint not null, count int not null);
    insert into shape_slot select (at / 600000000)::int, source_id, component_id, shape, max(level), count(*)::int from record group by 1, 2, 3, 4;
    create index on shape_slot (slot);
    create index on shape_slot (shape, slot);
    create index on shape_slot (source_id);
  `);
}
