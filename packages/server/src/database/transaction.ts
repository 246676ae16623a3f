import type { Knex } from 'knex';
import type pg from 'pg';
import type { Database } from './connect.ts';
import { isTransient } from './failures.ts';

const MOST_TRIES = 8;
const pause = (tries: number): Promise<void> => new Promise((resolve) => setTimeout(resolve, Math.random() * 20 * 2 ** tries));

/**
 * A transaction that is tried again, whole, where it met another one (deadlock, serialisation failure).
 *
 * Locks are taken in one order everywhere: sources (by their number), then what was read from them, then ties and strands, then work. Who has to take
 * a source's row later than that locks it at the beginning, by `lockSources`.
 */
export async function transaction<Result>(db: Database, run: (trx: Knex.Transaction) => Promise<Result>): Promise<Result> {
  for (let tries = 1; ; tries++) {
    try {
      return await db.transaction(run);
    } catch (error) {
      if (!isTransient(error) || tries >= MOST_TRIES) throw error;
      await pause(tries);
    }
  }
}

/** The same on a connection of one's own. */
export async function transactionOn<Result>(client: pg.ClientBase, run: () => Promise<Result>): Promise<Result> {
  for (let tries = 1; ; tries++) {
    try {
      await client.query('begin');
      const result = await run();
      await client.query('commit');
      return result;
    } catch (error) {
      await client.query('rollback').catch(() => {}); // the connection may be gone; the first error is the one to tell
      if (!isTransient(error) || tries >= MOST_TRIES) throw error;
      await pause(tries);
    }
  }
}

const LOCK = 'select id from source where id = any($1::int[]) order by id for update';
/** Takes the rows of sources, the first thing in a transaction that writes to them or to what was read from them. */
export async function lockSources(trx: Knex.Transaction | pg.ClientBase, ids: readonly number[]): Promise<void> {
  if ('raw' in trx) await trx.raw(LOCK.replace('$1', '?'), [[...ids]]);
  else await trx.query(LOCK, [[...ids]]);
}
