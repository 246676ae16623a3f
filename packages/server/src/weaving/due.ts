import type pg from 'pg';
import { surelyContinues, type Usual } from '@fadenweg/core/usual';

const MOST = 100_000;
/** Until when the sources had spoken when strands were judged last. */
const MARK = 'judged-until';

/**
 * Strands that have to be judged again because the evidence goes on: those without an end, and those that ended well and have waited long enough by now
 * for what nearly all go on with.
 *
 * @returns their founders
 */
export async function dueBy(client: pg.Client, usual: ReadonlyMap<string, Usual>): Promise<number[]> {
  const marked = await client.query<{ value: string }>('select value from mark where name = $1', [MARK]);
  const before = Number(marked.rows[0]?.value ?? 0);
  const waits = [...usual].flatMap(([flow, { of }]) => {
    const surely = surelyContinues(of).map((one) => one.longest);
    return surely.length === 0 ? [] : [{ flow, from: before - Math.max(...surely) }];
  });
  const { rows } = await client.query<{ founder: number }>(
    `(select founder from strand where outcome in ('running', 'out-of-sight') limit $3)
     union select founder from (
       select s.founder from strand s join unnest($1::text[], $2::bigint[]) w(flow, since) on s.flow = w.flow and s.ended_at >= w.since
        where s.outcome = 'done' limit $3) waiting`,
    [waits.map((one) => one.flow), waits.map((one) => Math.floor(one.from)), MOST],
  );
  return rows.map((row) => row.founder);
}

/** Keeps until when the sources had spoken. */
export async function noteJudged(client: pg.Client, evidenceEnd: number): Promise<void> {
  await client.query('insert into mark (name, value) values ($1, $2) on conflict (name) do update set value = excluded.value', [
    MARK,
    String(evidenceEnd),
  ]);
}
