import { afterAll, beforeAll, describe, expect, test } from '@jest/globals';
import { mkdir, readFile, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import type { Contrasted, FieldValues, FoundPage, LogRecord, OriginalLines, Page, Problem, QuietRuleInfo, Saved, Timeline } from '@fadenweg/api';
import { call, filesBelow } from './client.ts';
import { wholeFound, wholeGroups, wholeTally } from './testing/parts.ts';
import { startSystem, type System } from './testing/system.ts';

let system: System;
const BEGIN = Date.UTC(2026, 10, 20, 8, 0, 0);
beforeAll(async () => {
  system = await startSystem();
  const root = join(system.folder, 'in');
  await mkdir(join(root, 'desk'), { recursive: true });
  await mkdir(join(root, 'gate'), { recursive: true });
  const line = (second: number, more: object): string =>
    JSON.stringify({ time: new Date(BEGIN + second * 1000).toISOString(), level: 'info', ...more });
  const desk: [number, object][] = [];
  const gate: [number, object][] = [];
  for (let i = 0; i < 60; i++) {
    gate.push([i * 30, { msg: `beat ${i}` }], [i * 30 + 1 + ((i * 7919) % 28), { msg: 'asked', path: i % 2 ? '/health' : `/orders/${i}` }]);
    const order = `LX-30${String(1000 + (i >> 1))}`;
    const bad = i % 10 === 9;
    desk.push([
      i * 29 + Math.floor((i * 7919) % 23),
      {
        msg: bad ? `order ${order} refused by rule` : `order ${order} taken`,
        level: bad ? 'error' : 'info',
        host: bad ? 'app-3' : `app-${i % 3}`,
        took: 10 + i,
        rows: i * i,
      },
    ]);
  }
  const text = (list: [number, object][]): string => list.sort(([a], [b]) => a - b).map(([second, more]) => line(second, more)).join('\n'); // prettier-ignore
  await writeFile(join(root, 'desk/desk.jsonl'), text(desk));
  await writeFile(join(root, 'gate/gate.jsonl'), text(gate));
  await send('POST', '/identifier-kinds', { name: 'order', label: 'order', role: 'business', patterns: ['LX-\\d{6}'], fields: [] });
  await system.bring(await filesBelow([root]));
}, 120_000);
afterAll(() => system.stop());

const send = <T>(method: string, path: string, body?: object): Promise<T> =>
  call<T>(`${system.url}/api${path}`, {
    method,
    headers: { 'content-type': 'application/json' },
    body: body && JSON.stringify(body),
  });
const refused = async (method: string, path: string, body?: object): Promise<Problem> => {
  const response = await fetch(`${system.url}/api${path}`, {
    method,
    headers: { 'content-type': 'application/json' },
    body: body && JSON.stringify(body),
  });
  return (await response.json()) as Problem;
};
const rules = async (): Promise<QuietRuleInfo[]> => (await system.get<Page<QuietRuleInfo>>('/quiet-rules')).items;
const found = (more: string): Promise<FoundPage> => wholeFound(system.get, `/records?limit=1000&order=oldest&${more}`);
const q = (text: string): string => `q=${encodeURIComponent(text)}`;

describe('quiet rules', () => {
  test('what recurs is learned from the import, and hidden with a count in its place', async () => {
    let beats: QuietRuleInfo | undefined;
    for (let i = 0; i < 100 && !beats?.q; i++) {
      beats = (await rules()).find((rule) => rule.name === 'heartbeats');
      if (!beats?.q) await new Promise((resolve) => setTimeout(resolve, 100));
    }
    expect(beats!.q).toBe("where level <= info and (component = gate and shape in ('beat ‹›'))");
    const all = await found('');
    const heard = await found('quiet=hide');
    expect(all.items).toHaveLength(180);
    expect(all.hidden.every((one) => one === 0)).toBe(true);
    const quiet = (one: LogRecord): boolean => one.message.startsWith('beat') || one.attributes.path === '/health';
    expect(heard.items.map((one) => one.id)).toEqual(all.items.filter((one) => !quiet(one)).map((one) => one.id));
    // taken along as it is listed, also where each record has to be looked at
    for (const [query, reversed] of [
      ['', false],
      ['order=latest', true],
      [`q=${encodeURIComponent("where message matches '.'")}`, false],
    ] as const) {
      const lines = (await (await fetch(`${system.url}/api/records/export?quiet=hide&${query}`)).text()).trim().split('\n');
      const ids = lines.map((line) => (JSON.parse(line) as LogRecord).id);
      expect(reversed ? ids.reverse() : ids).toEqual(heard.items.map((one) => one.id));
    }
    // each gap counts just what stands in it
    let at = 0;
    heard.items.forEach((one, i) => {
      const place = all.items.findIndex((other) => other.id === one.id);
      expect([one.id, heard.hidden[i]]).toEqual([one.id, place - at]);
      at = place + 1;
    });
    expect(heard.hiddenAfter).toBe(180 - at);
  });

  test.each([
    'LX-301007',
    "where message matches 'LX-30100[1-5]'",
    "where order in ('LX-301001', 'LX-301004')",
    'where order is not null and rows > 100',
    "where outcome = failed or path = '/orders/4'",
    "where flow is null and not message like 'beat%'",
    "where shape matches 'taken' and host = app-1",
    'where took > 40ms and level = info',
    "where path like '/ord%' or took < 15ms",
    "where message = 'nothing like it'",
  ])('what is taken along is what is found: %s', async (text) => {
    for (const quiet of ['hide', 'show']) {
      const ids = (await found(`quiet=${quiet}&${q(text)}`)).items.map((one) => one.id);
      const lines = (await (await fetch(`${system.url}/api/records/export?quiet=${quiet}&${q(text)}`)).text()).split('\n').slice(0, -1);
      expect(lines.map((line) => (JSON.parse(line) as LogRecord).id)).toEqual(ids);
      expect(ids.length > 0).toBe(!text.includes('nothing'));
      expect(ids.length).toBeLessThan(180);
    }
  });

  test.each<[string, (one: LogRecord) => boolean]>([
    ["message matches 'refused|beat 5[0-9]$'", ({ message }) => /refused|beat 5[0-9]$/.test(message)],
    ["message matches '(?i)TAKEN|Asked'", ({ message }) => /taken|asked/i.test(message)],
    ["message matches '(?i)K'", ({ message }) => /k/i.test(message)],
    ["message like 'order%1_ t%'", ({ message }) => /^order.*1. t/.test(message)],
    ["path matches '^/(orders/[12]|health)'", ({ attributes }) => /^\/(orders\/[12]|health)/.test(String(attributes.path ?? ''))],
    ["path like '%/_4'", ({ attributes }) => /\/.4$/.test(String(attributes.path ?? ''))],
    ["order matches '101[0-9]$'", ({ identifiers }) => identifiers.some(({ kind, value }) => kind === 'order' && /101[0-9]$/.test(value))],
    ["not message matches 'beat|asked'", ({ message }) => !/beat|asked/.test(message)],
    ["rows matches '^[0-9]{2}6$'", ({ attributes }) => /^[0-9]{2}6$/.test(String(attributes.rows ?? ''))],
    ['outcome = done', ({ outcome }) => outcome === 'done'],
    ['outcome <> done', ({ outcome }) => outcome !== 'done'],
    ['outcome <> failed and level = info', ({ outcome, level }) => outcome !== 'failed' && level === 'info'],
    ['outcome = failed or outcome = refused', ({ outcome }) => outcome === 'failed' || outcome === 'refused'],
    ["flow <> nowhere and message matches 'taken'", ({ message }) => /taken/.test(message)],
  ])('a condition finds what it fits: %s', async (condition, fits) => {
    const wanted = (await found('')).items.filter(fits).map((one) => one.id);
    expect((await found(q(`where ${condition}`))).items.map((one) => one.id)).toEqual(wanted);
    expect(wanted.length).toBeGreaterThan(0);
  });

  test('the tally, the values and the groups leave them out too, and count them by rule', async () => {
    const part = await wholeTally(system.get, '/records/tally?quiet=hide&from=2026-11-20T08:00:00Z&to=2026-11-20T09:00:00Z&slotMs=600000');
    expect(part).toMatchObject({ total: 90, hidden: { heartbeats: 60, 'health-checks': 30 } });
    const values = await system.get<Page<FieldValues>>('/records/values?quiet=hide&fields=component,shape');
    expect(values.items[0]!.values).toEqual([
      { value: 'desk', count: 60 },
      { value: 'gate', count: 30 },
    ]);
    expect(values.items[1]!.values.map((one) => one.value)).toEqual(['order ‹› taken', 'asked', 'order ‹› refused by rule']);
    const groups = await wholeGroups(system.get, '/records/groups?quiet=hide&by=component');
    expect(groups).toMatchObject({ total: 90, without: 0, hidden: { heartbeats: 60, 'health-checks': 30 }, next: null });
  });

  test('a rule of one’s own is made, turned off, and taken away; a supplied one is only turned off', async () => {
    const rule = { name: 'taken', label: 'Orders taken', why: '', q: "where component = desk and shape = 'order ‹› taken'", on: true };
    await send('PUT', '/quiet-rules/taken', rule);
    expect((await found('quiet=hide')).items).toHaveLength(36);
    await send('PUT', '/quiet-rules/taken', { ...rule, on: false });
    expect((await found('quiet=hide')).items).toHaveLength(90);
    await send('DELETE', '/quiet-rules/taken');
    const health = (await rules()).find((one) => one.name === 'health-checks')!;
    const body = { name: health.name, label: 'changed', why: health.why, q: 'where level = info', on: false };
    await send('PUT', '/quiet-rules/health-checks', body);
    expect((await rules()).find((one) => one.name === 'health-checks')).toEqual({ ...health, on: false, changedBy: 'local administrator' });
    expect((await found('quiet=hide')).items).toHaveLength(120);
    await send('PUT', '/quiet-rules/health-checks', { ...body, on: true });
    expect(await refused('DELETE', '/quiet-rules/health-checks')).toMatchObject({ status: 404 });
  });

  test('a rule that cannot be read, or would hide everything, is refused', async () => {
    const rule = { name: 'bad', label: 'Bad', why: '', on: true };
    expect(await refused('PUT', '/quiet-rules/bad', { ...rule, q: 'where a == 1' })).toMatchObject({ status: 400, action: 'where a = 1' });
    expect(await refused('PUT', '/quiet-rules/bad', { ...rule, q: '' })).toMatchObject({ status: 400, title: 'The rule hides everything' });
    expect(await refused('PUT', '/quiet-rules/other', { ...rule, q: 'x' })).toMatchObject({ status: 400, title: 'Two names' });
    expect((await rules()).some((one) => one.name === 'bad')).toBe(false);
  });
});

describe('groups, distributions and what tells a value from the others', () => {
  test('a result as strands, each with how much of it was found', async () => {
    const { groups, strands, without, total } = await wholeGroups(system.get, `/records/groups?by=strand&${q('order')}`);
    expect(total).toBe(60);
    expect(without).toBe(0);
    expect(groups).toHaveLength(30);
    expect(groups.every((one) => one.count === 2 && one.firstAt < one.lastAt)).toBe(true);
    expect(new Set(strands.map((one) => one.id))).toEqual(new Set(groups.map((one) => one.value)));
    const [, last] = (await found(q(strands[0]!.name))).items;
    expect(groups.find((one) => one.value === strands[0]!.id)).toMatchObject({ record: last!.id, lastAt: last!.at });
  });
  test('a result by a field and by shape', async () => {
    const hosts = await wholeGroups(system.get, '/records/groups?by=host');
    expect(hosts.without).toBe(120);
    expect(hosts.groups.reduce((sum, one) => sum + one.count, 0)).toBe(60);
    const levels = await wholeGroups(system.get, `/records/groups?by=level&${q('order')}`);
    expect(levels.groups.map(({ value, count }) => [value, count]).sort()).toEqual([['error', 6], ['info', 54]]); // prettier-ignore
  });
  test('numbers come with their distribution', async () => {
    const { items } = await system.get<Page<FieldValues>>('/records/values?limit=5&fields=rows,took,host');
    expect(items[0]!.numbers).toMatchObject({ count: 60, min: 0, max: 3481, p50: 841 });
    expect(items[1]!.numbers).toMatchObject({ count: 60, min: 10, max: 69 });
    expect(items[2]!.numbers).toBeNull();
  });
  test('what tells errors from all others', async () => {
    const answer = await system.get<Contrasted>(`/records/against?field=level&value=error&${q('order')}`);
    expect(answer).toMatchObject({ inside: 6, outside: 54, complete: true });
    expect(answer.items.slice(0, 3).map((one) => one.value)).toEqual(expect.arrayContaining(['app-3', 'order ‹› refused by rule']));
    expect(answer.items.find((one) => one.value === 'app-3')).toMatchObject({ field: 'host', inside: 6, outside: 0 });
  });
});

describe('chosen sources', () => {
  test('only some, or all but some, in records and in the sums by minute', async () => {
    const { items } = await system.get<Page<{ id: number; component: string }>>('/sources');
    const gate = items.find((one) => one.component === 'gate')!.id;
    expect((await found(`sources=${gate}`)).items.every((one) => one.component === 'gate')).toBe(true);
    expect((await found(`withoutSources=${gate}`)).items).toHaveLength(60);
    const sum = async (more: string): Promise<number> => {
      const { slots } = await system.get<Timeline>(`/records/timeline?from=2026-11-20T08:00:00Z&to=2026-11-20T09:00:00Z&${more}`);
      return slots.reduce((all, slot) => all + Object.values(slot.counts).reduce((one, other) => one + other, 0), 0);
    };
    expect(await sum('')).toBe(180);
    expect(await sum(`sources=${gate}`)).toBe(120);
    expect(await sum(`withoutSources=${gate}&environment=production`)).toBe(60);
    expect(await sum('environment=elsewhere')).toBe(0);
    expect(await refused('GET', `/records?sources=${gate}&withoutSources=${gate}`)).toMatchObject({ status: 400 });
    expect(await refused('GET', '/records?sources=1;drop')).toMatchObject({ status: 400 });
  });
});

describe('the original', () => {
  const sourceOf = async (component: string): Promise<number> =>
    (await system.get<Page<{ id: number; component: string }>>('/sources')).items.find((one) => one.component === component)!.id;
  const written = async (name: string): Promise<string[]> => (await readFile(join(system.folder, `in/${name}`), 'utf8')).split('\n');

  test('lines of a file as they were written, from anywhere', async () => {
    const lines = await written('gate/gate.jsonl');
    const id = await sourceOf('gate');
    const all = await system.get<OriginalLines>(`/sources/${id}/original?count=1000`);
    expect(all).toMatchObject({ from: 1, component: 'gate', encoding: 'utf-8', lines });
    expect((await system.get<OriginalLines>(`/sources/${id}/original?from=100&count=5`)).lines).toEqual(lines.slice(99, 104));
    expect((await system.get<OriginalLines>(`/sources/${id}/original?from=999`)).lines).toEqual([]);
  });
  test('a slice is downloaded byte for byte', async () => {
    const lines = await written('gate/gate.jsonl');
    const response = await fetch(`${system.url}/api/sources/${await sourceOf('gate')}/slice?from=3&to=7`);
    expect(response.headers.get('content-disposition')).toBe('attachment; filename="3-7-gate.jsonl"');
    expect(await response.text()).toBe(`${lines.slice(2, 7).join('\n')}\n`);
    expect(await refused('GET', '/sources/1/slice?from=7&to=3')).toMatchObject({ status: 400 });
    expect(await refused('GET', '/sources/99999/original')).toMatchObject({ status: 404 });
  });
  test('over the borders of kept blocks, in UTF-16 too', async () => {
    const text = Array.from({ length: 9000 }, (_, i) => `2026-11-21 08:00:00,${String(i % 1000).padStart(3, '0')} INFO  [x] o.b.Wide - line ${i} größer \u0a0a`).join('\n'); // prettier-ignore
    await mkdir(join(system.folder, 'wide'), { recursive: true });
    await writeFile(join(system.folder, 'wide/wide.log'), Buffer.concat([Buffer.from([0xff, 0xfe]), Buffer.from(text, 'utf16le')]));
    await system.bring(await filesBelow([join(system.folder, 'wide')]));
    const { items } = await system.get<Page<{ id: number; path: string }>>('/sources');
    const id = items.find((one) => one.path.endsWith('wide.log'))!.id;
    const lines = text.split('\n');
    for (const from of [2, 2500, 4444, 8990]) expect((await system.get<OriginalLines>(`/sources/${id}/original?from=${from}&count=900`)).lines).toEqual(lines.slice(from - 1, from + 899)); // prettier-ignore
    const bytes = Buffer.from(await (await fetch(`${system.url}/api/sources/${id}/slice?from=2&to=9000`)).arrayBuffer());
    expect(bytes.toString('utf16le')).toBe(lines.slice(1).join('\n'));
  });
});

describe('what is saved', () => {
  const body = { what: 'search', name: 'Mine', shared: false, body: { about: 'why', address: { q: 'lock', w: 'hour' } } };
  test('a search is kept, renamed and forgotten', async () => {
    const kept = await send<Saved>('POST', '/saved', body);
    expect(kept).toMatchObject({ ...body, supplied: false, owner: 'local administrator' });
    expect(await send('PUT', `/saved/${kept.id}`, { ...body, name: 'Ours', shared: true })).toMatchObject({
      id: kept.id,
      name: 'Ours',
      shared: true,
    });
    await send('DELETE', `/saved/${kept.id}`);
    expect(await refused('DELETE', `/saved/${kept.id}`)).toMatchObject({ status: 404 });
  });
  test('supplied searches and column sets are there, and stay as they are', async () => {
    const searches = (await system.get<Page<Saved>>('/saved?what=search')).items;
    const columns = (await system.get<Page<Saved>>('/saved?what=columns')).items;
    expect(searches.length).toBeGreaterThan(3);
    expect(columns.map((one) => one.name)).toEqual(['Auditor', 'Database', 'Developer', 'Help desk', 'Integration', 'Operator', 'Telephony']);
    expect(await refused('DELETE', `/saved/${columns[0]!.id}`)).toMatchObject({ status: 409 });
    for (const one of searches) if ('address' in one.body) expect((await found(q(one.body.address.q ?? ''))).items).toBeDefined();
  });
  test('what cannot be restored is refused', async () => {
    expect(await refused('POST', '/saved', { ...body, body: { address: { javascript: 'x' } } })).toMatchObject({ status: 400 });
    expect(await refused('POST', '/saved', { ...body, what: 'columns', body: { columns: [] } })).toMatchObject({ status: 400 });
    expect(
      await refused('POST', '/saved', { ...body, what: 'columns', body: { columns: [{ field: 'took', width: 80 }], rank: 'took.sideways' } }),
    ).toMatchObject({ status: 400 });
    expect(await refused('PUT', '/saved/999999', body)).toMatchObject({ status: 404 });
  });
});
