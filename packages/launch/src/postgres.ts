import { existsSync, readFileSync } from 'node:fs';
import { chmod, chown, mkdir, readFile, rm, writeFile } from 'node:fs/promises';
import { createServer } from 'node:net';
import { totalmem } from 'node:os';
import { dirname, join } from 'node:path';
import { isRoot, run, Stop, type Ran } from './commands.ts';
import { install, serverPrograms } from './packages.ts';

const USER = 'postgres';

/** Durability stays on (fsync, synchronous_commit, full_page_writes at their defaults); the rest suits bulk loading on a small machine. */
/** An eighth of the machine's memory is the database's own cache: the newest million records stay in it, and are not copied again for each search. */
const cacheMb = (): number => Math.round(Math.min(2048, Math.max(256, totalmem() / 8 / 2 ** 20)));
const settings = (): string => `# written anew at each start; what is to stay goes behind the include in postgresql.conf
listen_addresses = '127.0.0.1'
unix_socket_directories = ''
shared_buffers = ${cacheMb()}MB
work_mem = 24MB
maintenance_work_mem = 256MB
max_wal_size = 6GB
min_wal_size = 256MB
checkpoint_timeout = 15min
wal_compression = lz4
random_page_cost = 1.1
effective_io_concurrency = 64
effective_cache_size = 4GB
max_connections = 60
max_locks_per_transaction = 512
jit = off
default_toast_compression = lz4
log_destination = 'csvlog'
logging_collector = on
log_directory = 'log'
log_filename = 'postgresql-%a.log'
log_truncate_on_rotation = on
log_min_duration_statement = 1000
log_lock_waits = on
`;

export interface Postgres {
  url: string;
  /** A further, empty database on the same server; returns its address. */
  createDatabase(name: string): Promise<string>;
  stop(): Promise<void>;
}

/**
 * Starts PostgreSQL on loopback in its own data folder, as an unprivileged user; makes the folder on the first start.
 * A server that a dead process left running in this folder is taken over; a stale lock is put right by PostgreSQL itself.
 *
 * @param port for tests that need the same one again; else any free one
 * @throws Stop where something has to be mended by hand
 */
export async function startPostgres(folder: string, port?: number): Promise<Postgres> {
  let programs = serverPrograms();
  if (!programs) {
    await install(['postgresql'], 'The database server (PostgreSQL)');
    programs = serverPrograms();
    if (!programs) throw new Stop('PostgreSQL was installed, but its server programs are not where Debian puts them (/usr/lib/postgresql).');
  }
  const data = join(folder, 'postgres');
  await prepare(folder, data);
  const server = new Server(programs, data);
  if (!existsSync(join(data, 'PG_VERSION'))) await server.create();
  await server.checkVersion();
  const running = await server.runningPort();
  const taken = running ?? (await server.start(port ?? (await freePort())));
  await server.ensureDatabase(taken, 'fadenweg');
  const address = (name: string): string => `postgres://fadenweg@127.0.0.1:${taken}/${name}`;
  return {
    url: address('fadenweg'),
    createDatabase: async (name) => {
      await server.ensureDatabase(taken, name);
      return address(name);
    },
    stop: () => server.stop(),
  };
}

/** The data folder, owned by the unprivileged user, every folder above it open to pass through. */
async function prepare(folder: string, data: string): Promise<void> {
  await mkdir(folder, { recursive: true });
  if (!isRoot()) return;
  const { uid, gid } = await idsOf(USER);
  if (!existsSync(data)) {
    await mkdir(data, { mode: 0o700 });
    await chown(data, uid, gid);
  }
  await chmod(folder, 0o755);
  const reach = await run('runuser', ['-u', USER, '--', 'test', '-x', data]);
  if (reach.code === 0) return;
  for (let parent = dirname(folder); ; parent = dirname(parent)) {
    if ((await run('runuser', ['-u', USER, '--', 'test', '-x', parent])).code !== 0 || parent === '/') {
      throw new Stop(
        `The database runs as the user “${USER}”, who may not pass through ${parent}. Choose another place with --data DIR (for example /var/lib/fadenweg).`,
      );
    }
  }
}

