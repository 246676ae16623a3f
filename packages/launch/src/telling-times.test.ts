import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import type { ImportInfo, LayoutTrialInfo, LogRecord, Page, Problem, SourceChange, SourceInfo } from '@fadenweg/api';
import { sendFiles, waitForImport } from './client.ts';
import { all, startSystem, type System } from './testing/system.ts';

/** What people say of times, and what is found out where they say nothing. */
let system: System;
beforeAll(async () => {
  system = await startSystem();
});
afterAll(() => system?.stop());

type Log = [path: string, lines: string[], modified?: number];
async function bring(environment: string, logs: readonly Log[], query: Record<string, string> = {}): Promise<ImportInfo> {
  const files = [];
  for (const [path, lines, modified = Date.UTC(2026, 10, 26)] of logs) {
    const file = join(system.folder, `${environment}-${path.replaceAll('/', '_')}`);
    await writeFile(file, `${lines.join('\n')}\n`);
    files.push({ file, path, size: Buffer.byteLength(lines.join('\n')) + 1, modified });
  }
  const { id } = await sendFiles(system.url, files, { environment, zone: 'UTC', ...query });
  return waitForImport(system.url, id, { progress() {} });
}
const sources = async (environment: string): Promise<SourceInfo[]> =>
  (await system.get<Page<SourceInfo>>('/sources')).items.filter((one) => one.environment === environment);
const named = async (environment: string, path: string): Promise<SourceInfo> => (await sources(environment)).find((one) => one.path === path)!;
const send = (method: string, path: string, body: unknown): Promise<Response> =>
  fetch(`${system.url}/api${path}`, { method, headers: { 'content-type': 'application/json' }, body: JSON.stringify(body) });
async function read(environment: string): Promise<void> {
  while ((await sources(environment)).some((one) => one.state !== 'done')) await new Promise((resolve) => setTimeout(resolve, 50));
}

/** The hour that the clock change repeats is left out: alone it could be either. */
const isOnce = (at: number): boolean => at < Date.UTC(2026, 9, 25) || at >= Date.UTC(2026, 9, 25, 2);
/** So many hours apart; the wall clock of Berlin goes back an hour on the way. */
const HOURS = Array.from({ length: 60 }, (_, i) => Date.UTC(2026, 9, 24, 6) + i * 3_600_000 + i * 17_000).filter(isOnce);
const order = (i: number): string => `LX-${200_000 + i}`;
const wall = (at: number, zone: string): string => new Date(at).toLocaleString('sv', { timeZone: zone });
const inUtc = HOURS.map((at, i) => `${new Date(at).toISOString()} INFO order ${order(i)} taken`);
const inBerlin = HOURS.map((at, i) => `${wall(at + 2000, 'Europe/Berlin')} INFO order ${order(i)} stored`);
const again = (lines: readonly string[]): string[] => lines.map((line) => `${line} once more`);
const declared = {
  name: 'lens-order',
  label: 'order',
  role: 'business',
  patterns: ['LX-\\d{6}'],
  fields: [],
};

