import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import type { LogRecord, Page, RecordInFull, SourceInfo, StrandSummary, Summary, Timeline } from '@fadenweg/api';
import { sendFiles, waitForImport } from './client.ts';
import { all as paged, startSystem, type System } from './testing/system.ts';

/** An event that several sources tell is one record: counted once, found by what any of them says, told apart again where a person says so. */
let system: System;
beforeAll(async () => {
  system = await startSystem();
});
afterAll(() => system?.stop());

const EVENTS = 60;
const at = (i: number): Date => new Date(Date.UTC(2026, 10, 24, 10, 0, 0, i * 1370));
const STEPS = ['taken at the counter', 'weighed on scale', 'sealed with band', 'put on shelf'];
/** Each environment has numbers of its own. */
const WORLDS = ['alone', 'all', 'order-0', 'order-1', 'order-2', 'later', 'growing', 'taken'] as const;
type World = (typeof WORLDS)[number];
type Write = (world: World, i: number) => string;
const parcel: Write = (world, i) => `LX-${2 + WORLDS.indexOf(world)}${10_000 + Math.floor(i / 4)}`;
const said: Write = (world, i) => `order ${parcel(world, i)} ${STEPS[i % 4]} ${i * 7}`;
/** The same events: as lines, as JSON that says more, and what another program says. */
const asText: Write = (world, i) => `${at(i).toISOString().replace('Z', '').replace('T', ' ').replace('.', ',')} INFO counter: ${said(world, i)}`;
const asJson: Write = (world, i) =>
  JSON.stringify({
    time: at(i).toISOString(),
    level: 'info',
    logger: 'counter',
    msg: said(world, i),
    booth: `booth-${i % 3}`,
    ticket: `tk${7000 + i}`,
  });
const another: Write = (world, i) => `${at(i).toISOString().slice(0, -1).replace('T', ' ')} INFO porter: carries ${parcel(world, i)} away`;
const lines = (world: World, write: Write, count = EVENTS): string => `${Array.from({ length: count }, (_, i) => write(world, i)).join('\n')}\n`;

async function bring(environment: string, logs: readonly [path: string, text: string][]): Promise<number> {
  const files = [];
  for (const [path, text] of logs) {
    const file = join(system.folder, `${environment}-${path.replaceAll('/', '_')}-${Buffer.byteLength(text)}`);
    await writeFile(file, text);
    files.push({ file, path, size: Buffer.byteLength(text), modified: Date.UTC(2026, 10, 25) });
  }
  const { id } = await sendFiles(system.url, files, { environment, zone: 'UTC' });
  await waitForImport(system.url, id, { progress() {} });
  return id;
}
const still = async (): Promise<void> => {
  while (!(await system.get<Summary>('/summary')).still) await new Promise((resolve) => setTimeout(resolve, 50));
};
const sources = async (environment: string): Promise<SourceInfo[]> =>
  (await system.get<Page<SourceInfo>>('/sources')).items.filter((one) => one.environment === environment);
const copies = async (environment: string): Promise<[string, string | null, number][]> =>
  (await sources(environment)).map((one) => [one.path, one.copyOf?.path ?? null, one.copies]);
const records = async (environment: string, q = ''): Promise<LogRecord[]> =>
  paged<LogRecord>(system, `/records?environment=${environment}&order=oldest&q=${encodeURIComponent(q)}`);
const strands = async (environment: string): Promise<[string, number, string][]> =>
  (await system.get<Page<StrandSummary>>(`/strands?environment=${environment}&limit=200`)).items
    .map((one): [string, number, string] => [one.id, one.records, one.outcome])
    .sort();
const counted = async (environment: string): Promise<number> => {
  const { slots } = await system.get<Timeline>(`/records/timeline?environment=${environment}&from=2026-11-24T09:00:00Z&to=2026-11-24T12:00:00Z`);
  return slots.reduce((sum, { counts }) => sum + Object.values(counts).reduce((all, one) => all + one, 0), 0);
};
const put = async (id: number, change: object): Promise<void> => {
  const answer = await fetch(`${system.url}/api/sources/${id}`, {
    method: 'PUT',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify(change),
  });
  expect(answer.status).toBe(202);
};
const alone = (world: World): [string, string][] => [['desk/counter.json', lines(world, asJson)], ['porter/porter.log', lines(world, another)]]; // prettier-ignore
const all = (world: World): [string, string][] => [['desk/counter.log', lines(world, asText)], ...alone(world)];
const FOUND: [string, string | null, number][] = [
  ['desk/counter.json', null, 0],
  ['desk/counter.log', 'desk/counter.json', EVENTS],
  ['porter/porter.log', null, 0],
];

