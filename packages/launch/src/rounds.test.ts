import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { join } from 'node:path';
import pg from 'pg';
import type { Departures, ImportInfo, NotedBody, Rounds, SinceThen } from '@fadenweg/api';
import { FULL_DAY, generate, type Truth } from '@fadenweg/standin';
import { call } from './client.ts';
import { bringMorning, readTruth, startSystem, type System } from './testing/system.ts';

const HOUR = 3_600_000_000;
const iso = (at: number): string => new Date(at / 1000).toISOString();
let system: System;
let truth: Truth[];
let brought: ImportInfo;
/** The morning of the full day, in the zone of the lens works. */
const MORNING = { from: FULL_DAY + 6 * HOUR, to: FULL_DAY + 12 * HOUR };
const window = (from: number, to: number): string => `from=${iso(from)}&to=${iso(to)}&environment=production&zone=Europe/Berlin`;

beforeAll(async () => {
  system = await startSystem();
  const out = join(system.folder, 'world');
  const days = Array.from({ length: 8 }, (_, i) => ({ from: FULL_DAY - (8 - i) * 24 * HOUR + 6 * HOUR, hours: 6, records: 2500 }));
  await generate({ out, seed: 7, faultRate: 0.02, storyDay: FULL_DAY, stretches: [...days, { from: MORNING.from, hours: 6, records: 12_000 }] });
  truth = await readTruth(out);
  brought = await bringMorning(system, join(out, 'logs'));
}, 180_000);
afterAll(() => system.stop());

/** Sums that are not those of the strands there are, in either direction. */
async function wrongSums(): Promise<unknown[]> {
  const client = new pg.Client(system.postgres.url);
  await client.connect();
  try {
    const hours =
      'select slot / 60 as slot, environment, flow, outcome, lasted, sum(strands)::int as strands from strand_slot group by 1, 2, 3, 4, 5';
    const both = (sums: string, own: string): string =>
      `(select * from ${sums} except select * from (${own}) o) union all (select * from (${own}) o except select * from ${sums})`;
    const wrong = await client.query(`${both('strand_minute', 'select * from strand_slot')} union all ${both('strand_hour', hours)}`);
    return wrong.rows as unknown[];
  } finally {
    await client.end();
  }
}

describe('sums by time', () => {
  test('are those of the strands there are', async () => {
    expect(await wrongSums()).toEqual([]);
    const rounds = await system.get<Rounds>(`/rounds?${window(MORNING.from, MORNING.to)}`);
    const { items } = await system.get<{ items: { count: string }[] }>(`/strands/counts?from=${iso(MORNING.from)}&to=${iso(MORNING.to)}&began=true`);
    const all = rounds.flows.flatMap((flow) => flow.cells).reduce((sum, one) => sum + one.all, 0);
    expect(all).toBe(items.reduce((sum, one) => sum + Number(one.count), 0));
    expect(all).toBeGreaterThan(200);
  });

  test('flows stand in the groups that people put them in, and are taken out again', async () => {
    const put = (flow: string, group: string) => call(`${system.url}/api/rounds/groups`, { method: 'PUT', body: JSON.stringify({ flow, group }), headers: { 'content-type': 'application/json' } }); // prettier-ignore
    const groups = async () =>
      new Map((await system.get<Rounds>(`/rounds?${window(MORNING.from, MORNING.to)}`)).flows.map((one) => [one.flow, one.group]));
    await put('lens-order', 'shop floor');
    expect([(await groups()).get('lens-order'), (await groups()).get('status-call')]).toEqual(['shop floor', '']);
    await put('lens-order', '');
    expect((await groups()).get('lens-order')).toBe('');
    await expect(put('lens-order', 'a,b')).rejects.toThrow(/group/);
  });

  test('a cell leads to just its strands', async () => {
    const { flows, bounds } = await system.get<Rounds>(`/rounds?${window(MORNING.from, MORNING.to)}`);
    const orders = flows.find((one) => one.flow === 'lens-order')!;
    for (const [slot, cell] of orders.cells.entries()) {
      const { items } = await system.get<{ items: { outcome: string; count: string }[] }>(
        `/strands/counts?flow=lens-order&from=${bounds[slot]}&to=${bounds[slot + 1]}&began=true`,
      );
      expect(Object.fromEntries(items.map((one) => [one.outcome, Number(one.count)]))).toEqual(cell.outcomes);
    }
  });
});