async function idsOf(user: string): Promise<{ uid: number; gid: number }> {
  const line = (await readFile('/etc/passwd', 'utf8')).split('\n').find((one) => one.startsWith(`${user}:`));
  if (!line) throw new Stop(`There is no user “${user}” on this machine; the package postgresql makes it.`);
  const [, , uid, gid] = line.split(':');
  return { uid: Number(uid), gid: Number(gid) };
}

class Server {
  constructor(
    private readonly programs: string,
    private readonly data: string,
  ) {}

  private asUser(program: string, args: string[]): Promise<Ran> {
    const path = join(this.programs, program);
    return isRoot() ? run('runuser', ['-u', USER, '--', path, ...args], { cwd: '/' }) : run(path, args);
  }

  async create(): Promise<void> {
    const made = await this.asUser('initdb', [
      '-D',
      this.data,
      '-U',
      'fadenweg',
      '-A',
      'trust',
      '-E',
      'UTF8',
      '--locale=C.UTF-8',
      '--no-instructions',
    ]);
    if (made.code !== 0) throw new Stop(`The database could not be set up in ${this.data}:\n${made.stderr.trim()}`);
    const conf = join(this.data, 'postgresql.conf');
    await writeFile(conf, `${await readFile(conf, 'utf8')}\ninclude 'fadenweg.conf'\n`);
  }

  /** What this version asks of the database, also of a folder that an earlier one made. */
  private async configure(): Promise<void> {
    const path = join(this.data, 'fadenweg.conf');
    await writeFile(path, settings());
    await chmod(path, 0o644);
  }

  async checkVersion(): Promise<void> {
    const data = (await readFile(join(this.data, 'PG_VERSION'), 'utf8')).trim();
    const program = /postgresql\/(\d+)\//.exec(this.programs)?.[1];
    if (data !== program)
      throw new Stop(
        `The data folder ${this.data} belongs to PostgreSQL ${data}, this machine has ${program}. Install postgresql-${data}, or choose another folder with --data DIR.`,
      );
  }

  /** The port of a server that is running in this folder already, null if there is none. */
  async runningPort(): Promise<number | null> {
    const status = await this.asUser('pg_ctl', ['-D', this.data, 'status']);
    if (status.code !== 0) return null;
    return Number(readFileSync(join(this.data, 'postmaster.pid'), 'utf8').split('\n')[3]);
  }

  async start(port: number): Promise<number> {
    await this.configure();
    const log = join(this.data, 'start.log');
    const started = await this.asUser('pg_ctl', ['-D', this.data, '-w', '-t', '120', '-l', log, '-o', `-p ${port}`, 'start']);
    if (started.code !== 0) {
      const told = existsSync(log) ? readFileSync(log, 'utf8').trim().split('\n').slice(-8).join('\n') : started.stderr.trim();
      throw new Stop(`The database did not start in ${this.data}. It says:\n${told}`);
    }
    await rm(log, { force: true });
    return port;
  }

  /** @param name letters only */
  async ensureDatabase(port: number, name: string): Promise<void> {
    const connection = ['-h', '127.0.0.1', '-p', String(port), '-U', 'fadenweg'];
    const there = await run(join(this.programs, 'psql'), [
      ...connection,
      '-d',
      'postgres',
      '-Atc',
      `select 1 from pg_database where datname = '${name}'`,
    ]);
    if (there.code !== 0) throw new Stop(`The database does not answer on port ${port}:\n${there.stderr.trim()}`);
    if (there.stdout.trim() === '1') return;
    const made = await run(join(this.programs, 'createdb'), [...connection, name]);
    if (made.code !== 0) throw new Stop(`The database could not be made:\n${made.stderr.trim()}`);
  }

  async stop(): Promise<void> {
    await this.asUser('pg_ctl', ['-D', this.data, '-w', '-t', '60', '-m', 'fast', 'stop']);
  }
}

export function freePort(): Promise<number> {
  return new Promise((resolve, reject) => {
    const probe = createServer();
    probe.once('error', reject);
    probe.listen(0, '127.0.0.1', () => {
      const address = probe.address();
      const port = typeof address === 'object' && address ? address.port : 0;
      probe.close(() => resolve(port));
    });
  });
}
