import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import type { Answers, Asked, Page, SourceInfo } from '@fadenweg/api';
import { FULL_DAY, generate } from '@fadenweg/standin';
import { Described, type Description } from './testing/described.ts';
import { bringMorning, startSystem, type System } from './testing/system.ts';

const HOUR = 3_600_000_000;
const iso = (at: number): string => new Date(at / 1000).toISOString();
const [from, to, environment] = [iso(FULL_DAY + 6 * HOUR), iso(FULL_DAY + 11 * HOUR), 'production'];
const window = { from, to, environment };
type Call = keyof Asked;
interface Given {
  query?: object;
  params?: object;
  body?: unknown;
  /** It is refused in the state that things are in here, as it should be. */
  refused?: number;
}
let system: System;
let described: Described;
const asked = new Set<string>();
const faults: string[] = [];

beforeAll(async () => {
  system = await startSystem(null, { demo: { load: async () => {}, forget: async () => {} } });
  const out = join(system.folder, 'world');
  await generate({ out, seed: 7, faultRate: 0.06, storyDay: FULL_DAY, stretches: [{ from: FULL_DAY + 6 * HOUR, hours: 5, records: 12_000 }] });
  await bringMorning(system, join(out, 'logs'));
  described = new Described((await (await fetch(`${system.url}/api/openapi.json`)).json()) as Description);
}, 180_000);
afterAll(() => system?.stop());

/** Calls, and keeps what is not as described; what is refused is a fault too, since nothing here is asked wrongly. */
async function call<C extends Call>(name: C, given: Asked[C] & Given): Promise<Answers[C]> {
  const [method, path] = name.split(' ') as [string, string];
  const params = (given.params ?? {}) as Record<string, unknown>;
  const filled = path.replace(/\{(\w+)\}/g, (_, one: string) => encodeURIComponent(String(params[one])));
  const query = new URLSearchParams(Object.entries(given.query ?? {}).map(([key, value]) => [key, String(value)] as [string, string])).toString();
  const body = given.body instanceof FormData ? given.body : given.body === undefined ? undefined : JSON.stringify(given.body);
  const response = await fetch(`${system.url}/api${filled}${query === '' ? '' : `?${query}`}`, {
    method: method.toUpperCase(),
    body,
    headers: typeof body === 'string' ? { 'content-type': 'application/json' } : {},
    signal: AbortSignal.timeout(60_000),
  });
  const type = response.headers.get('content-type') ?? '';
  const [json, streamed] = [type.startsWith('application/json'), type.startsWith('text/event-stream')];
  const text = streamed ? '' : await response.text();
  if (streamed) await response.body!.cancel();
  const answer = (json || type.startsWith('application/problem+json')) && text !== '' ? (JSON.parse(text) as unknown) : undefined;
  asked.add(name);
  if (!response.ok && response.status !== given.refused) faults.push(`${name} is refused: ${response.status} ${text.slice(0, 200)}`);
  else faults.push(...described.faultsOf({ method, path: `/api${filled}`, status: response.status, answer }));
  return answer as Answers[C];
}

/** Waits until each source is read. */
async function readThrough(): Promise<void> {
  for (let tries = 0; tries < 200; tries++) {
    const { items } = await system.get<Page<SourceInfo>>('/sources');
    if (items.every((one) => one.state === 'done')) return;
    await new Promise((resolve) => setTimeout(resolve, 200));
  }
  throw new Error('the sources are still being read');
}

test('what is not as described is told', () => {
  const asked = { method: 'get', path: '/api/summary', status: 200 };
  expect(described.faultsOf({ ...asked, answer: {} })).not.toEqual([]);
  expect(described.faultsOf({ ...asked, status: 201, answer: {} })).toEqual(['get /api/summary answers 201, which is not described']);
  expect(described.faultsOf({ ...asked, path: '/api/nothing', answer: {} })).toEqual(['get /api/nothing is not described']);
});

