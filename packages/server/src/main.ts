import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { serverLog, type LogLevel } from './platform/log.ts';
import { startServer } from './server.ts';

/** The server alone, for a database that is there already: settings come from the environment. */
const url = process.env.DATABASE_URL;
if (!url) {
  console.error('DATABASE_URL is not set: give the address of a PostgreSQL 15 database, or use bin/demo.');
  process.exit(2);
}
const server = await startServer({
  databaseUrl: url,
  port: Number(process.env.PORT ?? 0),
  spool: process.env.FADENWEG_SPOOL ?? join(tmpdir(), 'fadenweg-spool'),
  web: process.env.FADENWEG_WEB ?? null,
  address: process.env.FADENWEG_ADDRESS,
  hosts: process.env.FADENWEG_HOSTS?.split(',').filter(Boolean),
  log: serverLog((process.env.LOG_LEVEL ?? 'warn') as LogLevel),
});
console.log(`Fadenweg is ready at ${server.url}`);
for (const signal of ['SIGINT', 'SIGTERM'] as const) process.once(signal, () => void server.close().then(() => process.exit(0)));
