import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { createHash } from 'node:crypto';
import { mkdir, writeFile } from 'node:fs/promises';
import { request } from 'node:http';
import { join } from 'node:path';
import type { FoundPage, Health, IdentifierKind, ImportInfo, LogRecord, Page, Problem, SourceInfo } from '@fadenweg/api';
import { filesBelow, waitForImport } from './client.ts';
import { all, startSystem, type System } from './testing/system.ts';

/** What a trial with hostile input found, and its kin: the server stays there for everybody else. */
let system: System;
beforeAll(async () => {
  system = await startSystem();
  const line = (i: number): string => `2026-11-24 10:00:${String(i % 60).padStart(2, '0')},${String(i % 1000).padStart(3, '0')} INFO [t] o.X - ${'abab'.repeat(150)} line ${i}`; // prettier-ignore
  const content = Array.from({ length: 4000 }, (_, i) => line(i)).join('\n');
  await bring('long/app.log', content);
});
afterAll(() => system?.stop());

async function bring(path: string, content: string | Buffer): Promise<ImportInfo> {
  const file = join(system.folder, path.replaceAll('/', '_'));
  await writeFile(file, content);
  return system.bring([{ file, path, size: Buffer.byteLength(content), modified: Date.UTC(2026, 10, 24) }], { zone: 'UTC' });
}
const recordsOf = async (path: string): Promise<LogRecord[]> => (await all<LogRecord>(system, '/records?order=oldest')).filter((one) => one.source.path === path); // prettier-ignore
const status = async (path: string, init?: RequestInit): Promise<number> => (await fetch(`${system.url}/api${path}`, init)).status;
const post = (path: string, body: unknown): Promise<Response> =>
  fetch(`${system.url}/api${path}`, { method: 'POST', headers: { 'content-type': 'application/json' }, body: JSON.stringify(body) });
const isThere = async (): Promise<void> => expect((await system.get<Health>('/health')).database.state).toBe('up');

/** Sends bytes as they are; the answer, or what broke the connection off. */
function raw(path: string, headers: Record<string, string>, body: Buffer, whole = true): Promise<string> {
  return new Promise((resolve) => {
    const sent = request(
      `${system.url}${path}`,
      { method: 'POST', headers: { ...headers, 'content-length': String(body.length + (whole ? 0 : 100)) } },
      (response) => {
        response.resume().on('end', () => resolve(String(response.statusCode)));
      },
    );
    sent.on('error', (error: NodeJS.ErrnoException) => resolve(error.code ?? 'error'));
    sent.write(body);
    if (whole) sent.end();
    else setTimeout(() => sent.destroy(), 50);
  });
}
const part = (name: string, content: string): string =>
  `--B\r\ncontent-disposition: form-data; name="file"; filename="${name}"\r\ncontent-type: text/plain\r\n\r\n${content}`;
const multipart = { 'content-type': 'multipart/form-data; boundary=B' };

/**
 * Bytes without any order, the same in every run: drawn anew, they held by chance what a later test
 * looks for in vain.
 */
function noise(bytes: number): Buffer {
  const parts = Array.from({ length: Math.ceil(bytes / 32) }, (_, at) => createHash('sha256').update(`noise ${at}`).digest());
  return Buffer.concat(parts).subarray(0, bytes);
}

describe('uploads', () => {
  test('one that ends without its last boundary, in a file, in a head or at once, ends with what had arrived', async () => {
    const log = '2026-11-24 10:00:00 INFO a - whole file\n';
    for (const body of [`${part('cut/1.log', log)}\r\n`, part('cut/2.log', log), '--B\r\ncontent-disposition: form-da', '--B', '']) {
      expect(await raw('/api/imports?zone=UTC', multipart, Buffer.from(body))).toMatch(/^(?:202|400)$/);
      await isThere();
    }
    expect(await raw('/api/imports?zone=UTC', multipart, Buffer.from(part('cut/3.log', log)), false)).toMatch(/ECONNRESET|202|error/);
    expect(await raw('/api/source-texts?component=a&version=1', multipart, Buffer.from(part('A.java', 'class A {}')))).toBe('400');
    expect(await raw('/api/imports', { 'content-type': 'multipart/form-data' }, Buffer.from('x'))).toBe('400');
    await isThere();
    const { items } = await system.get<Page<ImportInfo>>('/imports');
    for (const { id } of items) await waitForImport(system.url, id, { progress() {} });
    expect(items.filter((one) => one.errors.some(({ error }) => /broke off/.test(error))).length).toBeGreaterThan(2);
  });

  test('a file of the year 33658 is one of an unknown day, not a fault', async () => {
    const body = `--B\r\ncontent-disposition: form-data; name="modified:far.log"\r\n\r\n1000000000000000\r\n${part('far.log', 'Mar  5 21:44:43 web prog[7]: no year\n')}\r\n--B--\r\n`;
    expect(await raw('/api/imports?zone=UTC', multipart, Buffer.from(body))).toBe('202');
    const [info] = (await system.get<Page<ImportInfo>>('/imports')).items;
    expect(await waitForImport(system.url, info!.id, { progress() {} })).toMatchObject({ state: 'done', errors: [], records: 1 });
  });

  test('names with control characters, and names that are no UTF-8, are brought in and shown', async () => {
    const folder = join(system.folder, 'names');
    await mkdir(folder);
    await writeFile(join(folder, 'esc\u001b[31m.log'), '2026-11-24 10:00:00 INFO a - escape\n');
    await writeFile(
      Buffer.concat([Buffer.from(`${folder}/b`), Buffer.from([0xfc]), Buffer.from('cher.log')]),
      '2026-11-24 10:00:01 INFO a - latin\n',
    );
    expect(await system.bring(await filesBelow([folder]))).toMatchObject({ state: 'done', files: 2, errors: [] });
    const paths = (await system.get<Page<SourceInfo>>('/sources')).items.map((one) => one.path);
    expect(paths).toEqual(expect.arrayContaining(['esc␛[31m.log', 'bücher.log']));
  });

  test('binary signs in a readable log are kept where they stand; what is binary throughout is refused', async () => {
    const lines = Array.from({ length: 40 }, (_, i) => Buffer.from(`2026-11-24 11:00:${String(i).padStart(2, '0')} INFO a - readable ${i}\n`));
    lines.splice(20, 0, Buffer.concat([noise(600).map((byte) => (byte === 10 ? 1 : byte)), Buffer.from('\n')]));
    const info = await bring('spilt/app.log', Buffer.concat(lines));
    expect(info).toMatchObject({ state: 'done', errors: [] });
    expect((await recordsOf('spilt/app.log')).filter((one) => one.message.startsWith('readable'))).toHaveLength(40);
    expect((await bring('noise.bin', noise(20_000))).errors[0]!.error).toMatch(/binary data/);
  });
});

