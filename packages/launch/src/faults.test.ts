import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { join } from 'node:path';
import type { Change, Fault, FaultBody, FaultDetail, Faults, Page, StrandSummary, TimelinePart } from '@fadenweg/api';
import { FULL_DAY, generate } from '@fadenweg/standin';
import { call } from './client.ts';
import { bringMorning, startSystem, type System } from './testing/system.ts';

const HOUR = 3_600_000_000;
const iso = (at: number): string => new Date(at / 1000).toISOString();
const [FROM, TO] = [FULL_DAY + 6 * HOUR, FULL_DAY + 14 * HOUR];
const window = (from = FROM, to = TO): string => `from=${iso(from)}&to=${iso(to)}&environment=production&zone=Europe/Berlin`;
let system: System;
const list = (more = ''): Promise<Faults> => system.get(`/faults?${window()}${more}`);
const one = (id: number): Promise<FaultDetail> => system.get(`/faults/${id}?${window()}`);
const say = (id: number, body: FaultBody): Promise<void> =>
  call(`${system.url}/api/faults/${id}/said`, { method: 'POST', body: JSON.stringify(body), headers: { 'content-type': 'application/json' } });
const prism = async (): Promise<Fault> => (await list('&all=true')).items.find((item) => item.types.includes('PrismOffGridException'))!;

beforeAll(async () => {
  system = await startSystem();
  const out = join(system.folder, 'world');
  await generate({ out, seed: 7, faultRate: 0.03, storyDay: FULL_DAY, stretches: [{ from: FROM, hours: 8, records: 30_000 }] });
  await bringMorning(system, join(out, 'logs'));
}, 180_000);
afterAll(() => system.stop());

describe('each failed strand counts at exactly one fault', () => {
  test('in any window they add up to the failed ones of Strands, and each leads to just its strands', async () => {
    const minutes = fc.integer({ min: 0, max: 480 });
    await fc.assert(
      fc.asyncProperty(minutes, minutes, async (a, b) => {
        fc.pre(a !== b);
        const [from, to] = [FROM + Math.min(a, b) * 60_000_000, FROM + Math.max(a, b) * 60_000_000];
        const { items, failed } = await system.get<Faults>(`/faults?${window(from, to)}&all=true`);
        const counts = await system.get<{ items: { outcome: string; count: string }[] }>(
          `/strands/counts?from=${iso(from)}&to=${iso(to)}&began=true`,
        );
        const own = counts.items.reduce((sum, item) => sum + (item.outcome === 'failed' ? Number(item.count) : 0), 0);
        expect(failed).toBe(own);
        expect(items.reduce((sum, item) => sum + item.strands, 0)).toBe(own);
        for (const item of items) expect(item.course.reduce((sum, count) => sum + count, 0)).toBe(item.strands);
      }),
      { numRuns: 12 },
    );
    for (const { id, strands } of (await list()).items.filter((item) => item.strands > 0)) {
      const own = await system.get<Page<StrandSummary>>(`/strands?fault=${id}&from=${iso(FROM)}&to=${iso(TO)}&began=true&limit=500`);
      expect(own.items).toHaveLength(strands);
      expect(own.items.every((item) => item.outcome === 'failed')).toBe(true);
    }
  });

  test('errors that only followed from others are left out, and counted', async () => {
    const [shown, all] = [await list(), await list('&all=true')];
    expect(shown.items.length + shown.consequences).toBe(all.items.length);
    expect(shown.consequences).toBeGreaterThan(0);
    expect(shown.items.every((item) => item.strands + item.unharmed + item.records > 0)).toBe(true);
  });
});

test('a fault tells its cause, versions, an example, and what followed', async () => {
  const fault = await prism();
  expect(fault).toMatchObject({ component: 'lens-calc', state: 'new' });
  expect(fault.calls[0]).toMatch(/shift/);
  const told = await one(fault.id);
  expect(told.example!.message).toContain('PrismOffGridException');
  const { items } = await system.get<Page<Change>>(`/changes?from=${iso(FROM)}&to=${iso(TO)}&environment=production`);
  const { after, before } = items.find((item) => item.kind === 'version' && item.component === 'lens-calc')!;
  expect(told.versions.map((item) => item.version)).toEqual([after]);
  expect(told.versions.map((item) => item.version)).not.toContain(before);
  expect(told.flows[0]!.strands).toBe(told.strands);
  expect(told.strandsOf[0]!.headline).toContain('PrismOffGridException');
});

