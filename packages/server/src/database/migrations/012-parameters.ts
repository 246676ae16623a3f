import type { Knex } from 'knex';

/**
 * What people say of shapes, by component and text: that what fits a text is one or stands apart; what a parameter of it is called; that it is tolerated as what it is (new, surging …)
 * until it changes.
 */
export async function up(db: Knex): Promise<void> {
  await db.raw(`
    create table shape_hand (
      id bigint generated always as identity primary key, component text not null, text text not null, is_one boolean not null, who text not null, said_at timestamptz not null default now(),
      unique (component, text));
    create table shape_parameter (
      component text not null, text text not null, place smallint not null, name text not null, who text not null, said_at timestamptz not null default now(),
      primary key (component, text, place));
    create table shape_said (
      component text not null, text text not null, kind text not null, note text not null, who text not null, said_at timestamptz not null default now(), primary key (component, text, kind));
  `);
}