describe('patterns', () => {
  test.each([
    `message like '${'%_'.repeat(30)}Z'`,
    `message like '${'_'.repeat(300)}Z%'`,
    "message matches '(?:a|b|ab)*Q9'",
    "message matches '(a+b+)+Z'",
    "message matches '[a-z]+[a-z]+[a-z]+[a-z]+Z'",
  ])('where %s is looked for in time, and others are served meanwhile', async (condition) => {
    const asked = system.get<FoundPage>(`/records?q=${encodeURIComponent(`where ${condition}`)}`);
    const waits: number[] = [];
    for (let i = 0; i < 8; i++) {
      const began = Date.now();
      await isThere();
      waits.push(Date.now() - began);
    }
    expect(Math.max(...waits)).toBeLessThan(5000);
    const page = await asked;
    expect(page.items).toEqual([]);
  });

  test('a kind whose pattern was made to take for ever is read by in the time of any other', async () => {
    const kind: Partial<IdentifierKind> = { name: 'hostile', label: 'hostile', role: 'shared', patterns: ['(?:a|b|ab)*c', '(a+b+)+Z'], fields: [] };
    expect((await post('/identifier-kinds', kind)).status).toBe(201);
    for (;;) {
      const { items } = await system.get<Page<SourceInfo>>('/sources');
      if (items.every((one) => one.state === 'done')) break;
      await new Promise((resolve) => setTimeout(resolve, 100));
    }
    expect(await status('/identifier-kinds/hostile', { method: 'DELETE' })).toBe(202);
  });

  test('parentheses are refused where they are too many, whatever is between them', async () => {
    for (const many of [51, 1900, 3900]) {
      const answer = await fetch(
        `${system.url}/api/records?q=${encodeURIComponent(`where ${'('.repeat(many)}level = error${')'.repeat(Math.min(many, 50))}`)}`,
      );
      expect([many, answer.status, ((await answer.json()) as Problem).title]).toEqual([many, 400, 'The search is not understood']);
    }
    expect(await status(`/records?q=${encodeURIComponent(`where ${'('.repeat(40)}level = error${')'.repeat(40)}`)}`)).toBe(200);
  });
});

test('a zero byte is refused in every text, in addresses and bodies alike', async () => {
  for (const path of ['/records?q=a%00', '/imports?environment=a%00b', '/records?environment=%00', '/strands?component=%00', '/search?text=%00', '/strands/order:%00', '/changes?component=%00', '/runbooks/%00'])
    expect([path, await status(path)]).toEqual([path, expect.any(Number)]); // prettier-ignore
  expect((await post('/changes', { what: 'a\0b' })).status).toBe(400);
  expect((await post('/identifier-kinds', { name: 'zero', label: 'a\0', role: 'link', patterns: ['x\\d'], fields: [] })).status).toBe(400);
  expect(await status('/imports?environment=%00', { method: 'POST', ...multipartInit() })).toBe(400);
  await isThere();
});
const multipartInit = (): RequestInit => ({ headers: multipart, body: '--B--\r\n' });

const FOREIGN: readonly [string, string][] = [
  ['origin', 'http://evil.example'],
  ['origin', 'null'],
  ['sec-fetch-site', 'cross-site'],
  ['sec-fetch-site', 'same-site'],
];
test('no foreign page changes anything, with or without its origin told', async () => {
  const body = Buffer.from('{"what":"x"}');
  for (const [name, value] of FOREIGN) expect(await raw('/api/changes', { 'content-type': 'application/json', [name]: value }, body)).toBe('403');
});

test('a search ends with whoever asked for it', async () => {
  const asker = new AbortController();
  const asked = fetch(`${system.url}/api/records/values?fields=message&q=${encodeURIComponent("where message matches '(a+b+)+Z'")}`, {
    signal: asker.signal,
  });
  setTimeout(() => asker.abort(), 100);
  await expect(asked).rejects.toThrow(/abort/);
  await isThere();
});
