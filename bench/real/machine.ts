import { spawn, type ChildProcess } from 'node:child_process';
import { once } from 'node:events';
import { existsSync } from 'node:fs';
import { chmod, mkdir, readdir, readFile, writeFile } from 'node:fs/promises';
import { createServer } from 'node:net';
import { join } from 'node:path';
import pg from 'pg';
import { install } from '../../packages/launch/src/packages.ts';
import { startPostgres, type Postgres } from '../../packages/launch/src/postgres.ts';
import type { Layout } from './log-writer.ts';
import type { Role, Settings } from './settings.ts';

/** How the programs of the lending office write: drawn by seed. */
export interface Drawn {
  layouts: Record<Role, Layout>;
  spelling: string;
  requestName: string;
  doorFormat: string;
  databasePrefix: string;
  databaseStatements: 'none' | 'mod';
  brokerTime: string;
  syslogTime: 'RSYSLOG_TraditionalFileFormat' | 'RSYSLOG_FileFormat' | 'RSYSLOG_SyslogProtocol23Format';
}
/** Programs of Debian's packages, by the package that brings each. */
const PROGRAMS = { 'nginx-light': 'nginx', mosquitto: 'mosquitto', rsyslog: 'rsyslogd' } as const;
/** Installs what is missing. @throws Stop where that is not possible */
export async function programsReady(): Promise<void> {
  const missing = Object.entries(PROGRAMS).filter(([, program]) => !['/usr/sbin', '/usr/bin'].some((folder) => existsSync(join(folder, program))));
  if (missing.length > 0) await install(missing.map(([name]) => name), 'What the lending office is made of'); // prettier-ignore
}
const PORTS = ['door', 'desk', 'shelf', 'broker', 'syslog'] as const;
const TABLES = `create table item (name text primary key, free int not null);
create sequence loan_number start 104870;
create table loan (id int primary key default nextval('loan_number'), reader text not null, item text not null, ticket text unique, state text not null default 'made');
create table parcel (id serial primary key, loan int not null references loan, weight int not null);`;

/** Programs from Debian's packages and three small services, all on loopback, with their logs in one folder. */
export class Machine {
  readonly logs: string;
  readonly truth: string;
  ports: Settings['ports'] = { door: 0, desk: 0, shelf: 0, broker: 0, syslog: 0 };
  private readonly running = new Map<string, ChildProcess>();
  private postgres!: Postgres;
  /** Another connection to the database, for whoever holds a lock. */
  aside!: pg.Client;

  private constructor(
    private readonly folder: string,
    private readonly drawn: Drawn,
  ) {
    this.logs = join(folder, 'logs');
    this.truth = join(folder, 'truth');
  }

  static async start(folder: string, drawn: Drawn): Promise<Machine> {
    const machine = new Machine(folder, drawn);
    await machine.startAll();
    return machine;
  }
  private async startAll(): Promise<void> {
    for (const name of ['logs/door', 'logs/broker', 'logs/syslog', 'truth', 'run', 'labels'])
      await mkdir(join(this.folder, name), { recursive: true });
    await chmod(this.folder, 0o755);
    this.ports = Object.fromEntries(await Promise.all(PORTS.map(async (name) => [name, await freePort()]))) as Settings['ports'];
    this.postgres = await startPostgres(join(this.folder, 'data'));
    await this.layDatabase();
    await this.program('syslog', 'rsyslogd', [
      '-n',
      '-f',
      await this.written('rsyslog.conf', this.syslogSettings()),
      '-i',
      join(this.folder, 'run/rsyslog.pid'),
    ]);
    await this.program('broker', 'mosquitto', ['-c', await this.written('mosquitto.conf', this.brokerSettings())]);
    await this.program('door', 'nginx', ['-p', join(this.folder, 'run'), '-c', await this.written('nginx.conf', this.doorSettings())]);
    await new Promise((resolve) => setTimeout(resolve, 400));
    for (const role of ['shelf', 'desk', 'post'] as const) await this.service(role);
  }

