import type { Knex } from 'knex';

/**
 * What has happened, who has heard of it, and what is to be done in the background.
 *
 * A happening bears the number of the transaction that wrote it: one that is still open may bear a smaller one than what is committed already, so
 * listeners hear only what lies below every open transaction, in the order (tx, id).
 *
 * What earlier versions kept as marks (sources to be read again, strands that are not woven) becomes work.
 */
export async function up(db: Knex): Promise<void> {
  await db.raw(`
    create table happening (
      tx xid8 not null default pg_current_xact_id(), id bigint generated always as identity,
      at timestamptz not null default clock_timestamp(), kind text not null, body json not null, primary key (tx, id));
    create table listener (name text primary key, tx xid8 not null, id bigint not null, heard_at timestamptz not null default now());

    create table work (
      id bigint generated always as identity primary key, kind text not null, about text not null, why text not null, who text not null, args json not null,
      state text not null default 'waiting' check (state in ('waiting', 'running', 'failed', 'done', 'cancelled')),
      made_at timestamptz not null default clock_timestamp(), due_at timestamptz not null default clock_timestamp(), started_at timestamptz, ended_at timestamptz,
      tries int not null default 0, share real, doing text, error text);
    create unique index work_waiting on work (kind, about) where state = 'waiting';
    create index work_due on work (due_at, id) where state = 'waiting';
    create index work_state on work (state, id);
  `);
  const mark = async (name: string): Promise<string | null> =>
    ((await db('mark').where({ name }).first('value')) as { value: string } | undefined)?.value ?? null;
  const due = JSON.parse((await mark('due')) ?? '[]') as number[];
  const row = (kind: string, about: string, why: string, args: unknown) => ({ kind, about, why, who: 'supplied', args: JSON.stringify(args) });
  if (due.length > 0) await db('work').insert(row('read-again', '', 'an earlier version of the program left them to be read again', { ids: due }));
  if ((await mark('unwoven')) === 'true')
    await db('work').insert(row('weave', '', 'an earlier version of the program left them', { all: true, fresh: true }));
  await db('mark').whereIn('name', ['due', 'unwoven']).delete();
}
