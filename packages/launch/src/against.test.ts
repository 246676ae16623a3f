import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { join } from 'node:path';
import type { Against, Change, Page, StrandSummary } from '@fadenweg/api';
import { FULL_DAY, generate } from '@fadenweg/standin';
import { bringMorning, startSystem, type System } from './testing/system.ts';

const HOUR = 3_600_000_000;
const iso = (at: number): string => new Date(at / 1000).toISOString();
/** From six to fourteen: a shop sends twice, and a new version of a component fails. */
const [FROM, TO] = [FULL_DAY + 6 * HOUR, FULL_DAY + 14 * HOUR];
const WINDOW = `from=${iso(FROM)}&to=${iso(TO)}&environment=production&zone=Europe/Berlin`;
let system: System;
const against = (what: string, name: string, of = ''): Promise<Against> =>
  system.get(`/against?what=${what}&name=${encodeURIComponent(name)}&of=${of}&${WINDOW}`);
const flat = ['flat', 'few'];

beforeAll(async () => {
  system = await startSystem();
  const out = join(system.folder, 'world');
  await generate({ out, seed: 7, faultRate: 0.02, storyDay: FULL_DAY, stretches: [{ from: FROM, hours: 8, records: 30_000 }] });
  await bringMorning(system, join(out, 'logs'));
}, 180_000);
afterAll(() => system.stop());

test('a party: each of its strands is counted once, and what it has more of is told', async () => {
  const { items } = await system.get<Page<StrandSummary>>(`/strands?outcome=doubled&limit=100&began=true&from=${iso(FROM)}&to=${iso(TO)}`);
  const shop = items.flatMap((one) => one.parties).find((one) => one.kind === 'shop')!;
  expect(shop).toBeDefined();
  const told = await against('party', shop.value, 'shop');
  const doubled = told.outcomes.find((one) => one.outcome === 'doubled')!;
  const own = await system.get<{ items: { outcome: string; count: string }[] }>(`/strands/counts?identifier=${shop.value}&began=true&from=${iso(FROM)}&to=${iso(TO)}`); // prettier-ignore
  expect(told.strands.own).toBe(own.items.reduce((sum, one) => sum + Number(one.count), 0));
  for (const { outcome, own: count } of told.outcomes)
    expect(count).toBe(own.items.reduce((sum, one) => sum + (one.outcome === outcome ? Number(one.count) : 0), 0));
  expect(doubled.beside.is).toBe('more');
  expect(told.measures.filter((one) => one.measure !== 'amiss').every((one) => flat.includes(one.beside.is))).toBe(true);
  expect(told.peers.find((one) => one.own)!.name).toBe(shop.value);
  expect(told.course.reduce((sum, one) => sum + (one.own?.strands ?? 0), 0)).toBe(told.strands.own + told.strands.ownBefore);
});

test('a version beside the other one: it fails where that did not', async () => {
  const { items } = await system.get<Page<Change>>(`/changes?from=${iso(FROM)}&to=${iso(TO)}&environment=production`);
  const { component, after, before } = items.find((one) => one.kind === 'version')!;
  const told = await against('version', after, component);
  expect(told.peers.map((one) => one.name)).toEqual(expect.arrayContaining([before, after]));
  expect(told.outcomes.find((one) => one.outcome === 'failed')!.beside.is).toBe('more');
  expect(told.measures.find((one) => one.measure === 'here')!.own).toBeGreaterThan(0);
  const other = await against('version', before, component);
  expect([other.strands.own, other.strands.others]).toEqual([told.strands.others, told.strands.own]);
});

test('a component that all pass has no others, whatever broke off before it', async () => {
  const told = await against('component', 'blank-store');
  expect(told.instead).toEqual([]);
  expect(told.strands.others).toBe(0);
  expect(told.measures.every((one) => one.beside.is === 'few')).toBe(true);
  expect(told.measures.find((one) => one.measure === 'here')!.own).toBeGreaterThan(0);
});

test('a host leads to just its strands', async () => {
  const told = await against('host', 'app-3');
  const { items } = await system.get<{ items: { count: string }[] }>(`/strands/counts?host=app-3&began=true&from=${iso(FROM)}&to=${iso(TO)}`);
  expect(told.strands.own).toBe(items.reduce((sum, one) => sum + Number(one.count), 0));
  expect(told.strands.own).toBeGreaterThan(100);
});

test('what is not known, and windows that are none, are refused with a reason', async () => {
  const refused = async (path: string): Promise<unknown> => (await fetch(`${system.url}/api${path}`)).json();
  expect(await refused(`/against?what=party&name=0000&of=shop&${WINDOW}`)).toMatchObject({ status: 404, detail: expect.stringContaining('0000') });
  expect(await refused(`/against?what=host&name=nowhere&${WINDOW}`)).toMatchObject({ status: 404 });
  expect(await refused(`/against?what=version&name=9&of=lens-calc&${WINDOW}`)).toMatchObject({ status: 404 });
  expect(await refused(`/against?what=colour&name=9&${WINDOW}`)).toMatchObject({ status: 400 });
  expect(await refused(`/against?what=host&name=app-3&from=${iso(TO)}&to=${iso(FROM)}&environment=production`)).toMatchObject({ status: 400 });
});