describe('zones', () => {
  beforeAll(async () => {
    expect((await send('POST', '/identifier-kinds', declared)).status).toBe(201);
  });

  test('a region that another log of the environment names counts on both sides of a clock change', async () => {
    await bring('region', [
      ['desk/desk.log', inUtc],
      ['store/store.log', inBerlin],
      ['store/setting.log', ['2026-10-24T05:00:00Z INFO timezone=Europe/Berlin']],
    ]);
    expect(await named('region', 'store/store.log')).toMatchObject({ zone: 'Europe/Berlin', zoneBy: 'guessed' });
    const at = (await all<LogRecord>(system, '/records?environment=region&order=oldest')).filter((one) => one.message.includes('stored'));
    expect(at.map((one) => Date.parse(one.at))).toEqual(HOURS.map((one) => Math.floor((one + 2000) / 1000) * 1000));
  });

  test('what a person states is not guessed away', async () => {
    await bring('stated', [['desk/desk.log', again(inUtc)], ['store/store.log', again(inBerlin)]], { zone: 'Asia/Tokyo', stated: 'true' }); // prettier-ignore
    expect(await named('stated', 'store/store.log')).toMatchObject({ zone: 'Asia/Tokyo', zoneBy: 'set' });
  });

  test('a file that was last written with its last line tells its zone by its date', async () => {
    const last = Date.UTC(2026, 10, 24, 9, 41, 58);
    const lines = [600, 30, 0].map((before) => `${wall(last - before * 1000, 'Europe/Berlin')} INFO swept`);
    await bring('dated', [
      ['desk/desk.log', ['2026-11-24T05:00:00Z INFO timezone=Europe/Berlin']],
      ['store/store.log', lines, last + 400],
      ['crane/crane.log', again(lines), last + 400_000],
    ]);
    expect(await named('dated', 'store/store.log')).toMatchObject({ zone: 'Europe/Berlin', zoneBy: 'guessed', to: '2026-11-24T09:41:58.000000Z' });
    expect(await named('dated', 'crane/crane.log')).toMatchObject({ zone: 'UTC', zoneBy: 'given' });
  });

  test('where two without a zone are hours apart, that one changes which a named region explains', async () => {
    const of = (zone: string, words: string): string[] => HOURS.map((at, i) => `${wall(at, zone)} INFO call ${order(500 + i)} ${words}`);
    await bring('apart', [
      ['gate/gate.log', of('UTC', 'came in')],
      ['voice/voice.log', of('Europe/Berlin', 'was answered')],
      ['desk/desk.log', ['2026-10-24T05:00:00Z INFO timezone=Europe/Berlin begins']],
    ]);
    expect(await named('apart', 'gate/gate.log')).toMatchObject({ zone: 'UTC', zoneBy: 'given' });
    expect(await named('apart', 'voice/voice.log')).toMatchObject({ zone: 'Europe/Berlin', zoneBy: 'guessed' });
  });

  test('are set for many sources in one action, for all of them or none', async () => {
    const lines = ['2026-11-24 10:00:00 INFO one', '2026-11-24 10:00:01 INFO two'];
    await bring('many', [['a/a.log', lines], ['b/b.log', [...lines, lines[0]!]], ['c/c.log', [lines[1]!]]]); // prettier-ignore
    const ids = (await sources('many')).map((one) => one.id);
    const refused = await send('PUT', '/sources', { ids, zone: 'Berlin' });
    expect([refused.status, ((await refused.json()) as Problem).title]).toEqual([400, 'Unknown zone']);
    expect((await send('PUT', '/sources', { ids: [...ids, 99_999], zone: 'Europe/Berlin' })).status).toBe(404);
    expect(new Set((await sources('many')).map((one) => one.zone))).toEqual(new Set(['UTC']));
    expect((await send('PUT', '/sources', { ids: ids.slice(0, 2), zone: 'Europe/Berlin', host: 'lw-7' } satisfies SourceChange & { ids: number[] })).status).toBe(202); // prettier-ignore
    await read('many');
    expect((await sources('many')).map((one) => [one.path, one.zone, one.zoneBy, one.host, one.from])).toEqual([
      ['a/a.log', 'Europe/Berlin', 'set', 'lw-7', '2026-11-24T09:00:00.000000Z'],
      ['b/b.log', 'Europe/Berlin', 'set', 'lw-7', '2026-11-24T09:00:00.000000Z'],
      ['c/c.log', 'UTC', 'given', '', '2026-11-24T10:00:01.000000Z'],
    ]);
  });
});

describe('a layout of times that is typed', () => {
  const lines = Array.from({ length: 3000 }, (_, i) => `${31_000_000 + Math.floor(i / 60) * 100 + (i % 60)}>11/2026 desk took ${order(i)}`);
  test('that fits nothing, or is none, is said to be so', async () => {
    await bring('typed', [['desk/odd.log', ['begin of the log', ...lines]]]);
    const { id } = await named('typed', 'desk/odd.log');
    const layout = "ddHHmmss'>'MM/yyyy";
    const tried = (await (await send('POST', `/sources/${id}/time-layout`, { timeLayout: layout })).json()) as LayoutTrialInfo;
    // there is no 31 November
    expect(tried).toMatchObject({ whole: true, records: 1, understood: 0, from: null, missed: [{ line: 1 }] });
    const better = "ddHHmmss'>'dd/yyyy";
    expect((await send('POST', `/sources/${id}/time-layout`, { timeLayout: better })).status).toBe(400);
    expect((await send('PUT', `/sources/${id}`, { timeLayout: 'HH:mm' })).status).toBe(400);
  });

  test('is tried on the whole source, kept, read by, and taken back', async () => {
    const odd = Array.from(
      { length: 200 },
      (_, i) => `at ${String(i % 60).padStart(2, '0')} past ${10 + Math.floor(i / 60)} on 03~11~26: took ${order(i)}`,
    );
    await bring('said', [['desk/odd.log', odd]]);
    const { id } = await named('said', 'desk/odd.log');
    const timeLayout = "'at 'mm' past 'HH' on 'dd~MM~yy";
    const tried = (await (await send('POST', `/sources/${id}/time-layout`, { timeLayout, zone: 'Europe/Berlin' })).json()) as LayoutTrialInfo;
    expect(tried).toMatchObject({ whole: true, records: 200, understood: 200, from: '2026-11-03T09:00:00.000000Z', backwards: 0, missed: [] });
    expect((await send('PUT', `/sources/${id}`, { timeLayout, zone: 'Europe/Berlin' })).status).toBe(202);
    await read('said');
    expect(await named('said', 'desk/odd.log')).toMatchObject({ timeLayout, understood: 200, from: '2026-11-03T09:00:00.000000Z' });
    expect((await send('PUT', `/sources/${id}`, { timeLayout: null })).status).toBe(202);
    await read('said');
    expect(await named('said', 'desk/odd.log')).toMatchObject({ timeLayout: null });
  });
});

