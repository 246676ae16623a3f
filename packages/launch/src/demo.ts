import { join, resolve } from 'node:path';
import { parseArgs } from 'node:util';
import { mkdir } from 'node:fs/promises';
import type { Summary } from '@fadenweg/api';
import { ForeignDatabase, LOG_LEVELS, Occupied, serverLog, startServer, type RunningServer } from '@fadenweg/server';
import { call } from './client.ts';
import { Stop } from './commands.ts';
import { declareDemo, forgetDemo, loadDemo } from './demo-data.ts';
import { LiveSystem } from './live.ts';
import { rememberStarted } from './last-started.ts';
import { ROOT, usualDataFolder } from './places.ts';
import { startPostgres } from './postgres.ts';

const HELP = `bin/demo [--port N] [--data DIR] [--empty] [--live] [--log LEVEL]
  --port N     port of the page, 0 for any free one (default 7350)
  --data DIR   data folder (default: data/ in the project)
  --empty      without the demo's data
  --live       the made-up system goes on producing, now
  --log LEVEL  how much the server tells of itself on standard error: ${LOG_LEVELS.join(', ')} (default warn)`;

async function main(): Promise<void> {
  const { values } = parseArgs({
    options: {
      port: { type: 'string', default: '7350' },
      data: { type: 'string' },
      empty: { type: 'boolean', default: false },
      live: { type: 'boolean', default: false },
      log: { type: 'string', default: 'warn' },
      help: { type: 'boolean', default: false },
    },
  });
  if (values.help) {
    console.log(HELP);
    return;
  }
  const port = Number(values.port);
  if (!Number.isInteger(port) || port < 0 || port > 65_535) throw new Stop(`--port ${values.port}: a port is a number from 0 to 65535.`);
  const level = LOG_LEVELS.find((one) => one === values.log);
  if (!level) throw new Stop(`--log ${values.log}: there are ${LOG_LEVELS.join(', ')}.`);
  const folder = values.data === undefined ? await usualDataFolder() : resolve(values.data);
  await mkdir(folder, { recursive: true });
  const postgres = await startPostgres(folder);
  let closing = false;
  let close: () => Promise<void> = () => postgres.stop();
  const leave = (code: number): void => {
    if (closing) return;
    closing = true;
    void close().finally(() => process.exit(code));
  };
  for (const signal of ['SIGINT', 'SIGTERM', 'SIGHUP'] as const) process.on(signal, () => leave(0));
  try {
    const server: RunningServer = await startServer({
      databaseUrl: postgres.url,
      port,
      spool: join(folder, 'spool'),
      web: join(ROOT, 'packages/web/dist'),
      demo: {
        load: async () => {
          await loadDemo(server.url);
        },
        forget: () => forgetDemo(server.url),
      },
      log: serverLog(level),
    });
    close = async () => {
      await server.close();
      await postgres.stop();
    };
    await rememberStarted(server.url);
    const summary = await call<Summary>(`${server.url}/api/summary`);
    if (!values.empty && summary.sources === 0) await loadDemo(server.url);
    if (values.live && !closing) {
      await declareDemo(server.url);
      const live = new LiveSystem(server.url, join(folder, 'live'), (problem) => console.error(`live system: ${problem}`));
      await live.start();
      close = async () => {
        await live.stop();
        await server.close();
        await postgres.stop();
      };
    }
    if (!closing) console.log(`Fadenweg is ready at ${server.url}`);
  } catch (error) {
    if (closing) return;
    // the database that another server works with is left running
    if (error instanceof Occupied) throw new Stop(`Not started: ${error.message}.`);
    await close();
    throw (error as { code?: string }).code === 'EADDRINUSE'
      ? new Stop(`Port ${port} is taken by another program. Choose one with --port N, or --port 0 for any free one.`)
      : error;
  }
}

main().catch((error: Error) => {
  console.error(error instanceof Stop || error instanceof ForeignDatabase ? error.message : error);
  process.exit(1);
});
