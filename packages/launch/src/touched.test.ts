import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { mkdir, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import type { DataSet, DataSetHistory, Page, StrandData, StrandSummary } from '@fadenweg/api';
import { filesBelow } from './client.ts';
import { declare } from './demo-data.ts';
import { startSystem, type System } from './testing/system.ts';

/** Runs that hand data on: a list that is loaded each hour, an export that needs it, and one run whose input is that of the hour before. */
let system: System;
const KEEP = { case: 'keep', separators: 'keep', leadingZeros: 'keep', phone: false };
const at = (hour: number, second: number): string => new Date(Date.UTC(2026, 10, 24, hour, 0, second)).toISOString();
const HOURS = 10;
/** Its input is that of the run before; its statement fails. */
const [SAME, BROKEN] = [8, 5];
const window = 'from=2026-11-24T00:00:00Z&to=2026-11-25T00:00:00Z&environment=production&zone=UTC';

function world(): string {
  const lines: string[] = [];
  const say = (hour: number, second: number, run: string, level: string, text: string): void =>
    void lines.push(`${at(hour, second)} [${run}] ${level} ${text}`);
  for (let hour = 0; hour < HOURS; hour++) {
    const [load, out] = [`LD-${100 + hour}`, `EX-${100 + hour}`];
    const file = `weather_202611240${hour === SAME ? hour - 1 : hour}00.csv`;
    say(hour, 1, load, 'INFO', `started, input=${file} size=6547`);
    say(hour, 3, load, 'INFO', 'statement: insert into forecast (hut, day) select hut, day from forecast_stage');
    if (hour === BROKEN) say(hour, 4, load, 'ERROR', 'statement: update forecast set day = day + 1 failed: deadlock detected');
    say(hour, 5, load, 'INFO', `read ${400 + hour} rows, wrote ${390 + hour} rows`);
    say(hour, 6, load, 'INFO', hour === BROKEN ? 'ended with errors' : 'ended well');
    say(hour, 60 * 20, out, 'INFO', 'started, target huts.xml');
    say(hour, 60 * 20 + 2, out, 'INFO', 'statement: select hut, day from forecast where day > now()');
    say(hour, 60 * 20 + 4, out, 'INFO', `wrote ${80 + hour} rows to huts.xml`);
    say(hour, 60 * 20 + 5, out, 'INFO', 'ended well');
  }
  return lines.join('\n') + '\n';
}
const data = async (id: string): Promise<StrandData[]> => (await system.get<Page<StrandData>>(`/strands/${encodeURIComponent(id)}/data`)).items;
const run = (name: string): string => `run:${name}`;

beforeAll(async () => {
  system = await startSystem();
  const declared = {
    kinds: [
      { name: 'run', label: 'run', role: 'business', patterns: ['(?:LD|EX)-\\d{3}'], fields: [], normal: KEEP, scope: 'global', leaseMs: null },
    ],
    flows: [
      { name: 'load', label: 'load of the weather', kind: 'run', prefix: 'LD-', patienceMs: null, expects: [] },
      { name: 'out', label: 'list of huts', kind: 'run', prefix: 'EX-', patienceMs: null, expects: [] },
    ],
    meanings: [{ component: null, contains: 'ended well', means: 'done' }],
  };
  await declare(system.url, declared);
  const folder = join(system.folder, 'huts');
  await mkdir(folder);
  await writeFile(join(folder, 'batch.log'), world());
  expect(await system.bring(await filesBelow([folder]))).toMatchObject({ state: 'done', errors: [] });
}, 60_000);
afterAll(() => system.stop());

test('what runs touched are things by themselves: who writes and reads them, rows, failures', async () => {
  const { items } = await system.get<Page<DataSet>>(`/data-sets?${window}`);
  const by = new Map(items.map((item) => [item.name, item]));
  expect([...by.keys()].sort()).toEqual(['forecast', 'forecast_stage', 'huts.xml', 'weather_#.csv']);
  expect(by.get('forecast')).toMatchObject({
    kind: 'table',
    writers: [{ flow: 'load', label: 'load of the weather', runs: HOURS }],
    readers: [{ flow: 'out', label: 'list of huts', runs: HOURS }],
    lastWritten: { name: `LD-${100 + HOURS - 1}`, rows: 390 + HOURS - 1 },
    failed: 1,
  });
  expect(by.get('weather_#.csv')).toMatchObject({ kind: 'file', writers: [], readers: [{ flow: 'load', runs: HOURS }], lastWritten: null });
  expect(by.get('huts.xml')).toMatchObject({ writers: [{ flow: 'out', runs: HOURS }], readers: [], usualRows: 84 });
});

test('from a run to the one that brought its data, and to those that came after', async () => {
  const out = await data(run('EX-103'));
  expect(out.map(({ way, name }) => `${way} ${name}`)).toEqual(['writes huts.xml', 'reads forecast']);
  expect(out[1]).toMatchObject({ broughtBy: { name: 'LD-103', outcome: 'done', rows: 393 }, sameAs: null });
  const load = await data(run(`LD-${100 + BROKEN}`));
  const written = load.find(({ way }) => way === 'writes')!;
  expect(written).toMatchObject({ name: 'forecast', failed: true, after: [{ name: `EX-${100 + BROKEN}` }], afterCut: false });
  const [first] = (await system.get<Page<StrandSummary>>(`/strands?limit=1&flow=load&outcome=failed`)).items;
  expect(first!.name).toBe(`LD-${100 + BROKEN}`);
});

test('the very same input as an earlier run is told, where it is another one each time', async () => {
  const input = (list: StrandData[]): StrandData => list.find(({ kind }) => kind === 'file')!;
  expect(input(await data(run(`LD-${100 + SAME}`)))).toMatchObject({
    instance: 'weather_20261124' + '0700.csv',
    sameAs: { name: `LD-${100 + SAME - 1}` },
  });
  expect(input(await data(run(`LD-${100 + SAME - 1}`))).sameAs).toBeNull();
  // huts.xml is always called so: nothing is the same by that
  expect((await data(run('EX-109'))).every(({ sameAs }) => sameAs === null)).toBe(true);
});

test('one thing has a page: its writes and reads in a window, the latest first; what is not there is said', async () => {
  const one = await system.get<DataSetHistory>(`/data-sets/one?${window}&name=forecast&of=production`);
  expect(one.writes.map((write) => write.name)).toEqual(Array.from({ length: HOURS }, (_, i) => `LD-${100 + HOURS - 1 - i}`));
  expect(one.reads).toHaveLength(HOURS);
  expect(one.writes.filter((write) => write.failed).map((write) => write.name)).toEqual([`LD-${100 + BROKEN}`]);
  const early = await system.get<DataSetHistory>(`/data-sets/one?from=2026-11-24T00:00:00Z&to=2026-11-24T02:30:00Z&environment=production&zone=UTC&name=forecast&of=production`); // prettier-ignore
  expect(early.writes).toHaveLength(3);
  for (const [path, status] of [[`/data-sets/one?${window}&name=nothing&of=production`, 404], [`/data-sets/one?${window}`, 400], ['/strands/run%3ALD-999/data', 404]] as const) expect((await fetch(`${system.url}/api${path}`)).status).toBe(status); // prettier-ignore
});

test('taken out with its source, it is gone', async () => {
  const { items } = await system.get<Page<{ id: number }>>('/imports');
  const gone = await fetch(`${system.url}/api/imports/${items[0]!.id}`, { method: 'DELETE' });
  expect(gone.ok).toBe(true);
  for (let tries = 0; tries < 100; tries++) {
    if ((await system.get<Page<DataSet>>(`/data-sets?${window}`)).items.length === 0) return;
    await new Promise((resolve) => setTimeout(resolve, 100));
  }
  throw new Error('what runs touched is still there');
});