describe('what departs in the morning', () => {
  test('are its stories, each since when it went on, and what changed before it', async () => {
    const { items, nothingBefore } = await system.get<Departures>(`/rounds/departures?${window(MORNING.from, MORNING.to)}`);
    expect(nothingBefore).toBe(false);
    const of = (story: number) => truth.filter((one) => one.story === story);
    const locks = items.find((one) => one.finding?.startsWith('failed-at|blank-store|labdb') && one.title.includes('lock timeout'))!;
    expect(locks).toMatchObject({ what: 'new', outcome: 'failed', flows: [{ flow: 'lens-order' }], expected: 0 });
    const failed = of(1).filter((one) => one.outcome === 'failed');
    expect(locks.count).toBe(failed.length);
    expect(Math.abs(Date.parse(locks.from) - Math.min(...failed.map((one) => one.startedAt)) / 1000)).toBeLessThan(120_000);
    const lost = items.find((one) => one.finding?.startsWith('stopped-before|relay') && one.title.includes('surfacing'))!;
    expect(lost.count).toBe(of(3).length);
    // one run alone stands out where a clock starts them
    expect(items.find((one) => one.flows[0]?.flow === 'stock-sync-job')).toMatchObject({
      what: 'slow',
      outcome: 'slow',
      count: 1,
      of: 12,
      ongoing: false,
    });
    expect(items.find((one) => one.outcome === 'odd')).toMatchObject({
      flows: [{ flow: 'invoice-export-job', label: 'invoice-export job' }],
      count: 2,
    });
    expect(items.some((one) => one.what === 'clock' && one.host === 'cell-2')).toBe(true);
  });

  test('days like any other show next to nothing', async () => {
    let told = 0;
    for (let day = 1; day <= 4; day++) {
      const { items } = await system.get<Departures>(`/rounds/departures?${window(MORNING.from - day * 24 * HOUR, MORNING.to - day * 24 * HOUR)}`);
      told += items.filter((one) => one.what !== 'clock').length;
    }
    expect(told).toBeLessThanOrEqual(4);
  });

  test('what is in hand stands behind the others, and comes back when it gets worse', async () => {
    const path = `/rounds/departures?${window(MORNING.from, MORNING.to)}`;
    const [first] = (await system.get<Departures>(path)).items;
    const put = (body: NotedBody): Promise<unknown> =>
      call(`${system.url}/api/rounds/departures/noted`, {
        method: 'PUT',
        headers: { 'content-type': 'application/json' },
        body: JSON.stringify(body),
      });
    const { of, expected } = first!;
    await put({ key: first!.key, state: 'in-hand', note: 'the desk looks at it', count: first!.count, of, expected });
    const after = (await system.get<Departures>(path)).items;
    expect(after.at(-1)).toMatchObject({
      key: first!.key,
      noted: { state: 'in-hand', note: 'the desk looks at it', worse: false, by: 'local administrator' },
    });
    await put({
      key: first!.key,
      state: 'tolerated',
      note: '',
      until: '2100-01-01T00:00:00Z',
      count: Math.floor(first!.count / 3),
      of,
      expected,
    });
    expect((await system.get<Departures>(path)).items[0]).toMatchObject({ key: first!.key, noted: { worse: true } });
    await put({ key: first!.key, state: 'tolerated', until: '2020-01-01T00:00:00Z', count: first!.count, of, expected });
    expect((await system.get<Departures>(path)).items[0]!.noted).toBeNull();
    await put({ key: first!.key, state: null, count: 0, of: null, expected: null });
    expect((await system.get<Departures>(path)).items[0]!.noted).toBeNull();
  });

  test('before and since an instant the same strands are counted that are listed, and a calm day tells of no difference', async () => {
    const at = MORNING.from + 3 * HOUR;
    const told = await system.get<SinceThen>(`/rounds/since?at=${iso(at)}&environment=production`);
    for (const one of told.flows) {
      const sides = [one.before, one.since].map((side) => side.all);
      const [from, to] = [at - told.hours * HOUR, at + told.hours * HOUR];
      const counts = await Promise.all(
        [[from, at] as const, [at, to] as const].map(async ([a, b]) => {
          const { items } = await system.get<{ items: { count: string }[] }>(
            `/strands/counts?flow=${one.flow || 'none'}&from=${iso(a)}&to=${iso(b)}&began=true`,
          );
          return items.reduce((sum, item) => sum + Number(item.count), 0);
        }),
      );
      expect([one.flow, ...sides]).toEqual([one.flow, ...counts]);
    }
    const calm = await system.get<SinceThen>(`/rounds/since?at=${iso(at - 2 * 24 * HOUR)}&environment=production`);
    expect(calm.flows.filter((one) => one.differs === 'worse' || one.differs === 'slower')).toEqual([]);
    expect(calm.findings).toEqual([]);
  });

  test('where our evidence ends nothing is missing', async () => {
    // the evidence ends about noon: half of the last hours was never collected
    const { flows, seen } = await system.get<Rounds>(`/rounds?${window(MORNING.from, MORNING.to + 90 * 60_000_000)}`);
    expect(seen.at(-1)).toBe(false);
    expect(flows.flatMap((flow) => flow.cells.filter((one) => one.departs?.kind === 'none' || one.departs?.kind === 'fewer'))).toEqual([]);
  });

  test('a window that is none, a zone that is none, and one in which nothing was collected', async () => {
    await expect(system.get(`/rounds?${window(MORNING.to, MORNING.from)}`)).rejects.toThrow(/empty/);
    await expect(system.get(`/rounds?${window(MORNING.from, MORNING.to).replace('Berlin', 'Nowhere')}`)).rejects.toThrow(/time zone/);
    const empty = await system.get<Rounds>(`/rounds?${window(MORNING.from - 400 * 24 * HOUR, MORNING.to - 400 * 24 * HOUR)}`);
    expect([empty.flows, new Set(empty.seen)]).toEqual([[], new Set([false])]);
    expect(
      (await system.get<Departures>(`/rounds/departures?${window(MORNING.from - 400 * 24 * HOUR, MORNING.to - 400 * 24 * HOUR)}`)).items,
    ).toEqual([]);
  });
});

test('sums follow what is judged anew and what is taken out', async () => {
  const kind = (await system.get<{ items: { name: string }[] }>('/identifier-kinds')).items.find((one) => one.name === 'trace')!;
  await call(`${system.url}/api/identifier-kinds/trace`, {
    method: 'PUT',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ ...kind, label: 'trace id' }),
  });
  await system.restart();
  expect(await wrongSums()).toEqual([]);
  await call(`${system.url}/api/imports/${brought.id}`, { method: 'DELETE' });
  for (let strands = 1; strands > 0; await new Promise((resolve) => setTimeout(resolve, 200)))
    strands = (await system.get<{ strands: number }>('/summary')).strands;
  expect(await wrongSums()).toEqual([]);
}, 60_000);
