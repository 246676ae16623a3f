import pg from 'pg';
import './types.ts';

/** A connection of one's own, for COPY and long transactions. It stands apart from what everyday queries need: threads that only copy load nothing else. */
export async function ownClient(url: string): Promise<pg.Client> {
  const client = new pg.Client({ connectionString: url, options: '-c plan_cache_mode=force_custom_plan -c jit=off' });
  client.on('error', () => {}); // a lost connection is told to whoever waits for a query; without a listener the process would end
  await client.connect();
  return client;
}
