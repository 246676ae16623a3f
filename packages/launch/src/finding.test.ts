import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { mkdir, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import fc from 'fast-check';
import type { FieldValues, FoundPage, LogRecord, Page, Problem, RankedPart, StrandSummary } from '@fadenweg/api';
import { compareRanks, compileSearch, parseSearch, rankOf, type Searchable } from '@fadenweg/core/search';
import { LEVELS, type Level } from '@fadenweg/core/units';
import { WEIGHTS, type Weight } from '@fadenweg/core/weights';
import { call, filesBelow } from './client.ts';
import { wholeTally } from './testing/parts.ts';
import { startSystem, type System } from './testing/system.ts';

let system: System;
const WORDS = ['lock timeout', 'Größe İst', 'order taken', 'queue deep', '100 % of \u212a and İx', "it's over"];
beforeAll(async () => {
  system = await startSystem();
  const root = join(system.folder, 'in');
  const at = (i: number): string => new Date(Date.UTC(2026, 10, 20, 8, 0, i * 7)).toISOString();
  const line = (i: number, name: string): string =>
    JSON.stringify({
      time: at(i),
      level: ['info', 'warn', 'error', 'debug'][i % 4],
      msg: `${WORDS[i % WORDS.length]!} ${i}`,
      host: `app-${i % 3}`,
      logger: `a.b.${i % 5}`,
      ...(i % 2 ? { took: i * 10, shop: `04${i % 7}` } : {}),
      ...(i % 3 ? {} : { order: { number: `LX-2000${i % 10}0`, rows: i } }),
      name,
    });
  for (const name of ['desk', 'store']) {
    await mkdir(join(root, name), { recursive: true });
    await writeFile(join(root, name, 'a.jsonl'), Array.from({ length: 240 }, (_, i) => line(i * 2 + Number(name === 'store'), name)).join('\n'));
  }
  await call(`${system.url}/api/identifier-kinds`, {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ name: 'order', label: 'order', role: 'business', patterns: ['LX-\\d{6}'], fields: [] }),
  });
  await system.bring(await filesBelow([root]));
}, 120_000);
afterAll(() => system.stop());

const ask = (q: string, more = ''): string => `/records?limit=1000&q=${encodeURIComponent(q)}${more}`;
/** Everything that a search finds, page after page. */
async function found(q: string, order = 'latest'): Promise<LogRecord[]> {
  const items: LogRecord[] = [];
  for (let next: string | null = ''; next !== null;) {
    const page: FoundPage = await system.get<FoundPage>(ask(q, `&order=${order}${next === '' ? '' : `&after=${next}`}`));
    items.push(...page.items);
    next = page.next;
  }
  return items;
}
let outcomes = new Map<string, string>();
const searchable = (one: LogRecord): Searchable => ({
  at: Number(one.id.split('-')[0]),
  level: LEVELS.indexOf(one.level) as Level,
  component: one.component,
  host: one.host,
  environment: one.environment,
  source: one.source.path,
  logger: one.logger,
  message: one.message,
  shape: one.shape,
  took: one.tookMs === null ? NaN : one.tookMs * 1000,
  fields: one.attributes,
  identifiers: one.identifiers,
  flow: '',
  outcome: outcomes.get(one.strand ?? '') ?? '',
  fault: '',
  weight: WEIGHTS.indexOf(one.weight) as Weight,
});

