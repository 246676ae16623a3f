import type { Knex } from 'knex';
import type pg from 'pg';
import type { WorkState } from '@fadenweg/api';
import { isKnex } from '../happenings/tell.ts';
import type { WorkRow } from './types.ts';

type Connection = Knex | pg.ClientBase;

/** One statement on either kind of connection. */
async function query<Row>(db: Connection, sql: string, values: readonly unknown[]): Promise<{ rows: Row[]; count: number }> {
  const { rows, rowCount } = isKnex(db)
    ? await db.raw<{ rows: Row[]; rowCount: number }>(sql.replace(/\$\d+/g, '?'), inOrder(sql, values) as Knex.RawBinding[])
    : await db.query<Row & pg.QueryResultRow>(sql, [...values]);
  return { rows, count: rowCount ?? 0 };
}
/** The values as often, and in the order, as a statement names them. */
const inOrder = (sql: string, values: readonly unknown[]): unknown[] => [...sql.matchAll(/\$(\d+)/g)].map(([, place]) => values[Number(place) - 1]);

export interface NewWork {
  kind: string;
  about: string;
  why: string;
  who: string;
  args: string;
  /** Milliseconds from now. */
  after: number;
}

/**
 * Puts a piece in line, or hastens the one that waits for the same. The last statement of its transaction: others that ask for the same wait for it.
 *
 * @returns the piece, and whether it waited already (then its args are as they were)
 */
export async function enqueue(
  db: Connection,
  { kind, about, why, who, args, after }: NewWork,
): Promise<{ id: number; waited: boolean; args: unknown }> {
  const { rows } = await query<{ id: number; waited: boolean; args: unknown }>(
    db,
    `insert into work (kind, about, why, who, args, due_at) values ($1, $2, $3, $4, $5, clock_timestamp() + $6 * interval '1 ms')
       on conflict (kind, about) where state = 'waiting' do update set due_at = least(work.due_at, excluded.due_at)
       returning id, args, xmax <> 0 as waited`,
    [kind, about, why, who, args, after],
  );
  return rows[0]!;
}
/** Gives a piece that still waits other args. */
export async function rewrite(db: Connection, id: number, args: string): Promise<boolean> {
  return (await query(db, `update work set args = $1 where id = $2 and state = 'waiting'`, [args, id])).count === 1;
}
export async function waiting(db: Connection, kind: string, about: string): Promise<{ id: number; args: unknown } | null> {
  const { rows } = await query<{ id: number; args: unknown }>(
    db,
    `select id, args from work where kind = $1 and about = $2 and state = 'waiting' for update`,
    [kind, about],
  );
  return rows[0] ?? null;
}

export async function anyWaiting(db: Connection, kind: string): Promise<boolean> {
  return (await query(db, `select 1 from work where kind = $1 and state = 'waiting' limit 1`, [kind])).rows.length > 0;
}

/** Takes the next piece that is due and of none of these kinds. */
export async function claim(db: Connection, busy: readonly string[], known: readonly string[]): Promise<WorkRow | null> {
  const { rows } = await query<WorkRow>(
    db,
    `update work set state = 'running', started_at = clock_timestamp(), tries = tries + 1, share = null, doing = null where id = (
       select id from work where state = 'waiting' and due_at <= clock_timestamp() and kind <> all($1::text[]) and kind = any($2::text[])
         order by due_at, id limit 1 for update skip locked) returning *`,
    [busy, known],
  );
  return rows[0] ?? null;
}
/** Milliseconds until the next piece is due that is of none of these kinds; null where none waits. */
export async function untilNext(db: Connection, busy: readonly string[], known: readonly string[]): Promise<number | null> {
  const { rows } = await query<{ ms: number | null }>(
    db,
    `select (extract(epoch from min(due_at) - clock_timestamp()) * 1000)::float8 as ms from work where state = 'waiting' and kind <> all($1::text[]) and kind = any($2::text[])`,
    [busy, known],
  );
  return rows[0]?.ms ?? null;
}
export async function progress(db: Connection, id: number, doing: string, share: number | null): Promise<void> {
  await query(db, `update work set doing = $1, share = $2 where id = $3 and state = 'running'`, [doing, share, id]);
}
export async function finish(db: Connection, id: number, state: 'done' | 'cancelled' | 'failed', error: string | null): Promise<void> {
  await query(db, `update work set state = $1, ended_at = clock_timestamp(), error = $2, doing = null where id = $3`, [state, error, id]);
}
/** Puts a piece back in line. @param counts whether the try counts */
export async function putBack(db: Connection, id: number, args: string, error: string | null, after: number, counts: boolean): Promise<void> {
  await query(
    db,
    `update work set state = 'waiting', args = $1, error = coalesce($2, error), due_at = clock_timestamp() + $3 * interval '1 ms', tries = tries - $4, doing = null where id = $5`,
    [args, error, after, counts ? 0 : 1, id],
  );
}

export async function byId(db: Connection, id: number): Promise<WorkRow | null> {
  return (await query<WorkRow>(db, 'select * from work where id = $1', [id])).rows[0] ?? null;
}
/** Pieces that a dead process was at, and those that waited. */
export async function leftOver(db: Connection): Promise<WorkRow[]> {
  return (await query<WorkRow>(db, `select * from work where state in ('running', 'waiting') order by (state = 'running'), id`, [])).rows;
}
export async function list(db: Connection, states: readonly WorkState[], before: number | null, limit: number): Promise<WorkRow[]> {
  return (
    await query<WorkRow>(
      db,
      'select * from work where state = any($1::text[]) and ($2::bigint is null or id < $2::bigint) order by id desc limit $3',
      [states, before, limit],
    )
  ).rows;
}
export async function counts(db: Connection): Promise<Partial<Record<WorkState, number>>> {
  const { rows } = await query<{ state: WorkState; count: number }>(db, 'select state, count(*)::bigint as count from work group by state', []);
  return Object.fromEntries(rows.map((row) => [row.state, row.count]));
}
/** The latest that ended are kept, so many; what failed stays until somebody has seen to it. */
export async function clearEnded(db: Connection, most: number): Promise<number> {
  const { count } = await query(
    db,
    `delete from work where state in ('done', 'cancelled') and id < (select id from work where state in ('done', 'cancelled') order by id desc offset $1 limit 1)`,
    [most],
  );
  return count;
}
