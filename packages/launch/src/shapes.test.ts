import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { join } from 'node:path';
import pg from 'pg';
import type { DifferentShapes, FoundPage, ImportInfo, Page, ShapeDetail, SourceInfo } from '@fadenweg/api';
import { FULL_DAY, generate } from '@fadenweg/standin';
import { call } from './client.ts';
import { bringMorning, startSystem, type System } from './testing/system.ts';

const HOUR = 3_600_000_000;
const iso = (at: number): string => new Date(at / 1000).toISOString();
const FROM = FULL_DAY + 6 * HOUR;
let system: System;
const one = (component: string, text: string): Promise<ShapeDetail> =>
  system.get(
    `/shapes/one?from=${iso(FULL_DAY + 12 * HOUR)}&to=${iso(FULL_DAY + 13 * HOUR)}&environment=production&component=${component}&text=${encodeURIComponent(text)}`,
  );
const different = (from: number, to: number, baseline = 'before'): Promise<DifferentShapes> =>
  system.get(`/shapes/different?from=${iso(from)}&to=${iso(to)}&environment=production&zone=Europe/Berlin&baseline=${baseline}`);

beforeAll(async () => {
  system = await startSystem();
  const out = join(system.folder, 'world');
  await generate({ out, seed: 7, faultRate: 0.02, storyDay: FULL_DAY, stretches: [{ from: FROM, hours: 8, records: 30_000 }] });
  await bringMorning(system, join(out, 'logs'));
}, 180_000);
afterAll(() => system.stop());

/** Counts that are not those of the records there are, in either direction. */
async function wrongCounts(): Promise<unknown[]> {
  const client = new pg.Client(system.postgres.url);
  await client.connect();
  try {
    const kept = 'select slot, source_id, component_id, shape, sum(count)::int as count from shape_slot group by 1, 2, 3, 4 having sum(count) <> 0';
    const own = 'select (at / 600000000)::int, source_id, component_id, shape, count(*)::int from record group by 1, 2, 3, 4';
    return (await client.query(`(${kept} except ${own}) union all (${own} except ${kept})`)).rows as unknown[];
  } finally {
    await client.end();
  }
}

test('what is said is counted as often as it stands in the records', async () => {
  expect(await wrongCounts()).toEqual([]);
  const { records, shapes } = await different(FROM, FROM + 8 * HOUR);
  expect(records).toBeGreaterThan(25_000);
  expect(shapes).toBeGreaterThan(40);
});

test('a message that a new version brings is new, with when it came first; what is as before is quiet', async () => {
  const { items, stretches } = await different(FULL_DAY + 12 * HOUR, FULL_DAY + 13 * HOUR);
  expect(stretches).toBeGreaterThanOrEqual(5);
  const failed = items.find((one) => one.component === 'lens-calc' && one.kind === 'new' && one.level === 'error')!;
  expect(failed.text).toMatch(/surface of ‹› failed/);
  expect(failed.count).toBeGreaterThanOrEqual(3);
  expect(Date.parse(failed.firstAt!)).toBeGreaterThanOrEqual((FULL_DAY + 12 * HOUR) / 1000);
  expect(items.filter((one) => !one.few).length).toBeLessThan(12);
  expect(failed.weight).toBe('grave');
  const told = await one('lens-calc', failed.text);
  expect(told.pieces.reduce((sum, piece) => sum + piece.count, 0)).toBe(failed.count);
  expect(told).toMatchObject({ looked: failed.count, weight: 'serious', twins: [], byHand: false });
  // whoever passes it fails, and hardly anybody else
  expect(told.failed).toBe(told.strands);
  expect(told.strands).toBe(failed.count);
  expect(told.usuallyFailed).toBeLessThan(0.5);
  const [order] = told.parameters;
  expect(order).toMatchObject({ place: 0, kind: 'identifier', name: '', proposed: 'surface', numbers: null });
  expect(order!.values.reduce((sum, value) => sum + value.count, 0)).toBeLessThanOrEqual(failed.count);
});

