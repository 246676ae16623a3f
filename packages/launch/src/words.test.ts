import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { mkdir, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import pg from 'pg';
import type { FoundPage } from '@fadenweg/api';
import { filesBelow } from './client.ts';
import { startSystem, type System } from './testing/system.ts';

let system: System;
let database: pg.Client;
beforeAll(async () => {
  system = await startSystem(null, { wordsAfter: 200 });
  database = new pg.Client({ connectionString: system.postgres.url });
  await database.connect();
}, 120_000);
afterAll(async () => {
  await database.end();
  await system.stop();
});

const SEARCHES = ['needle', 'NEEDLE-777', 'größer', "'straw 24'", 'nowhere-at-all', 'needle where level = error'];
async function bring(name: string, from: number, count: number): Promise<void> {
  const folder = join(system.folder, name);
  await mkdir(folder, { recursive: true });
  const line = (i: number): string =>
    `2026-11-20 ${String(Math.floor(i / 3600) % 24).padStart(2, '0')}:${String(Math.floor(i / 60) % 60).padStart(2, '0')}:${String(i % 60).padStart(2, '0')},000 ${i % 5000 === 777 ? 'ERROR' : 'INFO '} [x] o.b.Hay - straw ${i} ${i % 5000 === 777 ? `Needle-${i} größer` : 'in it'}`;
  await writeFile(join(folder, `${name}.log`), Array.from({ length: count }, (_, i) => line(from + i)).join('\n'));
  await system.bring(await filesBelow([folder]));
}
async function all(q: string): Promise<string[]> {
  const ids: string[] = [];
  for (let next: string | null = ''; next !== null;) {
    const page: FoundPage = await system.get<FoundPage>(`/records?limit=1000&q=${encodeURIComponent(q)}${next && `&after=${next}`}`);
    ids.push(...page.items.map((one) => one.id));
    next = page.next;
  }
  return ids;
}
const found = (): Promise<string[][]> => Promise.all(SEARCHES.map(all));
/** Leaves with a whole index of words. */
async function indexed(): Promise<string[]> {
  const { rows } = await database.query<{ name: string }>(
    `select c.relname as name from pg_index x join pg_class c on c.oid = x.indexrelid where x.indisvalid and c.relname ~ '_words$' order by 1`,
  );
  return rows.map((row) => row.name);
}
async function until(words: string, holds: () => Promise<boolean>): Promise<void> {
  for (let i = 0; i < 300; i++) {
    if (await holds()) return;
    await new Promise((resolve) => setTimeout(resolve, 100));
  }
  throw new Error(`never so: ${words}`);
}

test('words of a large day are indexed when it is quiet, and what is found stays the same', async () => {
  await bring('small', 0, 900);
  await bring('large', 1000, 30_000);
  const before = await found();
  expect(before.map((ids) => ids.length)).toEqual([7, 1, 7, 1111, 0, 7]);
  await until('an index', async () => (await indexed()).join() === 'record_20261119_words,record_20261120_words' || (await indexed()).length === 1);
  expect(await found()).toEqual(before);
  const plan = await database.query<{ 'QUERY PLAN': string }>(
    `explain select * from record where lower(message collate "C") like '%nowhere-at-all%'`,
  );
  expect(plan.rows.map((row) => row['QUERY PLAN']).join('\n')).toContain('_words');
}, 60_000);

test('many new records take the index away, and it comes back; a few leave it alone', async () => {
  const names = await indexed();
  await bring('few', 35_000, 500);
  expect(await indexed()).toEqual(names);
  await bring('many', 40_000, 9000);
  await until('an index again', async () => (await indexed()).join() === names.join());
  expect((await found())[0]).toHaveLength(9);
}, 60_000);
