import type { Knex } from 'knex';

/**
 * Records that tell the same event as one of another source lie beside the others: none of what is searched, counted and judged sees them. `of_at`, `of_id` is the record
 * that is shown for them. `part`: that source tells more than this one.
 *
 * What sources name is written source by source: where it stands is found without going through all of it, at next to no cost of writing.
 */
export async function up(db: Knex): Promise<void> {
  await db.raw(`
    create table copied (like record);
    alter table copied add column of_at bigint not null, add column of_id bigint not null, add primary key (at, id);
    create index on copied (of_id);
    create index on copied (source_id);
    create table copy_of (
      source_id int primary key references source on delete cascade, of_id int not null references source on delete cascade, until_at bigint not null, part boolean not null);
    create index on copy_of (of_id);
    alter table source add column copies bigint not null default 0, add column compared_bytes bigint not null default 0,
      add column apart boolean not null default false;
    create index on sighting using brin (source_id) with (pages_per_range = 32, autosummarize = on);
    create index on edge using brin (source_id) with (pages_per_range = 32, autosummarize = on);
  `);
}
