import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { request } from 'node:http';
import { join } from 'node:path';
import { writeFile } from 'node:fs/promises';
import type { Health, ImportInfo, LogRecord, Page, Problem, SourceInfo, Summary } from '@fadenweg/api';
import { serverLog, startServer, type RunningServer } from '@fadenweg/server';
import { connect } from '../../server/src/database/connect.ts';
import { sendFiles, waitForImport } from './client.ts';
import { startPostgres } from './postgres.ts';
import { all, startSystem, type System } from './testing/system.ts';

let system: System;
beforeAll(async () => {
  system = await startSystem();
});
afterAll(() => system?.stop());

async function bring(name: string, content: string | Buffer): Promise<ImportInfo> {
  const file = join(system.folder, name.replaceAll('/', '_'));
  await writeFile(file, content);
  return system.bring([{ file, path: name, size: Buffer.byteLength(content), modified: Date.UTC(2026, 10, 24) }], { zone: 'UTC' });
}
const recordsOf = async (path: string): Promise<LogRecord[]> =>
  (await all<LogRecord>(system, '/records?order=oldest')).filter((one) => one.source.path === path);
/** A raw call, with headers that fetch would not let through. */
function raw(method: string, path: string, headers: Record<string, string>): Promise<{ status: number; body: string }> {
  return new Promise((resolve, reject) => {
    const sent = request(`${system.url}${path}`, { method, headers }, (response) => {
      let body = '';
      response.on('data', (chunk: Buffer) => (body += chunk.toString()));
      response.on('end', () => resolve({ status: response.statusCode ?? 0, body }));
    });
    sent.on('error', reject);
    sent.end();
  });
}
async function problem(path: string, init?: RequestInit): Promise<Problem> {
  const response = await fetch(`${system.url}/api${path}`, init);
  expect(response.headers.get('content-type')).toMatch(/^application\/problem\+json/);
  return (await response.json()) as Problem;
}