test('mended in the version that runs it has returned; in one that never ran it is mended and quiet; what was said can be taken back', async () => {
  const { id } = await prism();
  const { version } = (await one(id)).versions[0]!;
  await say(id, { state: 'in-hand', owner: 'optics', note: 'looks at the grid' });
  expect(await prism()).toMatchObject({ state: 'in-hand', owner: 'optics' });
  await say(id, { state: 'mended', version });
  expect((await prism()).state).toBe('returned');
  expect((await list()).items[0]!.id).toBe(id);
  await say(id, { state: 'mended', version: '9.9.9' });
  expect((await prism()).state).toBe('mended');
  const quiet = await list();
  expect(quiet.items.map((item) => item.id)).not.toContain(id);
  expect(quiet.quiet.mended).toBe(1);
  expect((await one(id)).history.map((item) => item.state)).toEqual(['mended', 'mended', 'in-hand']);
  for (const state of ['returned', 'in-hand', 'new']) {
    await call(`${system.url}/api/faults/${id}/said`, { method: 'DELETE' });
    expect((await prism()).state).toBe(state);
  }
  await expect(call(`${system.url}/api/faults/${id}/said`, { method: 'DELETE' })).rejects.toThrow(/Nothing/);
});

test('what is tolerated needs a reason; a fault that is none is not found', async () => {
  const { id } = await prism();
  await expect(say(id, { state: 'tolerated' })).rejects.toThrow(/reason/);
  await say(id, { state: 'tolerated', note: 'the grid is replaced in spring', until: '2099-01-01T00:00:00Z' });
  expect((await prism()).state).toBe('tolerated');
  await say(id, { state: 'tolerated', note: 'until yesterday', until: '2020-01-01T00:00:00Z' });
  expect((await prism()).state).toBe('new');
  await expect(one(12345)).rejects.toThrow(/does not exist/);
  await expect(say(12345, { state: 'new' })).rejects.toThrow(/does not exist/);
});

