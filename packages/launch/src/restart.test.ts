import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { join } from 'node:path';
import type { ImportInfo, StrandSummary, Summary } from '@fadenweg/api';
import { DEMO_ZONE } from '@fadenweg/standin';
import { call, filesBelow, sendFiles, waitForImport } from './client.ts';
import { declareDemo } from './demo-data.ts';
import { ChildServer } from './testing/child-server.ts';
import { all, bringMorning, makeMorning, startSystem, type System } from './testing/system.ts';

let system: System;
let child: ChildServer | null = null;
beforeAll(async () => {
  system = await startSystem();
});
afterAll(async () => {
  await child?.kill();
  await system?.stop();
});

const fingerprint = (strands: StrandSummary[]): string[] =>
  strands.map((one) => JSON.stringify([one.id, one.outcome, one.startedAt, one.durationMs, one.records, one.headline])).sort();

test('a server that is killed again and again in the middle of an import ends with the same records and strands', async () => {
  const { logs } = await makeMorning(join(system.folder, 'world'), 18_000, 11);
  await bringMorning(system, logs);
  const whole = await system.get<Summary>('/summary');
  const expected = fingerprint(await all<StrandSummary>(system, '/strands?sort=started'));

  const databaseUrl = await system.postgres.createDatabase('killed');
  const own = (child = new ChildServer(databaseUrl, join(system.folder, 'spool-of-child')));
  await own.start();
  await declareDemo(own.url);
  const { id } = await sendFiles(own.url, await filesBelow([logs]), { environment: 'production', zone: DEMO_ZONE });
  let reached = 0;
  for (let round = 0; round < 3; round++) {
    let now: ImportInfo;
    for (;;) {
      now = await call<ImportInfo>(`${own.url}/api/imports/${id}`);
      if (now.records > reached || now.state !== 'reading') break;
      await new Promise((resolve) => setTimeout(resolve, 20));
    }
    reached = now.records;
    await own.kill();
    await own.start();
  }
  expect(await waitForImport(own.url, id, { progress() {} })).toMatchObject({ state: 'done', records: whole.records, errors: [] });
  expect(await call<Summary>(`${own.url}/api/summary`)).toMatchObject({
    records: whole.records,
    strands: whole.strands,
    from: whole.from,
    to: whole.to,
  });
  const killed: System = { ...system, get: <T>(path: string) => call<T>(`${own.url}/api${path}`) };
  expect(fingerprint(await all<StrandSummary>(killed, '/strands?sort=started'))).toEqual(expected);
}, 400_000);
