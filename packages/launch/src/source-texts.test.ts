import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { mkdir, writeFile } from 'node:fs/promises';
import { dirname, join } from 'node:path';
import type { OwnPackage, Page, Problem, SourceText, TextLines, WrittenPlaces } from '@fadenweg/api';
import { FULL_DAY, generate } from '@fadenweg/standin';
import { filesBelow, sendSourceText } from './client.ts';
import { declareDemo } from './demo-data.ts';
import { startSystem, type System } from './testing/system.ts';

let system: System;
let texts: string;
beforeAll(async () => {
  system = await startSystem();
  const out = join(system.folder, 'world');
  texts = join(out, 'source-texts/lens-calc');
  await generate({ out, seed: 3, faultRate: 0, storyDay: FULL_DAY, stretches: [{ from: FULL_DAY, hours: 24, records: 6000 }] });
  await declareDemo(system.url);
  await system.bring(await filesBelow([join(out, 'logs')]));
}, 240_000);
afterAll(() => system.stop());

const all = async (): Promise<SourceText[]> => ((await (await fetch(`${system.url}/api/source-texts`)).json()) as Page<SourceText>).items;
const register = async (folder: string, version: string): Promise<SourceText> =>
  sendSourceText(system.url, await filesBelow([folder]), 'lens-calc', version);
const FRAME = { code: 'Rings.shift', unit: 'calc.grid', file: 'Rings.java', line: 27 };
const written = async (more: object = {}): Promise<WrittenPlaces> => {
  const at = new Date((FULL_DAY + 18 * 3_600_000_000) / 1000).toISOString();
  const body = { component: 'lens-calc', host: '', environment: '', at, logger: 'calc.Surface', message: 'surface of LX-1 failed', frames: [FRAME], ...more }; // prettier-ignore
  const answer = await fetch(`${system.url}/api/source-texts/places`, { method: 'POST', headers: { 'content-type': 'application/json' }, body: JSON.stringify(body) }); // prettier-ignore
  expect(answer.status).toBe(200);
  return (await answer.json()) as WrittenPlaces;
};
const lines = (id: number, query: string): Promise<Response> => fetch(`${system.url}/api/source-texts/${id}/lines?${query}`);

describe('registered source texts', () => {
  test('lead nowhere as long as nothing is registered', async () => {
    expect(await all()).toEqual([]);
    expect(await written()).toEqual({ text: null, sure: false, ran: null, frames: [null], message: null });
  });

  test('are told in the registered version that is known best where the one that ran is not', async () => {
    expect(await register(join(texts, '4.11.0'), '4.11.0')).toMatchObject({ component: 'lens-calc', version: '4.11.0', files: 3, leftOut: 0 });
    expect(await written()).toMatchObject({ text: { version: '4.11.0' }, sure: false, ran: '4.12.0', frames: [{ path: 'calc/grid/Rings.java' }] });
  });

  test('are those of the version that ran when the record was written', async () => {
    const { id } = await register(join(texts, '4.12.0'), '4.12.0');
    const late = await written();
    expect(late).toMatchObject({ text: { id, version: '4.12.0' }, sure: true, frames: [{ path: 'calc/grid/Rings.java', line: 27 }], message: { path: 'calc/Surface.java' } }); // prettier-ignore
    const thrown = (await (await lines(id, 'path=calc/grid/Rings.java&from=27&to=27')).json()) as TextLines;
    expect(thrown.lines.join()).toContain('throw new PrismOffGridException');
    const wrote = (await (await lines(id, `path=calc/Surface.java&from=${late.message!.line}&to=${late.message!.line}`)).json()) as TextLines;
    expect(wrote.lines.join()).toContain('log.error("surface of "');
    const early = await written({ at: new Date((FULL_DAY + 9 * 3_600_000_000) / 1000).toISOString() });
    expect(early).toMatchObject({ text: { version: '4.11.0' }, sure: true });
  });

  test('hold texts alone; what is registered again is replaced', async () => {
    const folder = join(system.folder, 'mixed');
    for (const [path, body] of [
      ['app/main.txt', 'one\r\ntwo\r\nthree\r\n'],
      ['../up.txt', 'x'],
      ['app/logo.bin', Buffer.from([0, 1, 2, 3, 0, 0, 9])],
      ['large.txt', 'x'.repeat((2 << 20) + 1)],
    ] as const) {
      // prettier-ignore
      await mkdir(dirname(join(folder, 'in', path)), { recursive: true });
      await writeFile(join(folder, 'in', path), body);
    }
    const first = await register(join(folder, 'in'), '9');
    expect(first).toMatchObject({ files: 1, leftOut: 2 });
    const again = await register(join(folder, 'in/app'), '9');
    expect((await all()).filter((one) => one.version === '9').map((one) => one.id)).toEqual([again.id]);
    const two = (await (await lines(again.id, 'path=main.txt&from=2')).json()) as TextLines;
    expect(two).toEqual({ path: 'main.txt', from: 2, lines: ['two', 'three'], total: 3 });
    expect((await lines(first.id, 'path=app/main.txt')).status).toBe(404);
    expect((await lines(again.id, 'path=main.txt&from=5&to=2')).status).toBe(400);
  });

  test('without a single text are refused, and can be forgotten', async () => {
    const empty = join(system.folder, 'empty');
    await mkdir(empty);
    await expect(register(empty, '10')).rejects.toThrow('No source text');
    const refused = await fetch(`${system.url}/api/source-texts?component=x&version=1`, { method: 'POST', headers: { 'content-type': 'application/json' }, body: '{}' }); // prettier-ignore
    expect([refused.status, ((await refused.json()) as Problem).title]).toEqual([415, 'Not multipart']);
    for (const { id } of await all()) expect((await fetch(`${system.url}/api/source-texts/${id}`, { method: 'DELETE' })).status).toBe(204);
    expect(await all()).toEqual([]);
    expect((await fetch(`${system.url}/api/source-texts/1`, { method: 'DELETE' })).status).toBe(404);
  });
});

describe('packages of one’s own', () => {
  const send = (method: string, path: string, body?: object): Promise<Response> =>
    fetch(`${system.url}/api/own-packages${path}`, { method, headers: { 'content-type': 'application/json' }, ...(body && { body: JSON.stringify(body) }) }); // prettier-ignore
  const prefixes = async (): Promise<string[]> => (await system.get<Page<OwnPackage>>('/own-packages')).items.map((one) => one.prefix);

  test('are declared once, by somebody, and taken back', async () => {
    expect((await send('POST', '', { prefix: 'calc.grid' })).status).toBe(201);
    const again = (await (await send('POST', '', { prefix: ' calc.grid ' })).json()) as Page<OwnPackage>;
    expect(again.items).toEqual([{ prefix: 'calc.grid', changedBy: 'local administrator' }]);
    expect((await send('DELETE', '?prefix=calc.grid')).status).toBe(204);
    expect(await prefixes()).toEqual([]);
    expect((await send('DELETE', '?prefix=calc.grid')).status).toBe(404);
  });
  test.each(['', 'x', 'two words', 'calc.', 'a,b', 'x'.repeat(201), 7])('are refused with a reason where they are none: %p', async (prefix) => {
    const refused = await send('POST', '', { prefix });
    expect(refused.status).toBe(400);
    expect(((await refused.json()) as Problem).detail).toMatch(/prefix/);
    expect(await prefixes()).toEqual([]);
  });
});
