import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { mkdir, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import type { FoundPage, ImportInfo, Page, StrandLine, StrandSummary } from '@fadenweg/api';
import { call, filesBelow } from './client.ts';
import { startSystem, type System } from './testing/system.ts';

/** Records without identifiers belong to the strand that their thread works on; here the threads know only the trace, and another log ties it to the order. */
let system: System;
let root: string;
const ORDERS = 30;
const trace = (i: number): string => `4bf92f3577b34da6a3ce929d0e0e${String(4700 + i)}`;
const time = (ms: number): string => new Date(Date.UTC(2026, 10, 20, 8) + ms).toISOString().replace('T', ' ').replace('.', ',').slice(0, 23);

beforeAll(async () => {
  system = await startSystem();
  root = join(system.folder, 'in');
  await mkdir(join(root, 'worker'), { recursive: true });
  await mkdir(join(root, 'desk'), { recursive: true });
  const worker: [number, string][] = [];
  const desk: [number, string][] = [];
  for (let i = 0; i < ORDERS; i++) {
    const [at, thread] = [i * 60_000, `exec-${i % 3}`];
    desk.push([at, `${time(at)} INFO [main] desk.Door - taken LX-2000${String(i).padStart(2, '0')} traceId=${trace(i)}`]);
    worker.push([at + 10, `${time(at + 10)} INFO [${thread}] work.Core - begins traceId=${trace(i)}`]);
    worker.push([at + 14, `${time(at + 14)} DEBUG [${thread}] work.Grid - grid refined to ${i + 3} cells`]);
    worker.push([
      at + 30,
      `${time(at + 30)} ${i === 7 ? 'ERROR' : 'INFO'} [${thread}] work.Core - ${i === 7 ? 'broke' : 'ended'} traceId=${trace(i)}`,
    ]);
    for (const beat of [13_000, 29_000, 47_000])
      worker.push([at + beat, `${time(at + beat)} DEBUG [${thread}] work.Idle - waits for work, ${beat % 7} in store`]);
  }
  const text = (lines: [number, string][]): string => lines.sort(([a], [b]) => a - b).map(([, line]) => line).join('\n'); // prettier-ignore
  await writeFile(join(root, 'worker/worker.log'), text(worker));
  await writeFile(join(root, 'desk/desk.log'), text(desk));
  await call(`${system.url}/api/identifier-kinds`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ name: 'order', label: 'order', role: 'business', patterns: ['LX-\\d{6}'], fields: [] }),
  });
}, 60_000);
afterAll(() => system.stop());

const bring = async (folder: string): Promise<ImportInfo> => system.bring(await filesBelow([join(root, folder)]));
const linesOf = async (i: number): Promise<StrandLine[]> =>
  (await system.get<Page<StrandLine>>(`/strands/${encodeURIComponent(`order:LX-2000${String(i).padStart(2, '0')}`)}/records`)).items;
const told = async (i: number): Promise<[string, string | null][]> => (await linesOf(i)).map((one) => [one.message.replace(/ (?:LX|trace|to).*/, ''), one.because]); // prettier-ignore
const WHOLE = [['taken', 'declared'], ['begins', 'declared'], ['grid refined', 'carried-over'], ['ended', 'declared']]; // prettier-ignore

test('a log that came before the one that ties it is carried over when the other comes; idling is not', async () => {
  const first = await bring('worker');
  // what has no number yet is told by its traces
  const traces = (await system.get<Page<StrandSummary>>('/strands?limit=100')).items;
  expect(traces.map((one) => [one.businessId, one.kind])).toEqual(traces.map(() => [null, 'trace']));
  await bring('desk');
  for (const i of [0, 1, 29]) expect(await told(i)).toEqual(WHOLE);
  const { items } = await system.get<Page<StrandSummary>>('/strands?limit=100');
  expect(items.map((one) => one.records)).toEqual(items.map(() => 4));
  // what is carried over counts for searches by the strand too
  const found = await system.get<FoundPage>(`/records?q=${encodeURIComponent('grid where outcome = failed')}`);
  expect(found.items.map((one) => [one.message, one.because])).toEqual([['grid refined to 10 cells', 'carried-over']]);
  expect((await system.get<FoundPage>('/records?q=waits&limit=5')).items.every((one) => one.strand === null)).toBe(true);

  // taken out and brought in again, it is the same
  await call(`${system.url}/api/imports/${first.id}`, { method: 'DELETE' });
  for (;;) {
    if ((await told(0)).length === 1) break;
    await new Promise((resolve) => setTimeout(resolve, 100));
  }
  await bring('worker');
  for (const i of [0, 1, 29]) expect(await told(i)).toEqual(WHOLE);
}, 60_000);

test('a strand passes through the components of its own records, whatever is carried over to others', async () => {
  const folder = join(system.folder, 'both');
  await mkdir(join(folder, 'alone'), { recursive: true });
  await mkdir(join(folder, 'press'));
  // the smallest is read first, so that its strand is the first of all
  await writeFile(join(folder, 'alone/alone.log'), `${time(0)} INFO [main] alone.Door - taken LX-300000\n`);
  const press = Array.from({ length: ORDERS }, (_, i) => {
    const line = (ms: number, text: string): string => `${time(i * 60_000 + ms)} INFO [exec-1] press.Core - ${text}`;
    return [
      line(10, `begins LX-3001${String(i).padStart(2, '0')}`),
      line(14, `heated to ${i + 80}`),
      line(30, `ended LX-3001${String(i).padStart(2, '0')}`),
    ];
  });
  await writeFile(join(folder, 'press/press.log'), press.flat().join('\n'));
  await system.bring(await filesBelow([folder]));
  const through = async (component: string): Promise<StrandSummary[]> => (await system.get<Page<StrandSummary>>(`/strands?limit=100&component=${component}`)).items; // prettier-ignore
  expect((await through('alone')).map((one) => one.businessId)).toEqual(['LX-300000']);
  const pressed = await through('press');
  expect(pressed.map((one) => one.records)).toEqual(Array.from({ length: ORDERS }, () => 3));
  expect(pressed.map((one) => one.businessId)).not.toContain('LX-300000');
}, 60_000);
