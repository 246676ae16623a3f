import { chmod, mkdtemp, readFile, rm } from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { ImportInfo, Page } from '@fadenweg/api';
import { serverLog, startServer, type RunningServer, type ServerOptions } from '@fadenweg/server';
import { DEMO_ZONE, FULL_DAY, generate, type Truth } from '@fadenweg/standin';
import { call, filesBelow, sendFiles, waitForImport, type FileToSend } from '../client.ts';
import { declareDemo } from '../demo-data.ts';
import { startPostgres, type Postgres } from '../postgres.ts';
import { Described, type Description } from './described.ts';

const HOUR = 3_600_000_000;

/** A whole system for tests: a database server of its own, the application, and a folder for made-up logs. */
export interface System {
  folder: string;
  postgres: Postgres;
  server: RunningServer;
  url: string;
  /** What a call answers; it must be as the API describes it. */
  get<T>(path: string): Promise<T>;
  /** Brings files in and waits until they are read and woven. */
  bring(files: readonly FileToSend[], query?: Record<string, string>): Promise<ImportInfo>;
  /** Stops the application and starts it again on the same data, after something that happens meanwhile. */
  restart(meanwhile?: () => Promise<void>, port?: number): Promise<void>;
  stop(): Promise<void>;
}

export async function startSystem(web: string | null = null, more: Pick<ServerOptions, 'wordsAfter' | 'demo'> = {}): Promise<System> {
  const folder = await mkdtemp(join(tmpdir(), 'fadenweg-test-'));
  await chmod(folder, 0o755);
  const postgres = await startPostgres(join(folder, 'data'));
  const start = (port = 0): Promise<RunningServer> =>
    startServer({ databaseUrl: postgres.url, port, spool: join(folder, 'spool'), web, log: serverLog('silent'), ...more });
  const server = await start();
  let described: Described | undefined;
  const system: System = {
    folder,
    postgres,
    server,
    url: server.url,
    get: async <T>(path: string) => {
      const answer = await call<T>(`${system.url}/api${path}`);
      described ??= new Described(await call<Description>(`${system.url}/api/openapi.json`));
      // nothing at all is 204
      const faults = described.faultsOf({ method: 'get', path: `/api${path}`, status: answer === undefined ? 204 : 200, answer });
      if (faults.length > 0) throw new Error(`An answer is not as it is described.\n${faults.slice(0, 10).join('\n')}`);
      return answer;
    },
    bring: async (files, query = {}) => {
      const started = await sendFiles(system.url, files, { environment: 'production', zone: DEMO_ZONE, ...query });
      return waitForImport(system.url, started.id, { progress() {} });
    },
    restart: async (meanwhile, port) => {
      await system.server.close();
      await meanwhile?.();
      system.server = await start(port);
      system.url = system.server.url;
    },
    stop: async () => {
      await system.server.close();
      await postgres.stop();
      await rm(folder, { recursive: true, force: true });
    },
  };
  return system;
}

/** Five hours of the lens works with the stories of the morning, and the truth about them. */
export async function makeMorning(folder: string, records = 12_000, seed = 7): Promise<{ logs: string; truth: Truth[] }> {
  await generate({ out: folder, seed, faultRate: 0.06, storyDay: FULL_DAY, stretches: [{ from: FULL_DAY + 6 * HOUR, hours: 5, records }] });
  return { logs: join(folder, 'logs'), truth: await readTruth(folder) };
}
/** What really happened in a made world. */
export async function readTruth(folder: string): Promise<Truth[]> {
  const text = await readFile(join(folder, 'truth', 'truth.jsonl'), 'utf8');
  return text
    .trim()
    .split('\n')
    .map((line) => JSON.parse(line) as Truth);
}

export const bringMorning = async (system: System, logs: string): Promise<ImportInfo> => {
  await declareDemo(system.url);
  return system.bring(await filesBelow([logs]));
};

/** All items of a list, page by page. */
export async function all<T>(system: System, path: string): Promise<T[]> {
  const items: T[] = [];
  for (let next: string | null = ''; next !== null;) {
    const page: Page<T> = await system.get<Page<T>>(
      `${path}${path.includes('?') ? '&' : '?'}limit=500${next === '' ? '' : `&after=${encodeURIComponent(next)}`}`,
    );
    items.push(...page.items);
    next = page.next;
  }
  return items;
}
