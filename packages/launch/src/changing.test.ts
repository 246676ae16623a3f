import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { mkdir, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import type {
  Change,
  Flow,
  ImportInfo,
  KeptCode,
  KnownCause,
  KnownState,
  LogRecord,
  Page,
  RecordInFull,
  SourceInfo,
  Strand,
  StrandSummary,
  Summary,
} from '@fadenweg/api';
import { call, filesBelow } from './client.ts';
import { declare } from './demo-data.ts';
import { asReceived, membersOf, problemsOfXes } from './testing/standards.ts';
import { connect } from '../../server/src/database/connect.ts';
import { RecordRepository } from '../../server/src/evidence/records.ts';
import { startSystem, type System } from './testing/system.ts';

let system: System;
let brought: ImportInfo;
const BEGIN = Date.UTC(2026, 10, 20, 8);
const MINUTE = 60_000;
const CHANGED = 120;
const send = <T>(method: string, path: string, body?: unknown): Promise<T> =>
  call<T>(`${system.url}/api${path}`, {
    method,
    ...(body === undefined ? {} : { headers: { 'content-type': 'application/json' }, body: JSON.stringify(body) }),
  });
const failing = (minute: number): boolean => minute > CHANGED && minute % 2 === 0;
const order = (minute: number): string => `LX-${300_000 + minute}`;

/** An order a minute; from one version on every second one fails. Beside them a service that comes up every few minutes. */
beforeAll(async () => {
  system = await startSystem();
  await declare(system.url, {
    kinds: [{ name: 'order', label: 'order', role: 'business', patterns: ['LX-\\d{6}'], fields: [] }] as never,
    flows: [{ name: 'order', label: 'order', kind: 'order', prefix: 'LX-', patienceMs: 60_000, expects: [] }] as never,
    meanings: [{ component: null, contains: 'shipped', means: 'done' }],
  });
  // of the store the log of a few minutes is missing; three orders came to no end
  const packed: [number, string, string][] = [];
  const lost = new Set([111, 113, 201]);
  const lines: [number, string, string][] = [[-1, 'info', 'desk 7.1 started, 4 routes']];
  for (let minute = 0; minute < 240; minute++) {
    lines.push([minute, 'info', `order ${order(minute)} taken`]);
    if (!lost.has(minute) && (minute < 110 || minute > 114)) packed.push([minute + 0.05, 'info', `${order(minute)} packed`]);
    if (!lost.has(minute))
      lines.push([
        minute + 0.1,
        failing(minute) ? 'error' : 'info',
        failing(minute) ? `parcel of ${order(minute)} failed` : `${order(minute)} shipped`,
      ]);
    if (minute % 5 === 0) lines.push([minute + 0.3, 'info', `desk worker ${minute} started`]);
  }
  lines.push([CHANGED - 0.5, 'info', 'desk 7.1 stopping']);
  lines.push([CHANGED, 'info', 'desk 7.2 started, 4 routes']);
  lines.push([150.2, 'info', 'parameter "parcel.limit" changed to "30"']);
  const written = async (path: string, list: [number, string, string][]): Promise<void> => {
    const text = list
      .sort((a, b) => a[0] - b[0])
      .map(([minute, level, msg]) => JSON.stringify({ time: new Date(BEGIN + minute * MINUTE).toISOString(), level, msg }))
      .join('\n');
    await mkdir(join(root, path, '..'), { recursive: true });
    await writeFile(join(root, path), text);
  };
  const root = join(system.folder, 'in');
  await written('desk/desk.jsonl', lines);
  await written('store/store-1.jsonl', packed.filter(([minute]) => minute < 110)); // prettier-ignore
  await written('store/store-2.jsonl', packed.filter(([minute]) => minute > 114)); // prettier-ignore
  brought = await system.bring(await filesBelow([root]));
}, 120_000);
afterAll(() => system.stop());
const at = (minute: number): string => new Date(BEGIN + minute * MINUTE).toISOString();

describe('what changed', () => {
  test('versions and settings are read from records; what comes up all day is left out', async () => {
    const { items } = await system.get<Page<Change>>('/changes');
    expect(items.map((one) => `${one.kind}: ${one.words}`)).toEqual([
      'start: desk started in version 7.1',
      'version: desk is version 7.2 instead of 7.1',
      'setting: desk: parcel.limit changed to 30',
    ]);
    expect(Date.parse(items[1]!.at)).toBe(BEGIN + CHANGED * MINUTE);
    expect((await system.get<{ message: string }>(`/records/${items[1]!.record}`)).message).toBe('desk 7.2 started, 4 routes');
    const some = await system.get<Page<Change>>(`/changes?from=${at(130)}&component=desk`);
    expect(some.items.map((one) => one.kind)).toEqual(['setting']);
    expect((await system.get<Page<Change>>('/changes?component=store')).items).toEqual([]);
  });

  test('pages by key', async () => {
    const first = await system.get<Page<Change>>('/changes?limit=2');
    const second = await system.get<Page<Change>>(`/changes?limit=2&after=${encodeURIComponent(first.next!)}`);
    expect([...first.items, ...second.items].map((one) => one.kind)).toEqual(['start', 'version', 'setting']);
    expect(second.next).toBeNull();
    await expect(system.get('/changes?after=nonsense')).rejects.toThrow(/no place/);
  });

  test('what was last known at an instant', async () => {
    const known = async (minute: number): Promise<string[]> =>
      (await system.get<Page<KnownState>>(`/changes/states?at=${at(minute)}`)).items.map((one) => `${one.subject} ${one.value}`);
    expect(await known(100)).toEqual(['running yes', 'version 7.1']);
    expect(await known(200)).toEqual(['parcel.limit 30', 'running yes', 'version 7.2']);
    expect(await known(-10)).toEqual([]);
  });

  test('a finding names the change with which it began, and how much likelier it is since', async () => {
    const { findings } = await system.get<Strand>(`/strands/order:${order(200)}`);
    expect(findings[0]!.nearestChange).toMatchObject({
      kind: 'version',
      words: 'desk is version 7.2 instead of 7.1',
      sure: true,
      before: { alike: 0, all: 120 },
    });
    expect(findings[0]!.nearestChange!.since).toEqual({ alike: 59, all: 120 });
    expect(findings[0]!.nearestChange!.likelier!).toBeGreaterThan(50);
  });

  test('one is registered by command or call, named by findings, and taken back', async () => {
    const made = await send<Change>('POST', '/changes', { what: 'cables of the hall exchanged', component: 'desk', at: at(199) });
    expect(made).toMatchObject({ kind: 'registered', by: 'local administrator', words: 'cables of the hall exchanged', record: null });
    expect((await system.get<Page<Change>>(`/changes?from=${at(180)}`)).items).toHaveLength(1);
    // without an environment it concerns each; with one, that alone
    expect((await system.get<Page<Change>>(`/changes?from=${at(180)}&environment=production`)).items).toEqual([made]);
    const elsewhere = await send<Change>('POST', '/changes', { what: 'cables elsewhere', environment: 'trial', at: at(199) });
    expect((await system.get<Page<Change>>(`/changes?from=${at(180)}&environment=production`)).items).toEqual([made]);
    await send('DELETE', `/changes/${elsewhere.id}`);
    await send('DELETE', `/changes/${made.id}`);
    expect((await system.get<Page<Change>>(`/changes?from=${at(180)}`)).items).toHaveLength(0);
    await expect(send('DELETE', `/changes/${made.id}`)).rejects.toThrow(/Not found/);
    const [told] = (await system.get<Page<Change>>('/changes')).items;
    await expect(send('DELETE', `/changes/${encodeURIComponent(told!.id)}`)).rejects.toThrow(/A record tells of it/);
    await expect(send('POST', '/changes', { what: ' ' })).rejects.toThrow(/not as it should be/);
    await expect(send('POST', '/changes', { what: 'x', at: 'yesterday' })).rejects.toThrow(/not as it should be/);
  });
});

test('what went on where a log is missing is out of sight; what nobody said anything of is stalled', async () => {
  const outcome = async (minute: number): Promise<string> => {
    const { outcome, findings } = await system.get<Strand>(`/strands/order:${order(minute)}`);
    return `${outcome}: ${findings[0]!.missingNext}`;
  };
  expect(await outcome(111)).toBe('out-of-sight: store');
  expect(await outcome(201)).toBe('stalled: store');
  const { items } = await system.get<Page<StrandSummary>>('/strands?outcome=out-of-sight&sort=started');
  expect(items.map((one) => one.name)).toEqual([order(111), order(113)]);
  expect(items[0]!.headline).toMatch(/^Out of sight after desk: .*Usually store speaks next, but our evidence of it has a hole/);
});

describe('what was found out', () => {
  test('is kept for all findings that are alike', async () => {
    const id = `order:${order(200)}`;
    const { findings } = await system.get<Strand>(`/strands/${id}`);
    const kept = await send<KnownCause>('POST', '/known-causes', {
      signature: findings[0]!.signature,
      was: true,
      remedy: 'back to 7.1',
      owner: 'parcels',
      strand: id,
    });
    const other = await system.get<Strand>(`/strands/order:${order(210)}`);
    expect(other.findings[0]!.known).toEqual([kept]);
    await send('DELETE', `/known-causes/${kept.id}`);
    expect((await system.get<Strand>(`/strands/order:${order(210)}`)).findings[0]!.known).toEqual([]);
    await expect(send('DELETE', `/known-causes/${kept.id}`)).rejects.toThrow(/Not found/);
  });
});

test('codes in a record are explained, one’s own before those of standards', async () => {
  const [found] = (await system.get<Page<LogRecord>>(`/records?limit=1&q=${encodeURIComponent("'LX-300004 packed'")}`)).items;
  const codes = async (): Promise<string[]> =>
    (await system.get<RecordInFull>(`/records/${found!.id}`)).codes.map((one) => `${one.system} ${one.title}`);
  expect(await codes()).toEqual([]);
  const own = { code: 'packed', component: 'store', title: 'it lies on the ramp', means: 'the carrier may come', causes: '', next: '' };
  const { items } = await send<Page<KeptCode>>('POST', '/explanations', { items: [own] });
  expect(items).toMatchObject([{ ...own, changedBy: 'local administrator' }]);
  expect(await codes()).toEqual(['own it lies on the ramp']);
  // the list itself can be brought in again
  const again = await send<Page<KeptCode>>('POST', '/explanations', { items: items.map((one) => ({ ...one, title: 'on the ramp' })), next: null });
  expect(again.items).toMatchObject([{ id: items[0]!.id, title: 'on the ramp' }]);
  await send('DELETE', `/explanations/${items[0]!.id}`);
  expect(await codes()).toEqual([]);
  await expect(send('POST', '/explanations', { items: [{ code: 'x' }] })).rejects.toThrow(/not as it should be/);
});

test('strands are listed by what their records say', async () => {
  const found = async (q: string, more = ''): Promise<string[]> =>
    (await system.get<Page<StrandSummary>>(`/strands?sort=started&limit=500&q=${encodeURIComponent(q)}${more}`)).items.map((one) => one.name);
  const failed = (await system.get<Page<StrandSummary>>('/strands?sort=started&limit=500&outcome=failed')).items.map((one) => one.name);
  expect(await found('where level = error')).toEqual(failed);
  expect(await found("'LX-300004 packed'")).toEqual([order(4)]);
  expect(await found('where level = error', '&outcome=done')).toEqual([]);
  expect(await found('nowhere')).toEqual([]);
  await expect(found('where (')).rejects.toThrow(/not understood/);
});

describe('taken along', () => {
  const text = async (path: string): Promise<string> => (await fetch(`${system.url}/api${path}`)).text();

  test('strands as CSV, OTLP and XES are those of the list', async () => {
    const { items } = await system.get<Page<StrandSummary>>('/strands?limit=500&sort=started');
    const csv = (await text('/strands/export?format=csv')).trim().split('\r\n');
    expect(csv[0]).toMatch(/^id,flow,businessId,name,outcome,/);
    expect(csv.slice(1).map((line) => line.split(',')[2])).toEqual(items.map((one) => one.name));
    const traces = (await text('/strands/export?format=otlp&outcome=failed')).trim().split('\n').map((line) => JSON.parse(line) as object); // prettier-ignore
    expect(traces).toHaveLength(items.filter((one) => one.outcome === 'failed').length);
    const xes = await text('/strands/export?format=xes&outcome=failed,out-of-sight');
    expect(xes.match(/<trace>/g)).toHaveLength(traces.length + 2);
    expect(xes.endsWith('</log>\n')).toBe(true);
    expect(await problemsOfXes(xes)).toEqual([]);
    expect(await problemsOfXes(xes.replace('<event>', '<event><string key="no value"/>'))).not.toEqual([]);
    // nothing of it is unknown to a receiver, or understood otherwise
    for (const trace of traces.slice(0, 20)) expect(membersOf(asReceived('trace', trace))).toEqual(membersOf(trace));
    expect(() => asReceived('trace', { resourceSpans: [{ scopeSpans: [{ spans: 'none' }] }] })).toThrow('array expected');
    expect((await fetch(`${system.url}/api/strands/export?format=pdf`)).status).toBe(400);
  });

  test('strands are looked up each by itself only where little of what was written meanwhile is theirs', async () => {
    const db = connect(system.postgres.url);
    try {
      const { records, from, to } = await system.get<Summary>('/summary');
      const [first, last] = [from!, to!].map((at) => Date.parse(at) * 1000) as [number, number];
      const areDense = (own: number): Promise<boolean> =>
        new RecordRepository(db).areDense([{ founder: 0, ties: [], from: first, to: last, records: own }]);
      expect(await areDense(records)).toBe(true);
      expect(await areDense(Math.ceil(records / 10) + 1)).toBe(true);
      expect(await areDense(Math.floor(records / 12))).toBe(false);
    } finally {
      await db.destroy();
    }
  });

  test('all records, each as the list tells it, whatever stands in it', async () => {
    const folder = join(system.folder, 'odd');
    await mkdir(folder, { recursive: true });
    const odd = [
      '"said" the mill, \\ and ‹ü 𝄞›',
      '=1+1',
      '-x of it',
      '-7 degrees',
      "it's \\' of ? it",
      'tab\there',
      'thrown\n\tat mill.Stone.turn(Stone.java:9)\n\n\tat mill.Run.go(Run.java:3)',
    ];
    await writeFile(join(folder, 'mill.log'), odd.map((text, i) => `2026-03-01T10:00:0${i}Z INFO mill ${text}\n`).join(''));
    const info = await system.bring(await filesBelow([folder]), { environment: 'odd' });
    const listed: LogRecord[] = [];
    for (let after: string | null = ''; after !== null;) {
      const page: Page<LogRecord> = await system.get(`/records?order=oldest&limit=1000${after === '' ? '' : `&after=${after}`}`);
      listed.push(...page.items);
      after = page.next;
    }
    expect(listed.filter((one) => one.environment === 'odd')).toHaveLength(odd.length);
    const lines = async (query: string): Promise<LogRecord[]> => (await text(`/records/export?${query}`)).trimEnd().split('\n').map((line) => JSON.parse(line) as LogRecord); // prettier-ignore
    expect(await lines('')).toEqual(listed);
    expect(await lines('order=latest')).toEqual([...listed].reverse());
    expect(await lines('environment=odd&q=mill')).toEqual(listed.filter((one) => one.environment === 'odd'));
    // what the database finds alone, and what is looked at record by record, values with quotes, backslashes and question marks among it
    for (const [q, found] of [
      ["'it''s \\'' of ?'", 1],
      ["where message like '%it''s %' or level = debug", 1],
      ['mill where not level = error', odd.length],
    ] as const) {
      const alone = await lines(`environment=odd&q=${encodeURIComponent(q)}`);
      expect(alone).toHaveLength(found);
      const looked = q.includes('where') ? q.replace('where ', "where message matches '.' and (") + ')' : `${q} where message matches '.'`;
      expect(await lines(`environment=odd&q=${encodeURIComponent(looked)}`)).toEqual(alone);
    }
    // read by rules of its own: quotes doubled, line ends within quotes
    const csv = (await text('/records/export?format=csv&environment=odd')).trimEnd();
    const cells = csv.match(/"(?:[^"]|"")*"|[^",\r\n]+/g)!;
    const messages = cells.filter((one) => one.startsWith('"')).map((one) => one.slice(1, -1).replaceAll('""', '"'));
    for (const { message } of listed.filter((one) => one.environment === 'odd'))
      expect(messages).toContain(/^[=+@\t\r]|^-(?!\d)/.test(message) ? `'${message}` : message);
    await send('DELETE', `/imports/${info.id}`);
    for (let i = 0; i < 200 && (await system.get<Page<SourceInfo>>('/sources')).items.length > 3; i++)
      await new Promise((resolve) => setTimeout(resolve, 50));
  });

  test('records of a search, and what was taken along is read again as it was', async () => {
    const wanted = encodeURIComponent("packed where component = 'store'");
    const lines = (await text(`/records/export?q=${wanted}`)).trim().split('\n').map((line) => JSON.parse(line) as LogRecord); // prettier-ignore
    expect(lines.length).toBe(240 - 3 - 3);
    expect(lines.map((one) => one.at)).toEqual([...lines.map((one) => one.at)].sort());
    const csv = (await text(`/records/export?format=csv&order=latest&q=${wanted}`)).trim().split('\r\n');
    expect(csv).toHaveLength(lines.length + 1);
    expect(csv[1]).toContain(lines.at(-1)!.message);
    expect((await fetch(`${system.url}/api/records/export?q=${encodeURIComponent('where (')}`)).status).toBe(400);
    for (const request of (await text(`/records/export?format=otlp&q=${wanted}`)).trim().split('\n').map((line) => JSON.parse(line) as object))
      expect(membersOf(asReceived('logs', request))).toEqual(membersOf(request)); // prettier-ignore
    // the application itself takes what it gave
    const folder = join(system.folder, 'again');
    await mkdir(folder, { recursive: true });
    await writeFile(join(folder, 'traces.otlp.jsonl'), await text('/strands/export?format=otlp&outcome=failed'));
    await writeFile(join(folder, 'strands.xes'), await text('/strands/export?format=xes&outcome=failed'));
    await writeFile(join(folder, 'logs.otlp.jsonl'), await text(`/records/export?format=otlp&q=${wanted}`));
    const info = await system.bring(await filesBelow([folder]), { environment: 'again' });
    expect(info).toMatchObject({ files: 3, keptWhole: 0, errors: [] });
    expect(info.records).toBeGreaterThan(59 * 4 + lines.length);
    await send('DELETE', `/imports/${info.id}`);
    for (let i = 0; i < 200 && (await system.get<Page<SourceInfo>>('/sources')).items.length > 3; i++)
      await new Promise((resolve) => setTimeout(resolve, 50));
  });
});

