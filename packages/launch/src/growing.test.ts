import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { appendFile, copyFile, mkdir, rename, rm, truncate, writeFile } from 'node:fs/promises';
import { request } from 'node:http';
import { join } from 'node:path';
import { gzipSync } from 'node:zlib';
import type { FollowInfo, ImportInfo, LiveRecords, LogRecord, Page, Problem } from '@fadenweg/api';
import { all, startSystem, type System } from './testing/system.ts';

let system: System;
let folder: string;
beforeAll(async () => {
  system = await startSystem();
  folder = join(system.folder, 'growing');
  await mkdir(folder, { recursive: true });
}, 120_000);
afterAll(async () => {
  await system?.stop();
});

let second = 0;
/** A line of its own second, with a number that is never told twice. */
const line = (text = ''): string => {
  second++;
  const at = new Date(Date.UTC(2026, 3, 1) + second * 1000).toISOString().slice(0, 19);
  return `${at}Z INFO desk - parcel ${second} taken${text}\n`;
};
const follow = (path: string): Promise<Response> =>
  fetch(`${system.url}/api/follows`, { method: 'POST', headers: { 'content-type': 'application/json' }, body: JSON.stringify({ path }) });

/** Numbers of the parcels that are there, in order. */
async function parcels(q = 'parcel'): Promise<number[]> {
  const items = await all<LogRecord>(system, `/records?q=${encodeURIComponent(q)}&order=oldest`);
  return items.map((one) => Number(/parcel (\d+)/.exec(one.message)?.[1]));
}
async function until(what: () => Promise<boolean>, ms = 15_000): Promise<void> {
  for (const end = Date.now() + ms; !(await what()); await new Promise((resolve) => setTimeout(resolve, 150)))
    if (Date.now() > end) throw new Error('it did not come about in time');
}
const upTo = (last: number): Promise<void> => until(async () => (await parcels()).length >= last);
const whole = (): number[] => Array.from({ length: second }, (_, i) => i + 1);
/** Time enough for something that must not happen. */
const settled = (): Promise<void> => new Promise((resolve) => setTimeout(resolve, 4000));

test('a file is read as it grows; a record that is written in pieces stays one', async () => {
  const file = join(folder, 'desk.log');
  await writeFile(file, line() + line());
  expect((await follow(folder)).status).toBe(201);
  await upTo(2);
  const first = line();
  const half = line(' to Lindau');
  await appendFile(file, first + half.slice(0, 30));
  await upTo(3);
  await new Promise((resolve) => setTimeout(resolve, 1000));
  expect(await parcels()).toEqual([1, 2, 3]);
  await appendFile(file, half.slice(30));
  await upTo(4);
  const { items: all } = await system.get<Page<LogRecord>>('/records?order=oldest');
  expect(all.map((one) => `${one.level} ${one.message}`)).toEqual([1, 2, 3, 4].map((n) => `info parcel ${n} taken${n === 4 ? ' to Lindau' : ''}`));
  const { items } = await system.get<Page<FollowInfo>>('/follows');
  expect(items).toMatchObject([{ path: folder, files: 1, problem: null, who: 'local administrator' }]);
});

test('renamed, emptied after a copy, and packed: nothing is lost, and nothing is there twice', async () => {
  const file = join(folder, 'desk.log');
  // renamed; the writer goes on in the old file for a moment
  await appendFile(file, line());
  await rename(file, `${file}.1`);
  await appendFile(`${file}.1`, line());
  await new Promise((resolve) => setTimeout(resolve, 600));
  await writeFile(file, line());
  await upTo(second);
  // copied and emptied, with a line that nobody saw before
  await appendFile(file, line());
  await copyFile(file, `${file}.2`);
  await truncate(file);
  await appendFile(file, line());
  await upTo(second);
  // packed later
  await writeFile(`${file}.3.gz`, gzipSync('' + (await import('node:fs')).readFileSync(`${file}.1`, 'utf8')));
  await rm(`${file}.1`);
  await settled();
  expect(await parcels()).toEqual(whole());
}, 60_000);

