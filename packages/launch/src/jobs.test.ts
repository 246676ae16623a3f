import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { readFile, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import type { Flow, JobRuns, Jobs, Page, Strand } from '@fadenweg/api';
import { FULL_DAY, generate } from '@fadenweg/standin';
import { call } from './client.ts';
import { bringMorning, startSystem, type System } from './testing/system.ts';

const HOUR = 3_600_000_000;
const iso = (at: number): string => new Date(at / 1000).toISOString();
const [FROM, TO] = [FULL_DAY + 6 * HOUR, FULL_DAY + 14 * HOUR];
const window = (from = FROM, to = TO): string => `from=${iso(from)}&to=${iso(to)}&environment=production&zone=Europe/Berlin`;
let system: System;
/** Runs that are taken out of the logs: one in the middle of a job's, the last ones of another's. */
let gone: string[];
/** One that begins eighteen minutes late. */
let late: string;
const two = (number: number): string => String(number).padStart(2, '0');
const list = (more = ''): Promise<Jobs> => system.get(`/jobs?${window()}${more}`);

beforeAll(async () => {
  system = await startSystem();
  const out = join(system.folder, 'world');
  await generate({ out, seed: 7, faultRate: 0.01, storyDay: FULL_DAY, stretches: [{ from: FROM, hours: 8, records: 24_000 }] });
  const file = join(out, 'logs/batch/batch.log');
  const lines = (await readFile(file, 'utf8')).split('\n');
  const runs = (prefix: string): string[] => [...new Set(lines.flatMap((line) => new RegExp(`\\[(${prefix}-\\d+)\\]`).exec(line)?.[1] ?? []))];
  gone = [runs('SS')[7]!, ...runs('PL').slice(-2)];
  late = runs('IE')[5]!;
  const begunLate = (line: string): string =>
    line.includes(`[${late}]`) ? line.replace(/T(\d\d):(\d\d):/, (_, hour, minute) => `T${two(Number(hour) + Math.floor((Number(minute) + 18) / 60))}:${two((Number(minute) + 18) % 60)}:`) : line; // prettier-ignore
  await writeFile(file, lines.filter((line) => !gone.some((run) => line.includes(`[${run}]`))).map(begunLate).join('\n')); // prettier-ignore
  await bringMorning(system, join(out, 'logs'));
}, 180_000);
afterAll(() => system.stop());

test('each job has its learned schedule, rows and duration; those of people are none', async () => {
  const { items, until } = await list('&sort=name');
  expect(until).not.toBeNull();
  const by = new Map(items.map((item) => [item.flow, item]));
  expect(by.get('stock-sync-job')!.schedule).toBe('every 30 minutes, at :06');
  expect(by.get('price-list-job')!.schedule).toBe('every hour, at :30');
  expect(by.get('invoice-export-job')!.schedule).toMatch(/^every 30 minutes/);
  expect([...by.keys()]).not.toContain('lens-order');
  const { last } = by.get('stock-sync-job')!;
  expect(last).toMatchObject({ outcome: 'done', rejected: null });
  expect(last!.read).toBeGreaterThan(1000);
  expect(last!.usual!.volume).toBeGreaterThan(1000);
  const strand = await system.get<Strand>(`/strands/${encodeURIComponent(last!.strand)}`);
  expect(strand.startedAt).toBe(last!.startedAt);
});

test('what was due and did not start is told, gravest first; the one that is over is not the state of now', async () => {
  const { items } = await list();
  expect(items[0]).toMatchObject({ flow: 'price-list-job', state: 'missed', why: 'did not start' });
  expect(items[0]!.missed).toHaveLength(2);
  expect(Date.parse(items[0]!.nextDue!)).toBeGreaterThan(Date.parse(items[0]!.missed.at(-1)!));
  const sync = items.find((item) => item.flow === 'stock-sync-job')!;
  expect(sync.missed).toHaveLength(1);
  expect(sync.state).not.toBe('missed');
  // behind the end of the evidence nothing is missed
  const later = await system.get<Jobs>(`/jobs?${window(FROM, TO + 6 * HOUR)}`);
  expect(later.items.find((item) => item.flow === 'stock-sync-job')!.missed).toHaveLength(1);
});

test('a run that began late is that which was due, and is told to be late', async () => {
  const { runs, missed } = (await system.get<Page<JobRuns>>(`/jobs/runs?${window()}&flow=invoice-export-job`)).items[0]!;
  expect(missed).toEqual([]);
  const own = runs.find((run) => run.name === late)!;
  expect(own.odd).toContain('late');
  expect(Math.round((Date.parse(own.startedAt) - Date.parse(own.dueAt!)) / 60_000)).toBe(18);
  expect(runs.filter((run) => run.dueAt !== null).map((run) => run.name)).toEqual([late]);
});

test('runs of a job stand in order of time, with what is odd about each; in a part of the window just those', async () => {
  const runs = async (flow: string, from = FROM, to = TO): Promise<JobRuns> =>
    (await system.get<Page<JobRuns>>(`/jobs/runs?${window(from, to)}&flow=${flow}`)).items[0]!;
  const all = await runs('stock-sync-job');
  expect(all.runs.map((run) => run.startedAt)).toEqual(all.runs.map((run) => run.startedAt).sort());
  expect(all.runs.map((run) => run.name)).not.toContain(gone[0]);
  const half = await runs('stock-sync-job', FROM, FROM + 4 * HOUR);
  expect(half.runs.map((run) => run.name)).toEqual(all.runs.map((run) => run.name).slice(0, half.runs.length));
  // the import that ended well and read too little
  const [first, ...others] = (await runs('price-list-job')).runs;
  expect(first).toMatchObject({ outcome: 'odd', usual: null });
  expect(others.length).toBeGreaterThan(2);
  for (const run of others) expect(run.read).toBeGreaterThan(3 * first!.read!);
  expect((await system.get<Page<JobRuns>>(`/jobs/runs?${window()}&flow=nowhere`)).items).toEqual([]);
  expect(await system.get<Jobs>(`/jobs?${window().replace('production', 'nowhere')}`)).toEqual({ items: [], until: null });
});

test('a declared schedule counts before the learned one, also for what follows none; a bad one is refused with a reason, and judges nothing again', async () => {
  const { items: flows } = await system.get<Page<Flow>>('/flows');
  const save = async (name: string, schedule: unknown): Promise<unknown> => {
    const { usualMs: _, legs: _l, strands: _s, ...own } = flows.find((one) => one.name === name)!;
    return call(`${system.url}/api/flows/${name}`, {
      method: 'PUT',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify({ ...own, schedule }),
    });
  };
  const works = (await system.get<Page<{ id: number }>>('/work')).items.length;
  await save('stock-sync-job', { cron: '6,36,50 * * * *', zone: 'Europe/Berlin', lateMs: 120_000 });
  await save('lens-order', { cron: '0 12 * * *', zone: 'Europe/Berlin' });
  const by = new Map((await list()).items.map((item) => [item.flow, item]));
  expect(by.get('stock-sync-job')).toMatchObject({
    declared: true,
    schedule: 'at 6, 36, and 50 minutes past the hour (Europe/Berlin)',
    learned: 'every 30 minutes, at :06',
  });
  // the one that is gone, and each at :50
  expect(by.get('stock-sync-job')!.missed).toHaveLength(9);
  expect(by.get('lens-order')).toMatchObject({ declared: true, learned: '' });
  expect((await system.get<Page<{ id: number }>>('/work')).items).toHaveLength(works);
  await expect(save('stock-sync-job', { cron: '99 * * * *', zone: 'Europe/Berlin' })).rejects.toThrow(/minutes part/);
  await expect(save('stock-sync-job', { cron: '9 * * * *', zone: 'Nowhere/Else' })).rejects.toThrow(/Nowhere/);
  await save('stock-sync-job', null);
  await save('lens-order', null);
  expect((await list()).items.map((item) => item.flow)).not.toContain('lens-order');
});
