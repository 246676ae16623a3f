import knex, { type Knex } from 'knex';
import pg from 'pg';

// Keys, ids and times are whole numbers below 2^53, kept as bigint: they travel as numbers.
pg.types.setTypeParser(20, Number);
/** bigint[], which the driver's list of types does not name. */
const BIG_ARRAY = 1016 as typeof pg.types.builtins.INT8;
pg.types.setTypeParser(BIG_ARRAY, (text: string) => (text === '{}' ? [] : text.slice(1, -1).split(',').map(Number)));

export type Database = Knex;

/**
 * @param url `postgres://user@host:port/name`
 * Look-ups by key plan anew for each call: a generic plan for an array of keys would scan the whole table. No helpers within a query: each of them is a new
 * process that finds the shared pages mapped nowhere, and what takes long is asked for side by side anyway. For the same reason connections are kept for a while.
 */
export function connect(url: string, poolSize = 8): Database {
  return knex({
    client: 'pg',
    connection: { connectionString: url, options: '-c plan_cache_mode=force_custom_plan -c jit=off -c max_parallel_workers_per_gather=0' },
    pool: { min: 0, max: poolSize, idleTimeoutMillis: 600_000 },
    acquireConnectionTimeout: 8_000,
  });
}

/** A connection of one's own, for COPY and long transactions. */
export async function ownClient(url: string): Promise<pg.Client> {
  const client = new pg.Client({ connectionString: url, options: '-c plan_cache_mode=force_custom_plan -c jit=off' });
  client.on('error', () => {}); // a lost connection is told to whoever waits for a query; without a listener the process would end
  await client.connect();
  return client;
}
