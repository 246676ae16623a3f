import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { mkdir, readFile } from 'node:fs/promises';
import { join } from 'node:path';
import type { HostClock, ImportInfo, Page, StrandLine, StrandSummary, Summary } from '@fadenweg/api';
import { aheadAt, generateHuts, HUT_FLOWS, HUT_KINDS, HUT_MEANINGS, type TrueClock } from '@fadenweg/standin';
import { call, filesBelow } from './client.ts';
import { declare } from './demo-data.ts';
import { startSystem, type System } from './testing/system.ts';

/** A world in which one clock is ahead, gains, and is set in the middle of the day. */
let system: System;
let imported: ImportInfo;
let truth: TrueClock[];
const DAY = Date.UTC(2026, 10, 24) * 1000;

beforeAll(async () => {
  system = await startSystem();
  const root = join(system.folder, 'huts');
  await mkdir(root);
  await generateHuts(root, 79, DAY, 12, 1500, 0.05);
  truth = (JSON.parse(await readFile(join(root, 'truth/clocks.json'), 'utf8')) as { spans: TrueClock[] }[])[0]!.spans;
  await declare(system.url, { kinds: HUT_KINDS, flows: HUT_FLOWS, meanings: HUT_MEANINGS });
  imported = await system.bring(await filesBelow([join(root, 'logs')]));
}, 120_000);
afterAll(() => system.stop());

const clocks = async (): Promise<HostClock[]> => (await system.get<Page<HostClock>>('/hosts')).items;
const pay = async (): Promise<HostClock> => (await clocks()).find((one) => one.component === 'pay')!;
const micros = (iso: string): number => Date.parse(iso) * 1000;
/** Lines of some paid bookings, as they are shown. */
async function paid(): Promise<StrandLine[][]> {
  const { items } = await system.get<Page<StrandSummary>>('/strands?flow=booking&outcome=done&limit=60');
  return Promise.all(items.map(async (one) => (await system.get<Page<StrandLine>>(`/strands/${one.id}/records`)).items));
}
const set = (id: number, aheadMs: number | null): Promise<HostClock> =>
  call<HostClock>(`${system.url}/api/hosts/${id}`, {
    method: 'PUT',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ aheadMs }),
  });

describe('clocks that are amiss', () => {
  test('are found with what bounds them; those that are right are told to be', async () => {
    expect(imported).toMatchObject({ state: 'done', errors: [] });
    const all = await clocks();
    const stateOf = (name: string): string | undefined => all.find((one) => one.host === name || one.component === name)?.state;
    expect([stateOf('hut-web-1'), stateOf('reserve'), stateOf('pay'), stateOf('hut-mail-1')]).toEqual(['right', 'right', 'corrected', 'unbounded']);
    const { stretches, evidence, hops, partners } = await pay();
    expect(hops).toBeGreaterThan(500);
    expect(partners.map((one) => one.host || one.component)).toEqual(expect.arrayContaining(['reserve', 'hut-web-1']));
    expect(evidence.length).toBeGreaterThan(4);
    for (const { from, to, withinMs, aheadMs, driftMsPerHour } of stretches) {
      expect(withinMs).toBeLessThanOrEqual(100);
      const middle = (micros(from) + micros(to)) / 2;
      const told = aheadMs + (driftMsPerHour * (middle - micros(from))) / 3_600_000_000;
      expect(Math.abs(told - aheadAt(truth, middle - told * 1000) / 1000)).toBeLessThan(50);
    }
    // set nearly right: the moment is found within a minute
    const turn = stretches.find((one) => one.aheadMs < 500)!;
    expect(Math.abs(micros(turn.from) - truth[1]!.from)).toBeLessThan(60_000_000);
  });

  test('are put right: each payment stands between its call and its answer, and the original time is still told', async () => {
    const strands = await paid();
    let wrong = 0;
    for (const lines of strands) {
      const asked = lines.findIndex((line) => line.component === 'pay' && line.attributes.state === 'asked');
      const held = lines.findIndex((line) => line.message.includes(' holds '));
      const confirmed = lines.findIndex((line) => line.message.includes('is confirmed'));
      if (!(held < asked && asked < confirmed)) wrong++;
      expect(lines[asked]!.originalAt).toMatch(/^24 Nov 2026 /);
      expect(lines[asked]!.correctedByMs).toBeLessThan(-100);
      expect(lines[held]!.correctedByMs).toBe(0);
    }
    expect(wrong).toBe(0);
  });

  test('stay put right when a short log of that day comes later', async () => {
    const before = await pay();
    const more = join(system.folder, 'more');
    await mkdir(more);
    await generateHuts(more, 80, DAY + 5 * 3_600_000_000, 1, 80, 0.05);
    // of two hosts only: what is told of the third rests on what was there
    const files = (await filesBelow([join(more, 'logs')])).filter((file) => /booking-web|reserve/.test(file.path));
    expect(await system.bring(files)).toMatchObject({ state: 'done', errors: [] });
    expect((await pay()).stretches).toEqual(before.stretches);
  }, 60_000);

  test('can be set by hand, and let go again', async () => {
    const before = await pay();
    const own = await set(before.id, 0);
    expect(own).toMatchObject({ state: 'set', setAheadMs: 0, changedBy: 'local administrator', found: before.found });
    await read();
    expect((await paid()).flat().every((line) => line.correctedByMs === 0)).toBe(true);
    await set(before.id, null);
    await read();
    expect((await pay()).stretches).toEqual(before.stretches);
    expect((await paid()).flat().some((line) => line.correctedByMs < -100)).toBe(true);
  }, 60_000);

  test('beyond all reason are refused', async () => {
    await expect(set((await pay()).id, 1e15)).rejects.toThrow(/aheadMs/);
    await expect(set(2_000_000, 1)).rejects.toThrow(/host/i);
  });
});

/** Waits until everything is read and woven again. */
async function read(): Promise<void> {
  for (;;) {
    if ((await system.get<Summary>('/summary')).still) return;
    await new Promise((resolve) => setTimeout(resolve, 50));
  }
}