describe('copies', () => {
  beforeAll(async () => {
    const answer = await fetch(`${system.url}/api/identifier-kinds`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ name: 'parcel', label: 'Parcel', role: 'business', patterns: ['LX-\\d{6,7}'] }),
    });
    expect(answer.status).toBe(201);
    await bring('alone', alone('alone'));
    await bring('all', all('all'));
  });

  test('are one record, counted once everywhere', async () => {
    expect(await copies('all')).toEqual(FOUND);
    expect(await records('all')).toHaveLength(2 * EVENTS);
    expect(await counted('all')).toBe(2 * EVENTS);
    const { environments } = await system.get<Summary>('/summary');
    expect(environments.find((one) => one.name === 'all')?.records).toBe(2 * EVENTS);
  });

  test('come with the record that is shown', async () => {
    const [first] = await records('all', 'taken');
    expect(first!.source.path).toBe('desk/counter.json');
    expect(first!.copies).toHaveLength(1);
    const shown = await system.get<RecordInFull>(`/records/${first!.id}`);
    expect(shown.toldIn.map((one) => [one.source.path, one.source.line, one.raw.trim()])).toEqual([['desk/counter.log', 1, asText('all', 0)]]);
    const lines = await (await fetch(`${system.url}/api/records/export?environment=all&q=taken`)).text();
    expect(JSON.parse(lines.split('\n')[0]!)).toEqual(first);
    // a link to the copy leads to it as well
    expect((await system.get<RecordInFull>(`/records/${first!.copies[0]}`)).id).toBe(first!.id);
  });

  test('belong where the record belongs: strands are the same as without them', async () => {
    const steps = async (world: World): Promise<[number, string][]> => (await strands(world)).map(([, count, outcome]) => [count, outcome]);
    expect(await steps('all')).toEqual(await steps('alone'));
    expect((await steps('all')).map(([count]) => count)).toEqual(Array.from({ length: EVENTS / 4 }, () => 8));
  });

  test('are the same for any order in which sources come', async () => {
    for (const [world, order] of Object.entries({ 'order-0': [2, 1, 0], 'order-1': [1, 2, 0], 'order-2': [0, 2, 1] })) {
      for (const place of order) await bring(world, [all(world as World)[place]!]);
      await still();
      expect(await copies(world)).toEqual(FOUND);
      expect(await records(world)).toHaveLength(2 * EVENTS);
    }
  });

  test('a part that comes first, and the whole later: what was shown is a copy then', async () => {
    const some = lines('later', asText)
      .split('\n')
      .filter((_, i) => i % 2 === 0)
      .join('\n');
    await bring('later', [['desk/counter-part.log', some]]);
    await bring('later', [['desk/counter.log', lines('later', asText)]]);
    expect((await copies('later')).map(([path, of]) => [path, of])).toEqual([['desk/counter-part.log', 'desk/counter.log'], ['desk/counter.log', null]]); // prettier-ignore
    await bring('later', [['desk/counter.json', lines('later', asJson)]]);
    await still();
    expect((await copies('later')).map(([path, of]) => [path, of])).toEqual([
      ['desk/counter-part.log', 'desk/counter.json'],
      ['desk/counter.json', null],
      ['desk/counter.log', 'desk/counter.json'],
    ]);
    expect(await records('later')).toHaveLength(EVENTS);
  });

  test('what a file has grown by is compared too', async () => {
    await bring('growing', [['desk/counter.json', lines('growing', asJson, 2 * EVENTS)], ['desk/counter.log', lines('growing', asText)]]); // prettier-ignore
    await bring('growing', [['desk/counter.log', lines('growing', asText, 2 * EVENTS)]]);
    await still();
    expect(await copies('growing')).toEqual([['desk/counter.json', null, 0], ['desk/counter.log', 'desk/counter.json', 2 * EVENTS]]); // prettier-ignore
    expect(await records('growing')).toHaveLength(2 * EVENTS);
  });

  test('are told apart where a person says so, and are one again', async () => {
    const own = (await sources('all')).find((one) => one.path === 'desk/counter.log')!;
    await put(own.id, { apart: true });
    await still();
    expect(await copies('all')).toEqual(FOUND.map(([path]) => [path, null, 0]));
    expect(await records('all')).toHaveLength(3 * EVENTS);
    expect(await counted('all')).toBe(3 * EVENTS);
    expect((await strands('all')).map(([, count]) => count)).toEqual(Array.from({ length: EVENTS / 4 }, () => 12));
    await put(own.id, { apart: false });
    await still();
    expect(await copies('all')).toEqual(FOUND);
    expect((await strands('all')).map(([, count]) => count)).toEqual(Array.from({ length: EVENTS / 4 }, () => 8));
  });

  test('where what was shown is taken out, the copy is shown', async () => {
    const first = await bring('taken', [['desk/counter.json', lines('taken', asJson)]]);
    await bring('taken', [['desk/counter.log', lines('taken', asText)]]);
    expect((await fetch(`${system.url}/api/imports/${first}`, { method: 'DELETE' })).status).toBeLessThan(300);
    await still();
    expect(await copies('taken')).toEqual([['desk/counter.log', null, 0]]);
    expect((await records('taken')).map((one) => one.source.path)).toEqual(Array.from({ length: EVENTS }, () => 'desk/counter.log'));
  });
});