test('every call answers as it is described', async () => {
  // what there is
  const strand = (await call('get /strands', { query: { outcome: 'failed', limit: 500 } })).items[0]!;
  const id = { params: { id: strand.id } };
  await call('get /strands/counts', {});
  for (const by of ['flow', 'party', 'failed-in', 'finding'] as const) await call('get /strands/groups', { query: { by } });
  await call('get /strands/in-common', { query: { outcome: 'failed', flow: strand.flow! } });
  await call('get /strands/export', { query: { format: 'csv' } as never });
  await call('get /strands/{id}', id);
  await call('get /strands/{id}/against', { ...id, query: {} });
  await call('get /strands/{id}/against-usual', id);
  await call('get /strands/{id}/data', id);
  await call('get /strands/{id}/series', id);
  await call('get /strands/{id}/story', id);
  const records = (await call('get /strands/{id}/records', id)).items;
  const line = records[0]!;
  const taken = (await call('get /calls', { query: window })).items;
  await call('get /calls/counts', { query: window });
  for (const one of taken.slice(0, 3)) await call('get /strands/{id}/call', { params: { id: one.strand } });
  await call('get /strands/{id}/call', id);
  await call('get /records', { query: { q: 'error', limit: 50 } });
  for (const field of ['component', 'level']) await call('get /records/groups', { query: { ...window, by: field } });
  await call('get /records/against', { query: { ...window, q: 'error', field: 'component', value: line.component } });
  await call('get /records/export', { query: { ...window, format: 'jsonl' } });
  await call('get /records/fields', { query: window });
  await call('get /records/ranked', { query: { ...window, by: 'ms' } });
  await call('get /records/tally', { query: { ...window, slotMs: 600_000 } });
  await call('get /records/timeline', { query: window });
  await call('get /records/values', { query: { ...window, fields: 'component,level' } });
  await call('get /records/{id}', { params: { id: line.id } });
  await call('get /records/{id}/around', { params: { id: line.id } });
  await call('get /rounds', { query: window });
  const departures = (await call('get /rounds/departures', { query: window })).items;
  await call('get /rounds/instant', { query: { at: to, environment } });
  await call('get /rounds/since', { query: { at: iso(FULL_DAY + 8 * HOUR), environment } });
  await call('get /unusual/export', { query: window });
  await call('get /jobs', { query: window });
  await call('get /jobs/runs', { query: window });
  await call('get /against', { query: { ...window, what: 'component', name: line.component } });
  const sets = (await call('get /data-sets', { query: window })).items;
  await call('get /data-sets/one', { query: { ...window, name: sets[0]!.name, of: sets[0]!.environment } });
  const shapes = (await call('get /shapes/different', { query: { ...window, from: iso(FULL_DAY + 9 * HOUR), all: true } })).items;
  const shape = { component: shapes[0]!.component, text: shapes[0]!.text };
  await call('get /shapes/one', { query: { ...window, ...shape } });
  const found = (await call('get /faults', { query: window })).items;
  const fault = { params: { id: found[0]!.id } };
  await call('get /faults/{id}', { ...fault, query: window });
  await call('get /faults/{id}/parts', { ...fault, query: { words: 'timeout' } });
  await call('get /changes', {});
  await call('get /changes/states', { query: { at: to } });
  await call('get /coverage', {});
  for (const name of ['get /explanations', 'get /follows', 'get /health', 'get /meanings', 'get /own-packages', 'get /quiet-rules', 'get /runbooks', 'get /source-texts', 'get /summary', 'get /weights', 'get /work', 'get /imports', 'get /identifier-kinds/suggestions'] as const) await call(name, {}); // prettier-ignore
  for (const what of ['search', 'columns'] as const) await call('get /saved', { query: { what } });
  await call('get /search', { query: { text: strand.id } });
  await call('post /search/list', { body: { text: strand.id, components: true } });
  const source = (await call('get /sources', {})).items.find((one) => one.format === 'text' || one.records > 100)!;
  const sourceId = { params: { id: source.id } };
  await call('get /sources/{id}', sourceId);
  await call('get /sources/{id}/kept-whole', sourceId);
  await call('get /sources/{id}/original', sourceId);
  await call('get /sources/{id}/parts', sourceId);
  await call('get /sources/{id}/slice', { ...sourceId, query: { from: 1, to: 20 } });
  const [clock] = (await call('get /hosts', {})).items;
  await call('get /live', { query: { q: 'error' } });
  await call('get /live/strands', {});
  await call('get /live/strands/{id}', id);

  // what people say
  const change = await call('post /changes', { body: { what: 'a switch was turned', at: to, environment } });
  await call('delete /changes/{id}', { params: { id: change.id } });
  const [code] = (await call('post /explanations', { body: { items: [{ code: 'LB-17', title: 'The oven is cold' }] } })).items;
  await call('delete /explanations/{id}', { params: { id: code!.id } });
  await call('post /faults/{id}/said', { ...fault, body: { state: 'in-hand', owner: 'Ada', note: 'looked at' } });
  await call('get /faults', { query: window });
  await call('delete /faults/{id}/said', fault);
  await call('post /faults/{id}/together', { ...fault, body: { other: found[1]!.id } });
  await call('delete /faults/{id}/hand', fault);
  await call('post /faults/{id}/parts', { ...fault, body: { words: 'that no error says' }, refused: 409 });
  const finding = (await call('get /strands/{id}', id)).findings[0]!;
  const cause = await call('post /known-causes', { body: { signature: finding.signature, was: true, remedy: 'wait', owner: 'Ada', strand: strand.id } }); // prettier-ignore
  await call('get /strands/{id}', id);
  await call('delete /known-causes/{id}', { params: { id: cause.id } });
  await call('post /own-packages', { body: { prefix: 'works.lens' } });
  await call('delete /own-packages', { query: { prefix: 'works.lens' } });
  await call('put /quiet-rules/{name}', { params: { name: 'pings' }, body: { name: 'pings', label: 'Pings', q: 'ping' } });
  await call('delete /quiet-rules/{name}', { params: { name: 'pings' } });
  await call('put /weights/{name}', { params: { name: 'ovens' }, body: { name: 'ovens', label: 'Ovens', q: 'oven', weight: 'grave' } });
  await call('delete /weights/{name}', { params: { name: 'ovens' } });
  if (departures[0]) await call('put /rounds/departures/noted', { body: { key: departures[0].key, state: 'in-hand', count: departures[0].count, of: departures[0].of, expected: departures[0].expected } }); // prettier-ignore
  await call('put /rounds/groups', { body: { flow: 'lens-order', group: 'Orders' } });
  await call('put /shapes/parameters', { body: { ...shape, place: 0, name: '' } });
  await call('put /shapes/hand', { body: { ...shape, text: 'a ‹› that nobody says', is: 'one' } });
  await call('put /shapes/said', { body: { ...shape, kind: 'new', note: 'expected' } });
  const saved = await call('post /saved', { body: { what: 'search', name: 'Mine', body: { about: '', address: { q: 'error' } } } });
  await call('put /saved/{id}', { params: { id: saved.id }, body: { what: 'search', name: 'Ours', shared: true, body: { about: '', address: {} } } });
  await call('delete /saved/{id}', { params: { id: saved.id } });
  const given = (await call('get /runbooks', {})).items[0]!.runbook;
  const runbook = await call('post /runbooks', { body: { ...given, name: 'mine', title: 'Mine' } as never });
  await call('put /runbooks/{id}', { params: { id: Number(runbook.id) }, body: { ...given, name: 'mine', title: 'Ours' } as never });
  const blanks = Object.fromEntries(given.blanks.map((one) => [one.name, one.usual === '' ? line.component : one.usual]));
  await call('post /runbooks/run', { body: { ...window, runbook: given, step: given.steps[0]!.name, blanks, earlier: {} } as never });
  await call('delete /runbooks/{id}', { params: { id: Number(runbook.id) } });
  const texts = new FormData();
  texts.append('file', new Blob(['one\ntwo\n']), 'oven.py');
  const text = await call('post /source-texts', { query: { component: 'oven', version: '1.0' }, body: texts } as never);
  await call('get /source-texts/{id}/lines', { params: { id: text.id }, query: { path: 'oven.py' } });
  await call('post /source-texts/places', { body: { component: 'oven', host: 'h', environment, at: to, logger: '', message: '', frames: [{ code: 'bake', unit: '', file: 'oven.py', line: 1 }] } }); // prettier-ignore
  await call('delete /source-texts/{id}', { params: { id: text.id } });

  // what is declared, and how it is read
  await call('post /sources/{id}/time-layout', { ...sourceId, body: { timeLayout: null } });
  await call('put /sources/{id}', { ...sourceId, body: { host: 'elsewhere' } });
  await readThrough();
  await call('put /sources', { body: { ids: [source.id], host: source.host } });
  await readThrough();
  await call('post /sources/{id}/again', { ...sourceId, refused: 409 });
  const kind = (await call('get /identifier-kinds', {})).items.find((one) => one.role === 'business')!;
  const flow = (await call('get /flows', {})).items.sort((a, b) => b.strands - a.strands)[0]!;
  await call('get /flows/{name}/usual', { params: { name: flow.name } });
  const own = { name: 'oven-batch', label: 'oven batch', role: 'shared', patterns: ['OV-\\d{6}'], fields: [] } as const;
  await call('post /identifier-kinds', { body: own as never });
  await call('put /identifier-kinds/{name}', { params: { name: own.name }, body: { ...own, label: 'batch of the oven' } as never });
  await call('put /flows/{name}', { params: { name: 'oven' }, body: { name: 'oven', label: 'oven', kind: kind.name } });
  await call('delete /flows/{name}', { params: { name: 'oven' } });
  await call('delete /identifier-kinds/{name}', { params: { name: own.name } });
  await call('put /meanings', { body: { items: [{ contains: 'the oven is cold', means: 'failed' }] } });
  await call('put /hosts/{id}', { params: { id: clock!.id }, body: { aheadMs: null } });

  // what comes in
  const file = new FormData();
  file.append('file', new Blob(['2026-11-24T10:00:00Z INFO one\n2026-11-24T10:00:01Z INFO two\n']), 'small.log');
  const brought = await call('post /imports', { query: { environment: 'else' }, body: file } as never);
  await call('get /imports/{id}', { params: { id: brought.id } });
  await call('delete /imports/{id}', { params: { id: brought.id } });
  const grown = join(system.folder, 'grown.log');
  await writeFile(grown, '2026-11-24T10:00:00Z INFO one\n');
  const followed = await call('post /follows', { body: { path: grown, environment: 'else' } });
  await call('get /follows', {});
  await call('delete /follows/{id}', { params: { id: followed.id } });
  await call('post /demo', {});
  await call('delete /demo', {});
  const [work] = (await call('get /work', { query: { state: 'done', limit: 1 } })).items;
  await call('get /work/{id}', { params: { id: work!.id } });
  await call('post /work/{id}/again', { params: { id: work!.id }, refused: 409 });
  await call('delete /work/{id}', { params: { id: work!.id }, refused: 409 });
  expect(faults).toEqual([]);
  expect(described.names.map((name) => name.replace('/api', '')).filter((name) => !asked.has(name))).toEqual([]);
}, 300_000);
