import { existsSync } from 'node:fs';
import { chmod, mkdir, readFile, rm, writeFile } from 'node:fs/promises';
import { join } from 'node:path';
import { startServer, type RunningServer } from '@fadenweg/server';
import { demoPlan, freePlan, generate, DEMO_ZONE } from '@fadenweg/standin';
import { filesBelow, sendFiles, waitForImport } from '../packages/launch/src/client.ts';
import { declareDemo } from '../packages/launch/src/demo-data.ts';
import { startPostgres, type Postgres } from '../packages/launch/src/postgres.ts';

/** Where worlds and their databases are kept between runs of the bench. */
export const HOME = process.env.FADENWEG_BENCH ?? '/var/tmp/fadenweg-bench';

/** Logs of the demo, or of about so many records over three days; made once. */
export async function logsOf(name: string, records: number | 'demo'): Promise<{ folder: string; records: number }> {
  const folder = join(HOME, name);
  const count = join(folder, 'count');
  if (!existsSync(count)) {
    await rm(folder, { recursive: true, force: true });
    await mkdir(folder, { recursive: true });
    const made = await generate(records === 'demo' ? demoPlan(folder) : freePlan(folder, 11, 72, records, 0.03));
    await writeFile(count, String(made.records));
  }
  return { folder, records: Number(await readFile(count, 'utf8')) };
}

export interface BenchSystem {
  postgres: Postgres;
  server: RunningServer;
  stop(): Promise<void>;
}
/** A system with its own data folder; `fresh` begins with an empty one. */
export async function system(name: string, fresh: boolean): Promise<BenchSystem> {
  const folder = join(HOME, name);
  if (fresh) await rm(folder, { recursive: true, force: true });
  await mkdir(folder, { recursive: true });
  await chmod(HOME, 0o755);
  const postgres = await startPostgres(folder);
  const server = await startServer({ databaseUrl: postgres.url, port: 0, spool: join(folder, 'spool'), web: null });
  return {
    postgres,
    server,
    stop: async () => {
      await server.close();
      await postgres.stop();
    },
  };
}

/** Brings logs in from their first byte to the last judged strand. */
export async function bring(
  url: string,
  logs: string,
  declaring: (url: string) => Promise<void> = declareDemo,
  wanted: (path: string) => boolean = () => true,
): Promise<number> {
  await declaring(url);
  const files = (await filesBelow([join(logs, 'logs')])).filter(({ path }) => wanted(path));
  const begin = Date.now();
  const started = await sendFiles(url, files, { environment: 'production', zone: DEMO_ZONE });
  const ended = await waitForImport(url, started.id, { progress() {} });
  if (ended.state !== 'done') throw new Error(`the import ended as ${ended.state}: ${JSON.stringify(ended.errors)}`);
  return Date.now() - begin;
}

/** Waits until the server, which is a part of this process, has nothing to do any more: after a start it loads what it weaves. */
export async function quiet(): Promise<void> {
  const STRETCH = 4000;
  for (let used = Infinity; used > STRETCH * 0.03 * 1000;) {
    const before = process.cpuUsage();
    await new Promise((resolve) => setTimeout(resolve, STRETCH));
    const { user, system: own } = process.cpuUsage(before);
    used = user + own;
  }
}
