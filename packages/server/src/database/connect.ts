import knex, { type Knex } from 'knex';
import type { Logger } from 'pino';
import './types.ts';

export type Database = Knex;

/**
 * @param url `postgres://user@host:port/name`
 * Look-ups by key plan anew for each call: a generic plan for an array of keys would scan the whole table. No helpers within a query: each of them is a new
 * process that finds the shared pages mapped nowhere, and what takes long is asked for side by side anyway. For the same reason connections are kept for a while.
 * An everyday query is stopped after a minute; what goes through all records asks by `patiently`.
 */
export function connect(url: string, log: Logger | null = null, poolSize = 8): Database {
  const say = (level: 'warn' | 'error' | 'debug') => (message: unknown) => log?.[level]({ from: 'database' }, String(message));
  return knex({
    client: 'pg',
    log: { warn: say('warn'), error: say('error'), deprecate: say('debug'), debug: say('debug') },
    connection: {
      connectionString: url,
      options: '-c plan_cache_mode=force_custom_plan -c jit=off -c max_parallel_workers_per_gather=0 -c statement_timeout=60000',
    },
    pool: { min: 0, max: poolSize, idleTimeoutMillis: 600_000 },
    acquireConnectionTimeout: 8_000,
  });
}

/** For what goes through all that is stored: it may take as long as it takes. */
export const patiently = <Result>(db: Database, run: (trx: Knex.Transaction) => Promise<Result>): Promise<Result> =>
  db.transaction(async (trx) => {
    await trx.raw('set local statement_timeout = 0');
    return run(trx);
  });