describe('bad input', () => {
  test('an empty file and a binary file are refused with a reason, the others of the import are read', async () => {
    expect((await bring('empty.log', '')).errors).toEqual([{ path: 'empty.log', error: 'the file is empty' }]);
    const binary = Buffer.from(Array.from({ length: 5000 }, (_, i) => (i * 7919) % 256));
    expect((await bring('photo.bin', binary)).errors[0]!.error).toMatch(/binary data/);
  });

  test('a single line of 20 MB is kept, in parts', async () => {
    const content = `2026-11-24 10:00:00 INFO a - before\n${'x'.repeat(20_000_000)}\n2026-11-24 10:00:02 INFO a - after\n`;
    const info = await bring('huge/line.log', content);
    expect(info).toMatchObject({ state: 'done', errors: [] });
    const records = await recordsOf('huge/line.log');
    expect(records[0]).toMatchObject({ message: 'before', understood: true });
    expect(records.at(-1)).toMatchObject({ message: 'after', understood: true });
    expect(records.slice(1, -1).every((one) => !one.understood)).toBe(true);
    expect(records.at(-1)!.source.byteTo).toBe(content.length);
  });

  test('another encoding is recognised, lines that fit no format are kept whole', async () => {
    await bring('latin/app.log', Buffer.from('2026-11-24 10:00:00 INFO a - Prüfung für Größe\n', 'latin1'));
    expect((await recordsOf('latin/app.log'))[0]!.message).toBe('Prüfung für Größe');
    await bring('utf16/app.log', Buffer.from('\uFEFF2026-11-24 10:00:00 INFO a - Prüfung\n', 'utf16le'));
    expect((await recordsOf('utf16/app.log'))[0]!.message).toBe('Prüfung');
    const info = await bring('prose/notes.txt', 'some words\n\u0000\u0001odd\nmore words\n');
    expect(info).toMatchObject({ records: 3, understood: 0, keptWhole: 3 });
    expect((await recordsOf('prose/notes.txt')).map((one) => one.at)).toEqual(Array(3).fill('2026-11-24T00:00:00.000000Z'));
    expect((await recordsOf('prose/notes.txt')).map((one) => one.message)).toEqual(['some words', '\u2400\u0001odd', 'more words']);
  });

  test('broken UTF-8, lone surrogates and zero bytes in fields do no harm', async () => {
    const info = await bring(
      'odd/app.jsonl',
      Buffer.concat([
        Buffer.from(
          '{"time":"2026-11-24T10:00:00Z","msg":"half \\ud83d and \\u0000 zero","x\\u0000y":"z"}\n{"time":"2026-11-24T10:00:01Z","msg":"broken ',
        ),
        Buffer.from([0xff, 0xc3, 0x28]),
        Buffer.from('"}\n'),
      ]),
    );
    expect(info).toMatchObject({ records: 2, state: 'done', errors: [] });
  });

  test('many small files are stored together, and one that cannot be stored keeps none of the others out', async () => {
    const send = async (name: string, content: string) => {
      const file = join(system.folder, name);
      await writeFile(file, content);
      return { file, path: `runs/${name}`, size: Buffer.byteLength(content), modified: Date.UTC(2026, 10, 24) };
    };
    const runs = Array.from({ length: 130 }, (_, i) => i);
    const files = await Promise.all(
      runs.map((i) => send(`run-${i}.out`, `2026-11-24 11:00:00.${String(i).padStart(3, '0')} INFO run ${i} begins\n2026-11-24 11:01:00 INFO run ${i} ends\n`)),
    ); // prettier-ignore
    const day = (i: number): string => new Date(Date.UTC(2019, 0, 1 + i)).toISOString().slice(0, 10);
    files.splice(60, 0, await send('years.out', Array.from({ length: 1600 }, (_, i) => `${day(i)} 10:00:00 INFO x\n`).join('')));
    const info = await system.bring(files, { zone: 'UTC' });
    expect(info).toMatchObject({ state: 'done', files: 131, records: 260, errors: [{ path: 'runs/years.out' }] });
    expect(info.errors[0]!.error).toMatch(/more than 1500 different days/);
    const records = (await all<LogRecord>(system, '/records?order=oldest&q=run')).filter((one) => one.source.path.startsWith('runs/'));
    expect(records.filter((one) => one.message.endsWith('begins')).map((one) => [one.source.path, one.message])).toEqual(runs.map((i) => [`runs/run-${i}.out`, `run ${i} begins`])); // prettier-ignore
    // the same again adds nothing, and what was refused is refused again
    expect(await system.bring(files, { zone: 'UTC' })).toMatchObject({ alreadyThere: 131, records: 0 });
    await fetch(`${system.url}/api/imports/${info.id}`, { method: 'DELETE' });
    expect((await all<LogRecord>(system, '/records?q=run')).filter((one) => one.source.path.startsWith('runs/'))).toEqual([]);
  }, 60_000);

  test('paths that lead out of the folder are made harmless', async () => {
    await bring('../../etc/../secret/app.log', '2026-11-24 10:00:00 INFO a - x\n');
    expect((await system.get<Page<SourceInfo>>('/sources')).items.map((one) => one.path)).toContain('etc/secret/app.log');
  });

  test('an identifier of 10,000 characters, an empty search and unknown parameters are told', async () => {
    expect(await problem(`/search?text=${'x'.repeat(10_000)}`)).toMatchObject({ status: 400, detail: expect.stringContaining('10000 characters') });
    expect(await problem('/search?text=%20')).toMatchObject({ status: 400 });
    expect(await problem('/strands?flwo=x')).toMatchObject({ status: 400, detail: expect.stringContaining('flwo') });
    expect(await problem('/strands?outcome=sad')).toMatchObject({ status: 400, detail: expect.stringContaining('sad') });
    expect(await problem('/strands/order:LX-1')).toMatchObject({ status: 404 });
    expect(await problem('/nothing')).toMatchObject({ status: 404 });
    expect(await problem('/imports?zone=Mars/Base', { method: 'POST' })).toMatchObject({ status: 400, detail: expect.stringContaining('Mars/Base') });
  });

  test('a pattern that cannot be looked for is refused, one that can reads the sources again', async () => {
    const post = (body: object): RequestInit => ({ method: 'POST', headers: { 'content-type': 'application/json' }, body: JSON.stringify(body) });
    expect(await problem('/identifier-kinds', post({ name: 'bad', label: 'bad', role: 'business', patterns: ['(a)\\1'] }))).toMatchObject({
      status: 400,
      detail: expect.stringContaining('back-references'),
    });
    await bring('hut/book.log', '2026-11-24 10:00:00 INFO a - booking HB-0042 made\n2026-11-24 10:00:01 ERROR a - booking HB-0042 lost\n');
    const answer = await fetch(
      `${system.url}/api/identifier-kinds`,
      post({ name: 'booking', label: 'booking', role: 'business', patterns: ['HB-\\d{4}'] }),
    );
    expect(answer.status).toBe(201);
    let found: { only: string | null };
    do found = await system.get<{ only: string | null }>('/search?text=HB-0042');
    while (found.only === null);
    expect(await system.get(`/strands/${encodeURIComponent(found.only!)}`)).toMatchObject({ outcome: 'failed', records: 2, kind: 'booking' });
  });
});