describe('finding records', () => {
  test('what the database narrows to and what core decides agree, on whatever search', async () => {
    const all = await found('');
    const { items } = await system.get<Page<StrandSummary>>('/strands?limit=100');
    outcomes = new Map(items.map((one) => [one.id, one.outcome]));
    expect(new Set(outcomes.values()).size).toBeGreaterThan(1);
    expect(all).toHaveLength(480);
    const field = fc.constantFrom(
      'component',
      'level',
      'host',
      'logger',
      'took',
      'shop',
      'number',
      'order',
      'rows',
      'message',
      'shape',
      'time',
      'nowhere',
      'outcome',
      'weight',
      'environment',
      'source',
    );
    const value = fc.constantFrom(
      'desk',
      'store',
      'error',
      'debug',
      'app-1',
      'a.b.2',
      '250ms',
      '1s',
      '041',
      '041.0',
      'LX-200030',
      '30',
      "'lock timeout 0'",
      "'lock timeout ‹›'",
      '2026-11-20T08:10:00Z',
      "''",
      'production',
      'done',
      'serious',
      'LX-2000_0',
      "'%lock%'",
      "'%K%'",
      'in/desk/a.jsonl',
    );
    const leaf = fc.oneof(
      fc.tuple(field, fc.constantFrom('=', '<>', '<', '<=', '>', '>=', 'like'), value).map((parts) => parts.join(' ')),
      fc.tuple(field, value, value).map(([name, a, b]) => `${name} in (${a}, ${b})`),
      fc.tuple(field, value, value).map(([name, a, b]) => `${name} between ${a} and ${b}`),
      field.map((name) => `${name} is null`),
      field.map((name) => `${name} matches '[a-k]$'`),
    );
    const condition = fc.letrec<{ tree: string }>((tie) => ({
      tree: fc.oneof(
        { depthSize: 'small' },
        leaf,
        fc.tuple(tie('tree'), tie('tree')).map(([a, b]) => `(${a} and ${b})`),
        fc.tuple(tie('tree'), tie('tree')).map(([a, b]) => `(${a} or ${b})`),
        tie('tree').map((a) => `not ${a}`),
      ),
    })).tree;
    const words = fc.constantFrom('', 'lock', 'TIMEOUT', 'größe', 'ist', "'order taken'", 'k', 'i', '%', "'it''s'");
    await fc.assert(
      fc.asyncProperty(words, fc.option(condition, { nil: null }), async (word, where) => {
        const q = `${word} ${where === null ? '' : `where ${where}`}`.trim();
        const { search } = parseSearch(q);
        const wanted = all.filter((one) => compileSearch(search!)(searchable(one))).map((one) => one.id);
        expect((await found(q)).map((one) => one.id)).toEqual(wanted);
      }),
      { numRuns: 150 },
    );
  }, 120_000);

  test('what people say weighs comes before what was read, in searches, in values and in lines, until it is taken away', async () => {
    const put = (name: string, body: object): Promise<Response> =>
      fetch(`${system.url}/api/weights/${name}`, {
        method: 'PUT',
        body: JSON.stringify({ name, label: name, ...body }),
        headers: { 'content-type': 'application/json' },
      });
    const [grave, debug] = [await found('where weight = grave'), await found('where level = debug')];
    expect(debug.length).toBeGreaterThan(0);
    expect(debug.every((one) => one.weight === 'slight')).toBe(true);
    expect((await put('chatter', { q: 'where level = debug', weight: 'grave' })).status).toBe(200);
    expect((await found('where weight = grave')).map((one) => one.id)).toEqual(expect.arrayContaining(debug.map((one) => one.id)));
    expect(await found('where weight = grave')).toHaveLength(grave.length + debug.length);
    expect((await found('where level = debug')).every((one) => one.weight === 'grave')).toBe(true);
    expect(await found('where level = debug and weight < grave')).toEqual([]);
    const { items } = await system.get<Page<{ values: { value: string; count: number }[] }>>('/records/values?fields=weight&limit=8');
    expect(items[0]!.values.find((one) => one.value === 'grave')!.count).toBe(grave.length + debug.length);
    expect((await put('itself', { q: 'where weight = grave', weight: 'slight' })).status).toBe(400);
    expect((await put('broken', { q: 'where level =', weight: 'slight' })).status).toBe(400);
    await fetch(`${system.url}/api/weights/chatter`, { method: 'DELETE' });
    expect(await found('where weight = grave')).toHaveLength(grave.length);
    expect((await fetch(`${system.url}/api/weights/chatter`, { method: 'DELETE' })).status).toBe(404);
  });

  test('the names that may be asked for hold the fields of what was read', async () => {
    const { items } = await system.get<Page<string>>('/records/fields');
    expect(items).toEqual(expect.arrayContaining(['level', 'weight', 'order', 'shop', 'order.number', 'order.rows']));
    expect(items).not.toContain('nowhere');
  });

  test('oldest first is the same the other way round, page after page', async () => {
    const q = 'lock where level in (error, info)';
    const latest = await found(q);
    expect(latest.length).toBeGreaterThan(20);
    expect((await found(q, 'oldest')).map((one) => one.id)).toEqual(latest.map((one) => one.id).reverse());
    const pages: string[] = [];
    for (let next: string | null = ''; next !== null;) {
      const page: FoundPage = await system.get<FoundPage>(`/records?limit=7&q=${encodeURIComponent(q)}${next === '' ? '' : `&after=${next}`}`);
      expect(page.items.length).toBeLessThanOrEqual(7);
      pages.push(...page.items.map((one) => one.id));
      next = page.next;
    }
    expect(pages).toEqual(latest.map((one) => one.id));
  });

  test('the tally counts what is found, by slot and level', async () => {
    const q = encodeURIComponent('lock');
    const part = await wholeTally(system.get, `/records/tally?q=${q}&from=2026-11-20T08:00:00Z&to=2026-11-20T09:00:00Z&slotMs=600000`);
    const records = await found('lock');
    expect(part).toMatchObject({ total: records.length, next: null, searched: 1 });
    const first = records.filter((one) => one.at < '2026-11-20T08:10');
    const errors = part.slots.find((one) => one.slot === 0)!.counts.error;
    expect(errors).toBe(first.filter((one) => one.level === 'error').length);
  });

  test('the values of a field, with their counts', async () => {
    const values = async (fields: string, q = '', limit = 20): Promise<FieldValues[]> =>
      (await system.get<Page<FieldValues>>(`/records/values?q=${encodeURIComponent(q)}&fields=${fields}&limit=${limit}`)).items;
    const [hosts, shops] = await values('host,shop', 'where component = desk');
    expect(hosts).toMatchObject({ field: 'host', distinct: 3, records: 240, without: 0, complete: true });
    expect(hosts!.values.reduce((sum, one) => sum + one.count, 0)).toBe(240);
    expect(shops!.without).toBe(240);
    const [all] = await values('shop', '', 2);
    expect(all).toMatchObject({ distinct: 7, without: 240 });
    expect(all!.values).toHaveLength(2);
    const [levels, outcomes] = await values('level,outcome');
    expect(levels!.values.map((one) => one.value).sort()).toEqual(['debug', 'error', 'info', 'warning']);
    expect(outcomes!.records - outcomes!.without).toBe(160);
  });

  test.each(['down', 'up'] as const)('sorted by a field, %s, as sorting all of them would: numbers, texts, levels', async (direction) => {
    const all = await found('lock');
    for (const by of ['took', 'number', 'level', 'component', 'rows', 'nowhere']) {
      const items: RankedPart['items'] = [];
      for (let next: string | null = ''; next !== null;) {
        const beyond = items.length >= 50 ? `&beyond=${encodeURIComponent(String(items[49]!.rank))}` : '';
        const part: RankedPart = await system.get<RankedPart>(`/records/ranked?q=lock&by=${by}&direction=${direction}&limit=50${beyond}${next === '' ? '' : `&after=${next}`}`); // prettier-ignore
        items.push(...part.items);
        next = part.next;
      }
      const sign = direction === 'down' ? -1 : 1;
      const wanted = all
        .flatMap((one) => {
          const rank = rankOf(searchable(one), by);
          return rank === null ? [] : [{ rank, id: one.id }];
        })
        .sort((one, two) => sign * compareRanks(one.rank, two.rank));
      expect(items.map(({ rank, record }) => ({ rank, id: record.id }))).toEqual(wanted.slice(0, 50));
    }
  });

  test('a mistake is refused at its place with a proposal', async () => {
    const response = await fetch(`${system.url}/api/records?q=${encodeURIComponent('where a == 1')}`);
    expect((await response.json()) as Problem).toMatchObject({
      status: 400,
      detail: expect.stringMatching(/equality is written =.*character 10/),
      action: 'Perhaps: where a = 1',
    });
  });
});