describe('what people say of shapes', () => {
  const put = (path: string, body: object): Promise<unknown> =>
    call(`${system.url}/api/shapes/${path}`, { method: 'PUT', body: JSON.stringify(body), headers: { 'content-type': 'application/json' } });
  const found = async (q: string): Promise<FoundPage['items']> => {
    const items: FoundPage['items'] = [];
    for (let next: string | null = ''; next !== null;) {
      const page: FoundPage = await system.get<FoundPage>(
        `/records?limit=1000&from=${iso(FROM)}&to=${iso(FROM + 8 * HOUR)}&q=${encodeURIComponent(q)}${next === '' ? '' : `&after=${next}`}`,
      );
      items.push(...page.items);
      next = page.next;
    }
    return items;
  };

  test('a parameter with a name is a field: of searches, of lines, in figures, until it is taken away', async () => {
    const { items } = await system.get<FoundPage>(
      `/records?limit=200&from=${iso(FROM)}&to=${iso(FROM + 8 * HOUR)}&q=${encodeURIComponent('where component = batch')}`,
    );
    const like = items.find((item) => /‹›/.test(item.shape) && /\d/.test(item.message))!;
    const own = { component: 'batch', text: like.shape };
    const told = await system.get<ShapeDetail>(
      `/shapes/one?from=${iso(FROM)}&to=${iso(FROM + 8 * HOUR)}&environment=production&component=batch&text=${encodeURIComponent(like.shape)}`,
    );
    const numeric = told.parameters.find((parameter) => parameter.kind === 'number' || parameter.kind === 'with unit') ?? told.parameters[0]!;
    await put('parameters', { ...own, place: numeric.place, name: 'amount-here' });
    const all = await found(`where component = batch and shape = '${like.shape.replaceAll("'", "''")}'`);
    expect(all.length).toBeGreaterThan(0);
    const having = await found('where amount-here is not null');
    expect(having.map((item) => item.id)).toEqual(all.map((item) => item.id));
    const values = having.map((item) => Number(item.attributes['amount-here']));
    const middle = [...values].sort((a, b) => a - b)[Math.floor(values.length / 2)]!;
    expect(await found(`where amount-here > ${middle}`)).toHaveLength(values.filter((value) => value > middle).length);
    const { items: counted } = await system.get<Page<{ records: number; without: number }>>(
      `/records/values?from=${iso(FROM)}&to=${iso(FROM + 8 * HOUR)}&fields=amount-here&limit=8&q=${encodeURIComponent('where amount-here is not null')}`,
    );
    expect(counted[0]!.without).toBe(0);
    await put('parameters', { ...own, place: numeric.place, name: '' });
    expect(await found('where amount-here is not null')).toEqual([]);
    await expect(put('parameters', { ...own, place: 0, name: 'level' })).rejects.toThrow(/taken/);
    await expect(put('parameters', { ...own, place: 0, name: '7 x' })).rejects.toThrow(/letters/);
  });

  test('a word is said to be a parameter: what fits is one, in the list, by itself and in searches; taken back it is as before', async () => {
    const hour = (all = ''): Promise<DifferentShapes> =>
      system.get(
        `/shapes/different?from=${iso(FULL_DAY + 12 * HOUR)}&to=${iso(FULL_DAY + 13 * HOUR)}&environment=production&zone=Europe/Berlin${all}`,
      );
    const before = await hour();
    const text = before.items.find((item) => item.component === 'lens-calc')!.text;
    expect(text).toBe('surface of ‹› failed');
    await put('hand', { component: 'lens-calc', text: 'surface of ‹› ‹›', is: 'one' });
    const after = await hour();
    expect(after.items.map((item) => item.text)).not.toContain(text);
    expect(after.shapes).toBeLessThanOrEqual(before.shapes);
    const told = await one('lens-calc', 'surface of ‹› ‹›');
    expect(told.byHand).toBe(true);
    expect(told.parameters).toHaveLength(2);
    expect(told.parameters[1]!.values.map((value) => value.value)).toContain('failed');
    const some = await found("where component = lens-calc and shape = 'surface of ‹› ‹›'");
    expect(some.length).toBeGreaterThanOrEqual(told.looked);
    await expect(put('hand', { component: 'lens-calc', text: 'surface', is: 'one' })).rejects.toThrow(/stands for itself/);
    await put('hand', { component: 'lens-calc', text: 'surface of ‹› ‹›', is: null });
    expect((await hour()).items).toEqual(before.items);
  });

  test('what is tolerated is left out with a count, until it is something else', async () => {
    const [from, to] = [FULL_DAY + 12 * HOUR, FULL_DAY + 13 * HOUR];
    const { items } = await different(from, to);
    const { component, text, kind } = items[0]!;
    await put('said', { component, text, kind, note: 'the new optics are tried out' });
    const now = await different(from, to);
    expect(now.items.map((item) => `${item.component} ${item.text}`)).not.toContain(`${component} ${text}`);
    expect(now.tolerated).toBe(1);
    const all = await system.get<DifferentShapes>(`/shapes/different?from=${iso(from)}&to=${iso(to)}&environment=production&all=true`);
    expect(all.items[0]).toMatchObject({ text, tolerated: 'the new optics are tried out' });
    await put('said', { component, text, kind, note: null });
    await put('said', { component, text, kind: 'fading', note: 'not this' });
    expect((await different(from, to)).tolerated).toBe(0);
    await put('said', { component, text, kind: 'fading', note: null });
    await expect(put('said', { component, text, kind, note: '' })).rejects.toThrow();
  });

  test('compared with another window, another environment, other hosts', async () => {
    const [from, to] = [FULL_DAY + 12 * HOUR, FULL_DAY + 13 * HOUR];
    const at = (more: string): Promise<DifferentShapes> =>
      system.get(`/shapes/different?from=${iso(from)}&to=${iso(to)}&environment=production&${more}`);
    const window = await at(`baseline=window&otherFrom=${iso(from - 3 * HOUR)}&otherTo=${iso(from)}`);
    expect(window.stretches).toBe(3);
    expect(window.items.some((item) => item.kind === 'new' && item.component === 'lens-calc')).toBe(true);
    await expect(at(`baseline=window&otherFrom=${iso(from - HOUR / 2)}&otherTo=${iso(from)}`)).rejects.toThrow(/too short/);
    await expect(at('baseline=environment')).rejects.toThrow();
    expect(await at('baseline=environment&otherEnvironment=nowhere')).toMatchObject({ items: [], stretches: 0 });
    const same = await at('baseline=environment&otherEnvironment=production');
    expect(same).toMatchObject({ items: [], stretches: 1, shift: null });
    // each host against the others: together they say all that is said
    const hosts = new Set((await system.get<Page<SourceInfo>>('/sources')).items.map((source) => source.host).filter((host) => host !== ''));
    expect(hosts.size).toBeGreaterThan(1);
    let records = 0;
    for (const host of hosts) {
      const own = await at(`baseline=host&host=${encodeURIComponent(host)}`);
      expect(own.stretches).toBe(1);
      records += own.records;
    }
    expect(records).toBeLessThanOrEqual(same.records);
    expect(records).toBeGreaterThan(0);
    expect(await at('baseline=host&host=nowhere')).toMatchObject({ items: [], shapes: 0 });
  });
});