describe('who may ask', () => {
  test('a foreign name of the host and a foreign page are turned away, programs are not', async () => {
    const { host } = new URL(system.url);
    expect((await raw('GET', '/api/health', { host: 'evil.example' })).status).toBe(421);
    expect((await raw('DELETE', '/api/imports/99999', { host, origin: 'http://evil.example' })).status).toBe(403);
    expect((await raw('DELETE', '/api/imports/99999', { host, origin: 'null' })).status).toBe(403);
    expect((await raw('DELETE', '/api/imports/99999', { host })).status).toBe(404);
    expect((await raw('DELETE', '/api/imports/99999', { host, origin: `http://${host}` })).status).toBe(404);
  });
  test('the whole API is described', async () => {
    const description = (await (await fetch(`${system.url}/api/openapi.json`)).json()) as { openapi: string; paths: Record<string, unknown> };
    expect(description.openapi).toBe('3.1.0');
    for (const path of [
      '/api/health',
      '/api/imports',
      '/api/imports/{id}',
      '/api/strands/{id}/records',
      '/api/search',
      '/api/identifier-kinds',
      '/api/sources/{id}',
    ])
      expect(Object.keys(description.paths)).toContain(path);
  });
});

describe('the database goes away', () => {
  test('each call says so, nothing stored is lost, and an import that was running goes on', async () => {
    let sources: SourceInfo[];
    do sources = (await system.get<Page<SourceInfo>>('/sources')).items;
    while (sources.some((one) => one.state !== 'done'));
    const before = await system.get<Summary>('/summary');
    const lines = Array.from(
      { length: 120_000 },
      (_, i) =>
        `2026-11-23 10:${String(Math.floor(i / 2000) % 60).padStart(2, '0')}:00,${String(i % 1000).padStart(3, '0')} INFO  [exec-1] o.b.X - line ${i} of LX-${100_000 + (i % 500)}`,
    );
    const file = join(system.folder, 'long.log');
    await writeFile(file, lines.join('\n') + '\n');
    const started = await sendFiles(system.url, [{ file, path: 'long/long.log', size: Buffer.byteLength(lines.join('\n')) + 1, modified: 0 }], {
      zone: 'UTC',
    });
    let some: ImportInfo;
    do some = await system.get<ImportInfo>(`/imports/${started.id}`);
    while (some.records === 0);
    await system.postgres.stop();
    expect(await system.get<Health>('/health')).toMatchObject({ database: { state: 'down' } });
    expect(await problem('/summary')).toMatchObject({ status: 503, title: 'The database does not answer' });
    await new Promise((resolve) => setTimeout(resolve, 30_000));
    // it comes back under the address that the running server knows
    const port = new URL(system.postgres.url).port;
    system.postgres = await startPostgres(join(system.folder, 'data'), Number(port));
    const ended = await waitForImport(system.url, started.id, { progress() {} });
    expect(ended).toMatchObject({ state: 'done', records: lines.length, understood: lines.length });
    expect((await system.get<Summary>('/summary')).records).toBe(before.records + lines.length);
  });

  test('a server starts though connections are lost on the way, and another was killed while it migrated', async () => {
    const databaseUrl = await system.postgres.createDatabase('shaken');
    const starting = (): Promise<RunningServer> =>
      startServer({ databaseUrl, port: 0, spool: join(system.folder, 'spool-shaken'), web: null, log: serverLog('silent') });
    const db = connect(system.postgres.url);
    let lost = 0;
    const shaking = setInterval(() => {
      if (lost < 3)
        void db
          .raw<{ rows: unknown[] }>(`select pg_terminate_backend(pid) from pg_stat_activity where datname = 'shaken'`)
          .then(({ rows }) => (lost += Math.min(1, rows.length)));
    }, 60);
    const first = await starting().finally(() => clearInterval(shaking));
    expect(lost).toBeGreaterThan(0);
    await first.close();
    await db.destroy();
    const own = connect(databaseUrl);
    await own('migration_lock').update({ is_locked: 1 });
    await own.destroy();
    const second = await starting();
    expect((await fetch(`${second.url}/api/health`)).status).toBe(200);
    await second.close();
  });

  test('a full disk is told by its name, and an import that met it goes on when there is room', async () => {
    const db = connect(system.postgres.url);
    // as the database says it when it cannot write
    await db.raw(`create function no_room() returns trigger language plpgsql as $$ begin
      raise exception 'could not extend file: No space left on device' using errcode = '53100'; end $$;
      create trigger full_disk before insert on record for each statement execute function no_room();
      create trigger full_disk before insert on saved for each statement execute function no_room()`);
    const before = await system.get<Summary>('/summary');
    const file = join(system.folder, 'room.log');
    const text = Array.from({ length: 500 }, (_, i) => `2026-11-23 11:00:00,${String(i).padStart(3, '0')} INFO  [exec-1] o.b.X - room ${i}\n`).join(
      '',
    );
    await writeFile(file, text);
    const { id } = await sendFiles(system.url, [{ file, path: 'room/room.log', size: text.length, modified: 0 }], { zone: 'UTC' });
    let held: ImportInfo;
    do held = await system.get<ImportInfo>(`/imports/${id}`);
    while (!held.waitsFor[0]?.words.includes('No space left'));
    expect(held.waitsFor[0]!.words).toBe('reading 1 source: room/room.log (held up: could not extend file: No space left on device)');
    const saved = { what: 'search', name: 'full', body: { address: { q: 'x' } } };
    const refused = await fetch(`${system.url}/api/saved`, { method: 'POST', headers: { 'content-type': 'application/json' }, body: JSON.stringify(saved) }); // prettier-ignore
    expect([refused.status, ((await refused.json()) as Problem).title]).toEqual([507, 'The disk is full']);
    await db.raw('drop function no_room() cascade');
    await db.destroy();
    expect(await waitForImport(system.url, id, { progress() {} })).toMatchObject({ state: 'done', records: 500, errors: [] });
    expect((await system.get<Summary>('/summary')).records).toBe(before.records + 500);
  });

  test('a cancelled import leaves nothing', async () => {
    const before = await system.get<Summary>('/summary');
    const file = join(system.folder, 'cancel.log');
    const content = Array.from(
      { length: 150_000 },
      (_, i) => `2026-11-22T10:00:00.${String(i % 1000).padStart(3, '0')}Z INFO x - cancelled line ${i}`,
    ).join('\n');
    await writeFile(file, content);
    const started = await sendFiles(system.url, [{ file, path: 'cancel/cancel.log', size: Buffer.byteLength(content), modified: 0 }], {});
    expect((await fetch(`${system.url}/api/imports/${started.id}`, { method: 'DELETE' })).status).toBe(204);
    expect(await system.get<Summary>('/summary')).toMatchObject({ records: before.records, sources: before.sources });
    expect(await recordsOf('cancel/cancel.log')).toEqual([]);
  });
});
