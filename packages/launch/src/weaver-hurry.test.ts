import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { rm } from 'node:fs/promises';
import type pg from 'pg';
import { ownClient } from '../../server/src/database/own-client.ts';
import { Spent } from '../../server/src/weaving/spent.ts';
import { Weaver } from '../../server/src/weaving/weave.ts';
import { filesBelow } from './client.ts';
import { declareDemo } from './demo-data.ts';
import { makeMorning, startSystem, type System } from './testing/system.ts';

let system: System;
let client: pg.Client;
beforeAll(async () => {
  system = await startSystem();
  await declareDemo(system.url);
  const { logs } = await makeMorning(system.folder);
  expect((await system.bring(await filesBelow([logs]))).state).toBe('done');
  // strands are taken away below: the server is not to bring them back meanwhile
  await system.server.close();
  client = await ownClient(system.postgres.url);
}, 120_000);
afterAll(async () => {
  await client.end();
  await system.postgres.stop();
  await rm(system.folder, { recursive: true, force: true });
});

const judged = async (): Promise<unknown[]> => (await client.query('select * from strand order by founder')).rows;

test('strands are left when somebody waits for ties, and judged alike at the next weaving', async () => {
  const before = await judged();
  const SLICE = 40;
  expect(before.length).toBeGreaterThan(3 * SLICE);
  await client.query('delete from strand');
  const weaver = await Weaver.load(client, new Spent(), SLICE);
  const stored = await weaver.weave(true, true, () => weaver.hurry());
  // of one slice; not all that is tied is a strand
  expect(stored).toBeGreaterThan(0);
  expect(stored).toBeLessThanOrEqual(SLICE);
  expect([weaver.owes, (await judged()).length]).toEqual([true, stored]);
  // asked anew, all of them are judged: nobody waits any more
  weaver.ends();
  await weaver.weave(false, true, () => {});
  expect(weaver.owes).toBe(false);
  expect(await judged()).toEqual(before);
}, 60_000);
