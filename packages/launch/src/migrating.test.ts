import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { execFile } from 'node:child_process';
import { readFile, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { promisify } from 'node:util';
import { gunzip } from 'node:zlib';
import pg from 'pg';
import type { Page, StrandSummary, Summary, WorkInfo } from '@fadenweg/api';
import { ForeignDatabase, Occupied, serverLog, startServer, type RunningServer } from '@fadenweg/server';
import { call } from './client.ts';
import { serverPrograms } from './packages.ts';
import { startSystem, type System } from './testing/system.ts';

/** Data folders of earlier versions, kept as dumps of a small morning of the lens works. */
const DUMP = join(import.meta.dirname, 'testing/data/as-of-001.sql.gz');
let system: System;
beforeAll(async () => {
  system = await startSystem();
});
afterAll(() => system?.stop());

const start = (databaseUrl: string): Promise<RunningServer> =>
  startServer({ databaseUrl, port: 0, spool: join(system.folder, 'spool'), web: null, log: serverLog('silent') });
async function query(url: string, sql: string): Promise<unknown[]> {
  const client = new pg.Client(url);
  await client.connect();
  try {
    return (await client.query(sql)).rows as unknown[];
  } finally {
    await client.end();
  }
}
/** A database as an earlier version left it. */
async function asOf(name: string): Promise<string> {
  const url = await system.postgres.createDatabase(name);
  const file = join(system.folder, `${name}.sql`);
  await writeFile(file, await promisify(gunzip)(await readFile(DUMP)));
  await promisify(execFile)(join(serverPrograms()!, 'psql'), ['-q', '-v', 'ON_ERROR_STOP=1', '-d', url, '-f', file], { maxBuffer: 1 << 26 });
  return url;
}

/** What was judged by an earlier version is judged again. */
async function expectSoon(rows: () => Promise<unknown[]>, count: number): Promise<void> {
  for (let tries = 0; tries < 150 && (await rows()).length !== count; tries++) await new Promise((resolve) => setTimeout(resolve, 200));
  expect(await rows()).toHaveLength(count);
}

test('data of the first version are there as they were, and go on', async () => {
  const url = await asOf('first');
  const before = (await query(url, 'select count(*)::int as n, sum(records)::int as records from strand')) as { n: number; records: number }[];
  const server = await start(url);
  try {
    const summary = await call<Summary>(`${server.url}/api/summary`);
    expect([summary.records, summary.strands]).toEqual([1788, before[0]!.n]);
    const { items } = await call<Page<StrandSummary>>(`${server.url}/api/strands?limit=500`);
    expect(items.reduce((sum, one) => sum + one.records, 0)).toBe(before[0]!.records);
    expect((await query(url, 'select name from migration order by id')).length).toBe(19);
    await expectSoon(() => query(url, `select 1 from record where level = 5 and (marks >> 11) & 3 < 2`), 0);
    await expectSoon(() => query(url, `select 1 from strand where cardinality(worked) <> cardinality(components)`), 0);
  } finally {
    await server.close();
  }
  await (await start(url)).close(); // a second time nothing is left to migrate
});

test('what an earlier version left to be done stands as work, and is done', async () => {
  const url = await asOf('left');
  const [source] = (await query(url, "select id, records::int as records from source where path like '%order-desk%' limit 1")) as {
    id: number;
    records: number;
  }[];
  await query(
    url,
    `insert into mark (name, value) values ('due', '[${source!.id}]'), ('unwoven', 'true') on conflict (name) do update set value = excluded.value`,
  );
  const server = await start(url);
  try {
    for (let busy = true; busy; await new Promise((resolve) => setTimeout(resolve, 200))) {
      const { items } = await call<Page<WorkInfo>>(`${server.url}/api/work?state=running,waiting`);
      busy = items.some((one) => ['read-again', 'weave', 'end-import'].includes(one.kind));
    }
    const { items } = await call<Page<WorkInfo>>(`${server.url}/api/work?state=done&limit=200`);
    expect(items.map((one) => one.kind)).toEqual(expect.arrayContaining(['read-again', 'weave']));
    expect(await query(url, `select state, records::int as records from source where id = ${source!.id}`)).toEqual([
      { state: 'done', records: source!.records },
    ]);
    expect(await query(url, "select 1 from mark where name in ('due', 'unwoven')")).toEqual([]);
  } finally {
    await server.close();
  }
});

test('a database of a later version, one of others, and one that another server works on are refused with a reason, and left as they are', async () => {
  const later = await asOf('later');
  await query(later, "insert into migration (name, batch, migration_time) values ('999-from-the-future', 9, now())");
  await expect(start(later)).rejects.toThrow(ForeignDatabase);
  await expect(start(later)).rejects.toThrow(/newer version.*999-from-the-future/);
  expect(await query(later, "select to_regclass('work') as work")).toEqual([{ work: null }]);

  const foreign = await system.postgres.createDatabase('foreign');
  await query(foreign, 'create table customer (id int)');
  await expect(start(foreign)).rejects.toThrow(/not ours.*customer/);
  expect(await query(foreign, "select to_regclass('record') as record")).toEqual([{ record: null }]);

  await expect(start(system.postgres.url)).rejects.toThrow(Occupied);
  expect((await system.get<Summary>('/summary')).records).toBe(0);
}, 60_000);