  /** Starts a service, again where it ran before; resolves when it says that it has started. */
  async service(role: Role, version = '2.4.0'): Promise<void> {
    const own = join(this.logs, role, `${role}.log`);
    const before = await readFile(own, 'utf8').catch(() => '');
    const settings: Settings = {
      role,
      version,
      layout: this.drawn.layouts[role],
      spelling: this.drawn.spelling,
      requestName: this.drawn.requestName,
      database: this.postgres.url,
      ports: this.ports,
      logs: this.logs,
      truth: this.truth,
      labels: join(this.folder, 'labels'),
      lines: before.split('\n').length,
    };
    const program = join(import.meta.dirname, 'services.ts');
    const child = spawn(process.execPath, ['--import', 'tsx', '--conditions=source', program], { env: { ...process.env, NODE_OPTIONS: '', SETTINGS: JSON.stringify(settings) }, stdio: ['ignore', 'pipe', 'inherit'] }); // prettier-ignore
    this.running.set(role, child);
    await once(child.stdout!, 'data');
  }
  async kill(name: string): Promise<void> {
    const child = this.running.get(name);
    if (!child || child.exitCode !== null || child.signalCode !== null) return;
    child.kill('SIGKILL');
    await once(child, 'exit');
  }
  get labelFile(): string {
    return join(this.folder, 'labels', 'label');
  }
  /** Ends all that was started. */
  async stop(): Promise<void> {
    await this.aside.end();
    for (const child of this.running.values()) {
      if (child.exitCode !== null || child.signalCode !== null) continue;
      child.kill('SIGTERM');
      await once(child, 'exit');
    }
    await this.postgres.stop();
  }
  /** The database's two logs: the one that is shown, and the one that tells whose each entry is. */
  async databaseLogs(): Promise<{ shown: string; telling: string }> {
    const folder = join(this.folder, 'data/postgres/log');
    const names = await readdir(folder);
    const one = (end: string): string =>
      join(
        folder,
        names.find((name) => name.endsWith(end))!,
      );
    return { shown: await readFile(one('.log'), 'utf8'), telling: await readFile(one('.csv'), 'utf8') };
  }

  private async layDatabase(): Promise<void> {
    const client = new pg.Client(this.postgres.url);
    await client.connect();
    for (const [name, value] of Object.entries({
      log_destination: 'stderr,csvlog',
      log_line_prefix: this.drawn.databasePrefix,
      log_statement: this.drawn.databaseStatements,
      log_min_duration_statement: '250',
      deadlock_timeout: '700ms',
      log_timezone: 'UTC',
    }))
      await client.query(`alter system set ${name} = '${value}'`);
    await client.query('select pg_reload_conf()');
    await client.query(TABLES);
    await client.query(`insert into item select 'I-' || i, 10000 from generate_series(100, 160) i`);
    await client.query(`insert into item select 'I-' || i, 0 from generate_series(900, 910) i`);
    await client.end();
    this.aside = new pg.Client(this.postgres.url);
    await this.aside.connect();
  }
  private async written(name: string, text: string): Promise<string> {
    const file = join(this.folder, 'run', name);
    await writeFile(file, text);
    return file;
  }
  private async program(name: string, program: string, args: string[]): Promise<void> {
    const child = spawn(program, args, { stdio: 'ignore', env: { ...process.env, PATH: `${process.env.PATH}:/usr/sbin` } });
    this.running.set(name, child);
    await once(child, 'spawn');
  }

  private syslogSettings(): string {
    return `module(load="imudp")
input(type="imudp" address="127.0.0.1" port="${this.ports.syslog}")
*.* action(type="omfile" file="${join(this.logs, 'syslog/syslog')}" template="${this.drawn.syslogTime}")
`;
  }
  private brokerSettings(): string {
    return `listener ${this.ports.broker} 127.0.0.1
allow_anonymous true
user root
message_size_limit 30000
log_dest file ${join(this.logs, 'broker/mosquitto.log')}
log_type all
log_timestamp_format ${this.drawn.brokerTime}
`;
  }
  private doorSettings(): string {
    return `daemon off;
worker_processes 1;
pid ${join(this.folder, 'run/nginx.pid')};
error_log ${join(this.logs, 'door/error.log')} warn;
events { worker_connections 256; }
http {
  log_format shown '${this.drawn.doorFormat}';
  log_format telling '$http_x_tx';
  client_body_temp_path ${join(this.folder, 'run/body')};
  proxy_temp_path ${join(this.folder, 'run/proxy')};
  fastcgi_temp_path ${join(this.folder, 'run/f')}; uwsgi_temp_path ${join(this.folder, 'run/u')}; scgi_temp_path ${join(this.folder, 'run/s')};
  proxy_buffering off;
  server {
    listen 127.0.0.1:${this.ports.door} sndbuf=16k;
    access_log ${join(this.logs, 'door/access.log')} shown;
    access_log ${join(this.truth, 'door.txt')} telling;
    location / {
      proxy_pass http://127.0.0.1:${this.ports.desk};
      proxy_set_header X-Request-Id $request_id;
      proxy_set_header X-Tx $http_x_tx;
      add_header X-Request $request_id always;
    }
  }
}
`;
  }
}

async function freePort(): Promise<number> {
  const server = createServer().listen(0, '127.0.0.1');
  await once(server, 'listening');
  const { port } = server.address() as { port: number };
  server.close();
  return port;
}
