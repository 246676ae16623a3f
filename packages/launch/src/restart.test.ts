import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { spawn, type ChildProcess } from 'node:child_process';
import { once } from 'node:events';
import { join } from 'node:path';
import type { ImportInfo, StrandSummary, Summary } from '@fadenweg/api';
import { DEMO_ZONE } from '@fadenweg/standin';
import { call, filesBelow, sendFiles, waitForImport } from './client.ts';
import { declareDemo } from './demo-data.ts';
import { ROOT } from './places.ts';
import { all, bringMorning, makeMorning, startSystem, type System } from './testing/system.ts';

let system: System;
let child: ChildProcess | null = null;
beforeAll(async () => {
  system = await startSystem();
});
afterAll(async () => {
  child?.kill('SIGKILL');
  await system?.stop();
});

/** The server alone, in a process of its own that can be killed. */
async function startServer(databaseUrl: string): Promise<string> {
  const own = spawn(process.execPath, [join(ROOT, 'packages/server/dist/main.js')], {
    env: { ...process.env, NODE_OPTIONS: '', DATABASE_URL: databaseUrl, FADENWEG_SPOOL: join(system.folder, 'spool-of-child'), LOG_LEVEL: 'silent' },
    stdio: ['ignore', 'pipe', 'inherit'],
  });
  child = own;
  let said = '';
  for await (const chunk of own.stdout as AsyncIterable<Buffer>) {
    said += chunk.toString();
    const url = /ready at (\S+)/.exec(said)?.[1];
    if (url) return url;
  }
  throw new Error(`the server ended before it was ready: ${said}`);
}

const fingerprint = (strands: StrandSummary[]): string[] =>
  strands.map((one) => JSON.stringify([one.id, one.outcome, one.startedAt, one.durationMs, one.records, one.headline])).sort();

test('a server that is killed again and again in the middle of an import ends with the same records and strands', async () => {
  const { logs } = await makeMorning(join(system.folder, 'world'), 30_000, 11);
  await bringMorning(system, logs);
  const whole = await system.get<Summary>('/summary');
  const expected = fingerprint(await all<StrandSummary>(system, '/strands?sort=started'));

  const databaseUrl = await system.postgres.createDatabase('killed');
  let url = await startServer(databaseUrl);
  await declareDemo(url);
  const { id } = await sendFiles(url, await filesBelow([logs]), { environment: 'production', zone: DEMO_ZONE });
  let reached = 0;
  for (let round = 0; round < 3; round++) {
    let now: ImportInfo;
    for (;;) {
      now = await call<ImportInfo>(`${url}/api/imports/${id}`);
      if (now.records > reached || now.state !== 'reading') break;
      await new Promise((resolve) => setTimeout(resolve, 20));
    }
    reached = now.records;
    child!.kill('SIGKILL');
    await once(child!, 'exit');
    url = await startServer(databaseUrl);
  }
  expect(await waitForImport(url, id, { progress() {} })).toMatchObject({ state: 'done', records: whole.records, errors: [] });
  expect(await call<Summary>(`${url}/api/summary`)).toMatchObject({ records: whole.records, strands: whole.strands, from: whole.from, to: whole.to });
  const killed: System = { ...system, get: <T>(path: string) => call<T>(`${url}/api${path}`) };
  expect(fingerprint(await all<StrandSummary>(killed, '/strands?sort=started'))).toEqual(expected);
});