test('a step that is declared to follow counts before what is learned, and within its time', async () => {
  const [flow] = (await system.get<Page<Flow>>('/flows')).items;
  const { legs: _legs, usualMs: _usualMs, strands: _strands, ...declared } = flow!;
  const outcomes = async (): Promise<Record<string, number>> =>
    Object.fromEntries((await system.get<Page<{ outcome: string; count: number }>>('/strands/counts')).items.map((one) => [one.outcome, one.count]));
  const until = async (outcome: string, count: number): Promise<void> => {
    for (const end = Date.now() + 20_000; (await outcomes())[outcome] !== count && Date.now() < end;)
      await new Promise((resolve) => setTimeout(resolve, 50));
    expect((await outcomes())[outcome]).toBe(count);
  };
  const { done, stalled } = await outcomes();
  expect(stalled).toBe(1);
  // it is 3 s until an order is packed
  const packedWithin = (withinMs: number) => send('PUT', '/flows/order', { ...declared, must: [{ component: 'store', words: 'packed', withinMs }] });
  await packedWithin(1000);
  await until('slow', done! - 3);
  const { findings } = await system.get<Strand>(`/strands/order:${order(5)}`);
  expect(findings[0]!.sentence).toMatch(/^Slow in store, .*“LX-300005 packed” came 3\.00 s after its begin; it has to come within 1\.00 s\.$/);
  expect((await system.get<Strand>(`/strands/order:${order(201)}`)).findings[0]!.sentence).toMatch(/^Never came to store’s “packed”/);
  await packedWithin(10_000);
  await until('done', done!);
  await send('PUT', '/flows/order', { ...declared, path: ['desk'] });
  await until('odd', done! - 3);
  expect((await system.get<Strand>(`/strands/order:${order(5)}`)).findings[0]).toMatchObject({ kind: 'went-astray', component: 'store' });
  await expect(send('PUT', '/flows/order', { ...declared, must: [{ words: 'x' }] })).rejects.toThrow(/not as it should be/);
  await send('PUT', '/flows/order', declared);
  await until('done', done!);
});

test('what is taken out tells of no change any more', async () => {
  await send('DELETE', `/imports/${brought.id}`);
  for (let i = 0; i < 100 && (await system.get<Page<Change>>('/changes')).items.length > 0; i++)
    await new Promise((resolve) => setTimeout(resolve, 100));
  expect((await system.get<Page<Change>>('/changes')).items).toEqual([]);
});
