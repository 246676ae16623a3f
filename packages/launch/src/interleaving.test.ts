import { afterAll, beforeAll, expect, test } from '@jest/globals';
import { mkdir, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import pg from 'pg';
import type { HostClock, IdentifierKind, ImportInfo, Page, SourceInfo, StrandSummary, Summary, WorkInfo } from '@fadenweg/api';
import { call, filesBelow, sendFiles } from './client.ts';
import { declare, type Declared } from './demo-data.ts';
import { ChildServer } from './testing/child-server.ts';
import { dice } from './testing/dice.ts';
import { all, startSystem, type System } from './testing/system.ts';

/**
 * Imports, reading again, kinds that come and go, zones that are set, imports that are taken out: in an order by chance, some of it side by side, with
 * deadlocks, lost connections and kills thrown in. Whatever the order, all of it ends, and what stands there then is what a quiet run gives.
 */
const STEPS = Number(process.env.FADENWEG_INTERLEAVINGS ?? 200);
const SEED = Number(process.env.FADENWEG_INTERLEAVING_SEED ?? 7);
const FILES = 6;

let system: System;
let children: ChildServer[] = [];
beforeAll(async () => {
  system = await startSystem();
  for (let file = 0; file < FILES; file++) {
    const folder = join(system.folder, 'in', `part-${file}`);
    await mkdir(folder, { recursive: true });
    const at = (ms: number): string => new Date(Date.UTC(2026, 10, 20, 8) + ms).toISOString().slice(0, 23);
    const lines = Array.from({ length: 240 }, (_, i) => {
      const order = `LX-${100_000 + (i % 60)}`;
      const token = `tk-${file}-${Math.floor(i / 4)}`;
      return `${at(i * 900 + file * 40)} ${i % 37 === 5 ? 'ERROR' : 'INFO'} [w-${i % 3}] part.${file} - ${i % 4 === 0 ? `${order} ` : ''}step ${i % 4} ${token}${i % 41 === 7 ? ' broke' : ''}`;
    });
    await writeFile(join(folder, `part-${file}.log`), lines.join('\n') + '\n');
  }
});
afterAll(async () => {
  for (const child of children) await child.kill();
  await system?.stop();
});

const ORDER = { name: 'order', label: 'order', role: 'business', patterns: ['LX-\\d{6}'], fields: [] };
const TOKEN = { name: 'token', label: 'token', role: 'link', patterns: ['tk-\\d-\\d+'], fields: [] };
const FLOW = { name: 'order', label: 'order', kind: 'order', prefix: 'LX-', patienceMs: 5000, expects: [] };
const MEANING = { component: null, contains: 'broke', means: 'failed' };

class Client {
  constructor(readonly url: () => string) {}
  async get<T>(path: string): Promise<T> {
    return call<T>(`${this.url()}/api${path}`);
  }
  /** A change; one that is refused, or that a kill broke off, is none. */
  async change(method: string, path: string, body?: unknown): Promise<number> {
    try {
      const init = body === undefined ? {} : { headers: { 'content-type': 'application/json' }, body: JSON.stringify(body) };
      return (await fetch(`${this.url()}/api${path}`, { method, ...init, signal: AbortSignal.timeout(60_000) })).status;
    } catch {
      return 0; // the server is down at the moment
    }
  }
  async bring(file: number): Promise<void> {
    try {
      await sendFiles(this.url(), await filesBelow([join(system.folder, 'in', `part-${file}`)]), { environment: 'production', zone: 'UTC' });
    } catch {
      // the server is down at the moment
    }
  }
  /** Until nothing runs or waits that changes anything. */
  async quiet(longest = 120_000): Promise<void> {
    const until = Date.now() + longest;
    for (let calm = 0; calm < 3;) {
      if (Date.now() > until) throw new Error(`not quiet: ${JSON.stringify(await this.busy())}`);
      calm = (await this.busy()).length === 0 ? calm + 1 : 0;
      await new Promise((resolve) => setTimeout(resolve, 150));
    }
  }
  private async busy(): Promise<string[]> {
    const [work, imports, sources] = await Promise.all([
      this.get<Page<WorkInfo>>('/work?state=running,waiting&limit=200'),
      this.get<Page<ImportInfo>>('/imports'),
      this.get<Page<SourceInfo>>('/sources'),
    ]);
    return [
      ...work.items.filter((one) => ['weave', 'read-again', 'end-import', 'remove-import'].includes(one.kind)).map((one) => `${one.kind} ${one.about} ${one.state} ${one.doing} ${one.error}`),
      ...imports.items.filter((one) => !['done', 'failed'].includes(one.state)).map((one) => `import ${one.id} ${one.state}`),
      ...sources.items.filter((one) => ['reading', 'waiting'].includes(one.state)).map((one) => `${one.path} ${one.state}`),
    ]; // prettier-ignore
  }
}

/**
 * Brings a system to one state, whatever it went through: all files there, all declared, every zone as it was. What was found out by itself on the way
 * (links, clocks) depends on what was there at that moment: it is taken back, clocks are set by hand.
 */
async function settled(client: Client): Promise<void> {
  await client.quiet();
  for (let file = 0; file < FILES; file++) await client.bring(file);
  await client.quiet();
  await client.change('POST', '/identifier-kinds', ORDER);
  await client.change('POST', '/identifier-kinds', TOKEN);
  await client.change('PUT', '/identifier-kinds/token', TOKEN);
  await client.change('PUT', '/flows/order', FLOW);
  await client.change('PUT', '/meanings', { items: [MEANING] });
  await client.quiet();
  for (const source of (await client.get<Page<SourceInfo>>('/sources')).items)
    if (source.zone !== 'UTC') await client.change('PUT', `/sources/${source.id}`, { zone: 'UTC' });
  await client.quiet();
  for (const kind of (await client.get<Page<IdentifierKind>>('/identifier-kinds')).items)
    if (kind.discovered) await client.change('DELETE', `/identifier-kinds/${kind.name}`);
  for (const host of (await client.get<Page<HostClock>>('/hosts')).items) await client.change('PUT', `/hosts/${host.id}`, { aheadMs: 0 });
  await client.quiet();
}

async function fingerprint(client: Client): Promise<unknown> {
  const own: System = { ...system, get: <T>(path: string) => client.get<T>(path) };
  const strands = await all<StrandSummary>(own, '/strands?sort=started');
  const { records, sources } = await client.get<Summary>('/summary');
  return {
    records,
    sources,
    strands: strands.map((one) => [one.id, one.outcome, one.startedAt, one.durationMs, one.records, one.headline].join(' ')).sort(),
  };
}

test(`${STEPS} steps by chance, with deadlocks, lost connections and kills, end as a quiet run does`, async () => {
  const random = dice(SEED);
  const quietDatabase = await system.postgres.createDatabase('quiet');
  const still = new ChildServer(quietDatabase, join(system.folder, 'spool-quiet'));
  const databaseUrl = await system.postgres.createDatabase('stormy');
  const stormy = new ChildServer(databaseUrl, join(system.folder, 'spool-stormy'));
  children = [still, stormy];
  await still.start();
  const calm = new Client(() => still.url);
  await declare(still.url, { kinds: [ORDER, TOKEN], flows: [FLOW], meanings: [MEANING] } as unknown as Declared);
  await settled(calm);
  const expected = await fingerprint(calm);
  await still.kill('SIGTERM');

  await stormy.start();
  const client = new Client(() => stormy.url);
  const own = new pg.Client(databaseUrl);
  own.on('error', () => {}); // it is ended by the steps themselves
  await own.connect();
  const pick = <T>(from: readonly T[]): T | undefined => from[Math.floor(random() * from.length)];
  const someSource = async (): Promise<SourceInfo | undefined> => pick((await client.get<Page<SourceInfo>>('/sources')).items);
  let killing: Promise<void> = Promise.resolve();
  const steps: (() => Promise<unknown>)[] = [
    () => client.bring(Math.floor(random() * FILES)),
    () => client.bring(Math.floor(random() * FILES)),
    () => client.change('POST', '/identifier-kinds', random() < 0.5 ? ORDER : TOKEN),
    () => client.change('DELETE', `/identifier-kinds/${random() < 0.5 ? 'order' : 'token'}`),
    () => client.change('PUT', '/identifier-kinds/token', { ...TOKEN, role: random() < 0.5 ? 'shared' : 'link' }),
    () => client.change('PUT', '/meanings', { items: random() < 0.5 ? [] : [MEANING] }),
    () => client.change('PUT', '/flows/order', FLOW),
    async () => {
      const source = await someSource();
      if (source) await client.change('PUT', `/sources/${source.id}`, { zone: random() < 0.5 ? 'Europe/Berlin' : 'UTC' });
    },
    async () => {
      const one = pick((await client.get<Page<ImportInfo>>('/imports')).items);
      if (one && random() < 0.5) await client.change('DELETE', `/imports/${one.id}`);
    },
    // two transactions that take sources in opposite orders: the database ends one of them
    async () => {
      await own.query('begin');
      await own.query('select 1 from source order by id desc limit 1 for update').catch(() => {});
      // the server takes all of them, from the first on
      void client.change('PUT', '/identifier-kinds/token', { ...TOKEN, role: random() < 0.5 ? 'shared' : 'link' });
      await new Promise((resolve) => setTimeout(resolve, 100 + random() * 300));
      await own.query('select 1 from source order by id for update').catch(() => {}); // it is this one as often as not
      await own.query('rollback');
    },
    // connections are lost
    () =>
      own.query(
        `select pg_terminate_backend(pid) from pg_stat_activity where datname = current_database() and pid <> pg_backend_pid() and random() < 0.4`,
      ),
    () => {
      // one after the other: a second server would be refused
      if (random() < 0.35) killing = killing.then(() => stormy.kill()).then(() => stormy.start());
      return killing;
    },
  ];
  const running = new Set<Promise<unknown>>();
  /** How many the database has ended so far. */
  const deadlocks = async (): Promise<number> => {
    const counting = new pg.Client(databaseUrl);
    await counting.connect();
    const { rows } = await counting.query<{ deadlocks: string }>('select deadlocks from pg_stat_database where datname = current_database()');
    await counting.end();
    return Number(rows[0]!.deadlocks);
  };
  // so many steps, and more where no two transactions have met in them
  for (let step = 0; step < STEPS || (step < 3 * STEPS && (await deadlocks()) === 0); step++) {
    const next = steps[Math.floor(random() * steps.length)]!;
    const done: Promise<unknown> = next()
      .catch(() => {}) // the server or the database is away at the moment: what counts is how all of it ends
      .finally(() => running.delete(done));
    running.add(done);
    if (running.size >= 3) await Promise.race(running);
    else await new Promise((resolve) => setTimeout(resolve, random() * 60));
  }
  await Promise.all(running);
  await own.end();
  await settled(client);
  expect(await deadlocks()).toBeGreaterThan(0);
  expect(stormy.ended).toBeNull();
  const work = await client.get<Page<WorkInfo>>('/work?state=failed&limit=50');
  expect(work.items).toEqual([]);
  expect(await fingerprint(client)).toEqual(expected);
  const { items } = await client.get<Page<ImportInfo>>('/imports');
  expect(items.filter((one) => one.state !== 'done').map((one) => [one.state, one.errors])).toEqual([]);
}, 600_000);