test('what lies behind the end of the evidence is neither gone nor fading', async () => {
  const end = FULL_DAY + 14 * HOUR;
  const { items, to } = await different(end - HOUR, end + 6 * HOUR);
  expect(Date.parse(to)).toBeLessThanOrEqual((end + HOUR) / 1000);
  expect(items.filter((one) => one.kind === 'gone' || one.kind === 'fading')).toEqual([]);
});

test('what departs is exported in one, strands and shapes, the gravest first', async () => {
  const text = await (
    await fetch(`${system.url}/api/unusual/export?from=${iso(FULL_DAY + 12 * HOUR)}&to=${iso(FULL_DAY + 13 * HOUR)}&environment=production`)
  ).text();
  const lines = text.trim().split('\n').map((line) => JSON.parse(line) as { what: string; shape: string | null; weight: string; component: string }); // prettier-ignore
  expect(lines.find((line) => line.shape === 'surface of ‹› failed')).toMatchObject({ what: 'new', component: 'lens-calc', weight: 'grave' });
  expect(lines.some((line) => line.shape === null)).toBe(true);
  const weights = lines.map((line) => ['slight', 'notable', 'serious', 'grave'].indexOf(line.weight));
  expect(weights).toEqual([...weights].sort((a, b) => b - a));
});

test('with nothing before nothing is told; a window that is too short is refused', async () => {
  expect(await different(FROM, FROM + HOUR, 'days')).toMatchObject({ items: [], stretches: 0, shift: null });
  await expect(different(FROM, FROM + 60_000_000)).rejects.toThrow(/too short/);
});

test('what is taken out is counted no more', async () => {
  const { items } = await system.get<Page<ImportInfo>>('/imports');
  await call(`${system.url}/api/imports/${items[0]!.id}`, { method: 'DELETE' });
  expect(await wrongCounts()).toEqual([]);
  expect(await different(FULL_DAY + 12 * HOUR, FULL_DAY + 13 * HOUR)).toMatchObject({ items: [], records: 0, stretches: 0 });
});