describe('lines that tell how long something took', () => {
  const calls = Array.from({ length: 40 }, (_, i) => ({
    from: Date.UTC(2026, 10, 24, 10) + i * 20_000,
    took: 2000 + (i % 7) * 900,
    id: order(5000 + i),
  }));
  const inside = calls.flatMap(({ from, took, id }) => [0.001, 0.5, 0.999].map((share) => `${new Date(from + took * share).toISOString()} INFO order ${id} at work`)); // prettier-ignore
  const door = (at: (call: (typeof calls)[number]) => number, word: string): string[] =>
    calls.map((call) => `${new Date(at(call)).toISOString()} INFO order ${call.id} ${word} took ${call.took} ms`);

  test.each(['begin', 'end'] as const)('stand at its %s, as what lies within tells', async (end) => {
    await bring(`at the ${end}`, [
      ['door/door.log', door(({ from, took }) => (end === 'begin' ? from : from + took), `(${end})`)],
      ['desk/desk.log', inside.map((line) => `${line} ${end}`)],
    ]);
    expect((await named(`at the ${end}`, 'door/door.log')).standsAt).toBe(end);
    const { id } = await named(`at the ${end}`, 'door/door.log');
    const other = end === 'begin' ? 'end' : 'begin';
    expect((await send('PUT', `/sources/${id}`, { standsAt: other })).status).toBe(202);
    await read(`at the ${end}`);
    expect((await named(`at the ${end}`, 'door/door.log')).standsAt).toBe(other);
  });
});

describe('a source whose beginning is written otherwise than the rest', () => {
  const settings = Array.from({ length: 1800 }, (_, i) => `  shelf.${i}.width = ${(i * 37) % 900} # as it was measured`);
  const lines = Array.from({ length: 2400 }, (_, i) => `${wall(HOURS[0]! + i * 1700, 'UTC')} | WARN | crane moved box ${i}`);

  test('is read by other places of it, once, and stays as a person wants it', async () => {
    await bring('banner', [['crane/crane.log', [...settings, ...lines]]]);
    const source = await named('banner', 'crane/crane.log');
    expect(source).toMatchObject({ format: 'text', understood: lines.length, from: '2026-10-24T06:00:00.000000Z', state: 'done' });
    const [first] = (await system.get<Page<LogRecord>>('/records?environment=banner&order=latest&limit=1')).items;
    expect(first).toMatchObject({ level: 'warning', message: 'crane moved box 2399' });
    expect((await send('PUT', `/sources/${source.id}`, { format: 'plain' })).status).toBe(202);
    await read('banner');
    expect(await named('banner', 'crane/crane.log')).toMatchObject({ format: 'plain', understood: 0 });
  });
});

describe('a table of states that were seen at an instant', () => {
  const moment = (i: number): string => new Date(HOURS[0]! + i * 2000).toISOString();
  const depths = Array.from({ length: 30 }, (_, i) =>
    [0, 1, 2].map((shelf) => `${moment(i)},shelf-${shelf},${(i * 7 + shelf) % 11},order LX-700001`),
  ).flat();
  const events = Array.from({ length: 30 }, (_, i) => `${moment(i)},desk-1,order LX-${700_001 + i} taken`);

  test('tells no events of what it names, unless a person says so', async () => {
    await bring('states', [
      ['shelf/depths.csv', ['time,shelf,depth,doing', ...depths]],
      ['desk/taken.csv', ['time,desk,text', ...events]],
    ]);
    const [taken, shelf] = await sources('states');
    expect([taken!.snapshots, shelf!.snapshots]).toEqual([null, true]);
    const records = async (): Promise<number> => (await system.get<{ records: number }>('/strands/lens-order:LX-700001')).records;
    expect(await records()).toBe(1);
    const found = await all<LogRecord>(system, '/records?environment=states&q=LX-700001');
    expect(found).toHaveLength(depths.length + 1);
    expect((await send('PUT', `/sources/${shelf!.id}`, { snapshots: false })).status).toBe(202);
    await read('states');
    while (!(await system.get<{ still: boolean }>('/summary')).still) await new Promise((resolve) => setTimeout(resolve, 50));
    expect(await records()).toBe(depths.length + 1);
  });
});
