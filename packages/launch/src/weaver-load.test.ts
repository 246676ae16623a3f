import { afterAll, beforeAll, expect, test } from '@jest/globals';
import pg from 'pg';
import { ownClient } from '../../server/src/database/own-client.ts';
import { Spent } from '../../server/src/weaving/spent.ts';
import { Weaver } from '../../server/src/weaving/weave.ts';
import { startSystem, type System } from './testing/system.ts';

let system: System;
let storing: pg.Client;
beforeAll(async () => {
  system = await startSystem();
  storing = new pg.Client({ connectionString: system.postgres.url });
  await storing.connect();
}, 60_000);
afterAll(async () => {
  await storing.end();
  await system.stop();
});

test('what is loaded is of one moment, though batches are stored meanwhile', async () => {
  const { rows } = await storing.query<{ id: number }>('select id from identifier_kind where not retired limit 1');
  let [key, over] = [1, false];
  const store = async (): Promise<void> => {
    for (; !over; key += 2) {
      await storing.query(
        `with s as (insert into sighting (key, kind_id, source_id, scope, value, first_at, last_at, count)
           select k, $2, 1, '', k::text, k, k, 1 from unnest(array[$1::bigint, $1::bigint + 1]) k)
         insert into edge (a, b, source_id, first_at, first_id, last_at, count) values ($1, $1::bigint + 1, 1, 1, 1, 1, 1)`,
        [key, rows[0]!.id],
      );
    }
  };
  const stored = store();
  const client = await ownClient(system.postgres.url);
  try {
    for (let i = 0; i < 40; i++) await expect(Weaver.load(client, new Spent())).resolves.toBeInstanceOf(Weaver);
  } finally {
    over = true;
    await stored;
    await client.end();
  }
  expect(key).toBeGreaterThan(20);
}, 60_000);