describe('by hand', () => {
  const post = (path: string, body: object): Promise<unknown> =>
    call(`${system.url}/api${path}`, { method: 'POST', body: JSON.stringify(body), headers: { 'content-type': 'application/json' } });
  const back = (id: number): Promise<unknown> => call(`${system.url}/api/faults/${id}/hand`, { method: 'DELETE' });
  const figures = async (): Promise<Record<number, [number, number, number]>> =>
    Object.fromEntries((await list('&all=true')).items.map((item) => [item.id, [item.strands, item.records, item.follows]]));
  const judged = async (): Promise<void> => {
    const open = async (): Promise<boolean> =>
      (await system.get<Page<{ kind: string }>>('/work?state=running,waiting')).items.some((item) => item.kind === 'weave');
    while (await open()) await new Promise((resolve) => setTimeout(resolve, 50));
  };

  test('two that are put together count as one, in the list, on its page and in Strands, until that is taken back', async () => {
    const before = await figures();
    const [one, other] = (await list()).items.filter((item) => item.strands > 0) as [Fault, Fault];
    await post(`/faults/${one.id}/together`, { other: other.id });
    const all = (await list('&all=true')).items;
    expect(all.map((item) => item.id)).not.toContain(other.id);
    expect(all.find((item) => item.id === one.id)).toMatchObject({
      members: 2,
      strands: one.strands + other.strands,
      records: one.records + other.records,
    });
    const told = await system.get<FaultDetail>(`/faults/${other.id}?${window()}`);
    expect(told).toMatchObject({ id: one.id, strands: one.strands + other.strands, together: [{ id: other.id }] });
    expect(told.flows.reduce((sum, item) => sum + item.strands, 0)).toBe(told.strands);
    const own = await system.get<Page<StrandSummary>>(`/strands?fault=${other.id}&from=${iso(FROM)}&to=${iso(TO)}&began=true&limit=500`);
    expect(own.items).toHaveLength(told.strands);
    await expect(post(`/faults/${one.id}/together`, { other: other.id })).rejects.toThrow(/one already/);
    await back(one.id);
    expect(await figures()).toEqual(before);
    await expect(back(one.id)).rejects.toThrow(/Nothing/);
  });

  test('words part a fault, its records and its strands, until that is taken back; words that part nothing are refused', async () => {
    const before = await figures();
    const { items } = await list();
    const { id, strands, records } = items.find((item) => item.types.length > 0 && item.strands > 3)!;
    const { example } = await one(id);
    const named = /\b[A-Z]{2}-\d+\b/.exec(example!.message)?.[0] ?? /\d{4,}/.exec(example!.message)![0];
    expect(await system.get(`/faults/${id}/parts?words=${encodeURIComponent(named)}`)).toMatchObject({ of: expect.any(Number) });
    const { id: part } = (await post(`/faults/${id}/parts`, { words: named })) as { id: number };
    await judged();
    const now = await figures();
    expect(now[part]![0]).toBeGreaterThan(0);
    expect(now[part]![0] + now[id]![0]).toBe(strands);
    expect(now[part]![1] + now[id]![1]).toBe(records);
    expect((await one(part)).words).toBe(named);
    expect((await one(part)).example!.message).toContain(named);
    expect((await one(id)).parts).toEqual([{ id: part, words: named }]);
    await expect(post(`/faults/${id}/parts`, { words: 'no such words' })).rejects.toThrow(/None of its records/);
    await back(part);
    await judged();
    expect(await figures()).toEqual(before);
  });

  test('mended and tolerated ones stand out of sight in Strands and Find, with a count', async () => {
    const { id, strands, records } = await prism();
    const search = `/records/tally?${window().replace('&zone=Europe/Berlin', '')}&slotMs=86400000&quiet=hide&q=${encodeURIComponent('where level >= error')}`;
    const tallied = async (): Promise<{ total: number; hidden: number }> => {
      const sum = { total: 0, hidden: 0 };
      for (let next: string | null = ''; next !== null;) {
        const part: TimelinePart = await system.get<TimelinePart>(`${search}${next === '' ? '' : `&after=${next}`}`);
        sum.total += part.total;
        sum.hidden += part.hidden['settled-faults'] ?? 0;
        next = part.next;
      }
      return sum;
    };
    const [all, loud] = [await system.get<{ items: { count: number }[] }>(`/strands/counts?${began}`), await tallied()];
    await say(id, { state: 'tolerated', note: 'known since spring' });
    const quiet = await system.get<{ items: { count: number }[]; quiet: number }>(`/strands/counts?${began}&quiet=true`);
    const sum = ({ items }: { items: { count: number }[] }): number => items.reduce((total, item) => total + item.count, 0);
    expect(quiet.quiet).toBe(strands);
    expect(sum(quiet)).toBe(sum(all) - strands);
    expect(loud.hidden).toBe(0);
    expect(await tallied()).toEqual({ total: loud.total - records, hidden: records });
    const found = await system.get<{ items: { id: string }[]; hidden: number[] }>(
      `/records?${window().replace('&zone=Europe/Berlin', '')}&limit=1000&q=${encodeURIComponent(`where fault = ${id}`)}&quiet=show`,
    );
    expect(found.items).toHaveLength(records);
    await call(`${system.url}/api/faults/${id}/said`, { method: 'DELETE' });
    expect(await tallied()).toEqual(loud);
  });

  test('the list by owner, version and flow', async () => {
    const { id } = await prism();
    await say(id, { state: 'in-hand', owner: 'optics' });
    expect((await list('&owner=optics')).items.map((item) => item.id)).toEqual([id]);
    expect((await list()).owners).toEqual(['optics']);
    const { version } = (await one(id)).versions[0]!;
    expect((await list(`&version=${version}`)).items.map((item) => item.id)).toContain(id);
    expect((await list('&version=0.0.1')).items).toEqual([]);
    const { flow, strands } = (await one(id)).flows[0]!;
    const ofFlow = (await list(`&flow=${flow}`)).items;
    expect(ofFlow.find((item) => item.id === id)!.strands).toBe(strands);
    expect((await list('&flow=nowhere')).items).toEqual([]);
  });
});
const began = `from=${iso(FROM)}&to=${iso(TO)}&environment=production&began=true`;