test('it goes on after a restart with what was written meanwhile, also under another name', async () => {
  const file = join(folder, 'desk.log');
  await appendFile(file, line());
  await upTo(second);
  await system.restart(async () => {
    await appendFile(file, line() + line());
    await rename(file, `${file}.4`);
    await writeFile(file, line());
  });
  await upTo(second);
  await settled();
  expect(await parcels()).toEqual(whole());
}, 60_000);

/** Events of a live search as they come. */
function listen(path: string, events: { event: string; id: string; data: LiveRecords }[], last?: string): () => void {
  const call = request(`${system.url}/api${path}`, { headers: last === undefined ? {} : { 'last-event-id': last } }, (response) => {
    let rest = '';
    response.setEncoding('utf8').on('data', (text: string) => {
      const blocks = (rest + text).split('\n\n');
      rest = blocks.pop()!;
      for (const block of blocks) {
        const part = (name: string): string => new RegExp(`^${name}: (.*)$`, 'm').exec(block)?.[1] ?? '';
        if (part('event') !== '') events.push({ event: part('event'), id: part('id'), data: JSON.parse(part('data')) as LiveRecords });
      }
    });
  });
  call.on('error', () => {}); // ended by the test
  call.end();
  return () => call.destroy();
}

test('a live search tells what comes in, and goes on where it was left', async () => {
  const file = join(folder, 'desk.log');
  const events: { event: string; id: string; data: LiveRecords }[] = [];
  const stop = listen('/live?q=Bregenz', events);
  await until(() => Promise.resolve(events.length > 0));
  await appendFile(file, line(' to Bregenz') + line(' to Lindau'));
  const told = (): string[] => events.flatMap((one) => (one.event === 'records' ? one.data.items.map((item) => item.message) : []));
  await until(() => Promise.resolve(told().length > 0));
  expect(told()).toEqual([`parcel ${second - 1} taken to Bregenz`]);
  stop();
  const { id } = events.at(-1)!;
  await appendFile(file, line(' to Bregenz'));
  await upTo(second);
  const later: typeof events = [];
  const end = listen('/live?q=Bregenz', later, id);
  await until(() => Promise.resolve(later.some((one) => one.data.items?.length > 0)));
  expect(later.find((one) => one.event === 'records')!.data.items.map((one) => one.message)).toEqual([`parcel ${second} taken to Bregenz`]);
  end();
  const other: typeof events = [];
  listen('/live?q=Bregenz', other, '0-7')();
  const strange: typeof events = [];
  const close = listen('/live?q=Bregenz', strange, 'another-7');
  await until(() => Promise.resolve(strange.length > 0));
  expect(strange[0]).toMatchObject({ event: 'gap', data: { why: 'restarted' } });
  close();
}, 60_000);

test('a file that is no log is told once, and left alone', async () => {
  await writeFile(join(folder, 'picture.log'), Buffer.from([0x89, 0x50, 0x4e, 0x47, 0, 0, 0, 13, 0, 1, 2, 3]));
  const errors = async (): Promise<unknown[]> => (await system.get<Page<ImportInfo>>('/imports')).items[0]!.errors;
  await until(async () => (await errors()).length > 0);
  await settled();
  expect(await errors()).toEqual([{ path: 'growing/picture.log', error: expect.stringContaining('binary') }]);
  await rm(join(folder, 'picture.log'));
}, 30_000);

test('what cannot be followed is refused, and what is gone is told', async () => {
  expect((await follow('desk.log')).status).toBe(400);
  const twice = await follow(join(folder, 'desk.log'));
  expect(twice.status).toBe(409);
  expect(((await twice.json()) as Problem).detail).toContain(folder);
  const before = (await parcels()).length;
  const { items } = await system.get<Page<FollowInfo>>('/follows');
  await fetch(`${system.url}/api/follows/${items[0]!.id}`, { method: 'DELETE' });
  expect((await system.get<Page<FollowInfo>>('/follows')).items).toEqual([]);
  await appendFile(join(folder, 'desk.log'), line());
  await settled();
  expect((await parcels()).length).toBe(before);
});
