import { once } from 'node:events';
import { createServer, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { join } from 'node:path';
import type { Logger } from 'pino';
import { againstRoom } from './against/room.ts';
import { callsRoom } from './calls/room.ts';
import { changesRoom } from './changes/room.ts';
import { connect, type Database } from './database/connect.ts';
import { isDatabaseAway } from './database/failures.ts';
import { dataRoom } from './data/room.ts';
import { migrate } from './database/migrate.ts';
import { Partitions } from './database/partitions.ts';
import { declaredRoom } from './declared/room.ts';
import { evidenceRoom } from './evidence/room.ts';
import { explainingRoom } from './explaining/room.ts';
import { faultsRoom, faultStanding } from './faults/room.ts';
import { findRoom } from './find/room.ts';
import type { Demo } from './gathering/demo-routes.ts';
import { gatheringRoom, type Gathering } from './gathering/room.ts';
import { indexingRoom } from './indexing/room.ts';
import { jobsRoom } from './jobs/room.ts';
import { keptRoom } from './kept/room.ts';
import { liveRoom } from './live/room.ts';
import { looksRoom } from './looks/room.ts';
import { overviewRoom } from './overview/room.ts';
import { guarded } from './platform/access.ts';
import { Happenings } from './platform/happenings/happenings.ts';
import { application } from './platform/http/application.ts';
import type { Metric } from './platform/http/metrics.ts';
import { serverLog } from './platform/log.ts';
import type { Platform, Room } from './platform/room.ts';
import { Waker } from './platform/waker.ts';
import { Work } from './platform/work/work.ts';
import { rollupsRoom } from './rollups/room.ts';
import { roundsRoom } from './rounds/room.ts';
import { runbooksRoom } from './runbooks/room.ts';
import { shapesRoom } from './shapes/room.ts';
import { strandsRoom } from './strands/room.ts';
import { unusualRoom } from './unusual/room.ts';
import { weavingRoom } from './weaving/room.ts';

export const VERSION = '0.1.0';

export interface ServerOptions {
  databaseUrl: string;
  /** 0 takes any free port. */
  port: number;
  /** Address to listen on; loopback unless told otherwise. */
  address?: string;
  /** Names besides loopback under which the server may be reached. */
  hosts?: string[];
  /** Folder for files that have arrived but are not read yet; each database has its own in it. */
  spool: string;
  web: string | null;
  /** Makes the demo's data and brings them in; where it is at hand. */
  demo?: Demo;
  log?: Logger;
  /** Quiet time before words are indexed in the background, in milliseconds. */
  wordsAfter?: number;
}
export interface RunningServer {
  url: string;
  log: Logger;
  close(): Promise<void>;
}

/** A database that goes away while the server starts is asked again so often, after so long (milliseconds) times the tries. */
const TRIES = 5;
const PAUSE = 250;

/**
 * Migrates, takes up what a dead process left, and serves.
 *
 * @throws ForeignDatabase, Occupied; or what the database says, where it stays away
 */
export async function startServer(options: ServerOptions): Promise<RunningServer> {
  const log = options.log ?? serverLog('warn');
  for (let tries = 1; ; tries++) {
    try {
      return await start(options, log);
    } catch (error) {
      // a port that is taken, or may not be listened on, is none of the database's
      if (!isDatabaseAway(error) || (error as NodeJS.ErrnoException).syscall === 'listen' || tries >= TRIES) throw error;
      log.warn({ err: error }, 'the database went away while the server was starting; it is tried again');
      await new Promise((resolve) => setTimeout(resolve, PAUSE * tries));
    }
  }
}

async function start(options: ServerOptions, log: Logger): Promise<RunningServer> {
  const db = connect(options.databaseUrl, log);
  const waker = new Waker(options.databaseUrl, log);
  const happenings = new Happenings(db, waker, log);
  const work = new Work(db, waker, log);
  let rooms: Room[] = [];
  const close = async (): Promise<void> => {
    // nothing is begun any more, then what is under way ends, from above
    await work.close();
    await happenings.close();
    for (const room of rooms.toReversed()) await room.close?.();
    await waker.close();
    await db.destroy();
  };
  try {
    await waker.start();
    await migrate(db);
    const spool = join(options.spool, await identityOf(db));
    const platform: Platform = { data: guarded(() => ({ db, url: options.databaseUrl })), log, version: VERSION, spool, happenings, work };
    const { all, metrics } = await allRooms(platform, options);
    rooms = all;
    await happenings.start();
    await work.start();
    for (const room of rooms) await room.start?.();
    const app = application({
      endpoints: rooms.map((room) => room.endpoints),
      version: VERSION,
      log,
      web: options.web,
      hosts: options.hosts ?? [],
      metrics,
    });
    const server = createServer(app);
    server.requestTimeout = 0; // an upload may take as long as it takes; its pieces are timed by the sender
    await listen(server, options.port, options.address ?? '127.0.0.1');
    const { port } = server.address() as AddressInfo;
    return {
      url: `http://${options.address ?? '127.0.0.1'}:${port}`,
      log,
      async close() {
        server.closeAllConnections();
        await new Promise((resolve) => server.close(resolve));
        await close();
      },
    };
  } catch (error) {
    await close();
    throw error;
  }
}

/** A name that no other database has, of any server: what several share is parted by it. */
async function identityOf(db: Database): Promise<string> {
  const { rows } = await db.raw<{ rows: { name: string }[] }>(
    `select s.system_identifier || '-' || d.oid as name from pg_control_system() s, pg_database d where d.datname = current_database()`,
  );
  return rows[0]!.name;
}

async function listen(server: Server, port: number, address: string): Promise<void> {
  server.listen(port, address);
  await Promise.race([
    once(server, 'listening'),
    once(server, 'error').then(([error]) => {
      throw error as Error;
    }),
  ]);
}

/** The rooms, from the ground up: each is given what stands below it. What lies above one is handed to it as a question, to be asked once all stand. */
async function allRooms(platform: Platform, { demo, wordsAfter }: ServerOptions): Promise<{ all: Room[]; metrics: () => Promise<Metric[]> }> {
  const partitions = new Partitions();
  const evidence = await evidenceRoom(platform);
  const kept = keptRoom(platform, evidence, () => standing);
  const weave = weavingRoom(platform, () => gathering.busy());
  const declared = declaredRoom(platform, evidence, weave, () => gathering.reread);
  const changes = changesRoom(platform, evidence, weave);
  const explaining = explainingRoom(platform, changes);
  const standing = faultStanding(platform, evidence, changes);
  const strands = strandsRoom(evidence, weave, declared, changes, kept, standing, () => find.find);
  const find = findRoom(platform, evidence, weave, declared, kept, explaining, strands);
  const live = liveRoom(platform, evidence, find, strands);
  const indexing = indexingRoom(platform, partitions, () => gathering.busy() || weave.weaving.atWork, wordsAfter);
  const looks = looksRoom(platform, evidence, declared, () => gathering.reread);
  const gathering: Gathering = gatheringRoom(platform, evidence, declared, weave, looks, { demo: demo ?? null, partitions });
  const rollups = rollupsRoom(platform);
  const jobs = jobsRoom(platform, evidence, declared);
  const rounds = roundsRoom(platform, evidence, declared, changes, rollups, strands, jobs);
  const against = againstRoom(evidence, declared, changes, rollups);
  const faults = faultsRoom(platform, evidence, weave, declared, changes, strands, standing);
  const shapes = shapesRoom(platform, evidence, declared, kept);
  const calls = callsRoom(platform, evidence, strands);
  const dataSets = dataRoom(platform, evidence, declared, strands);
  const unusual = unusualRoom(evidence, rounds, shapes);
  const runbooks = runbooksRoom(platform, evidence, find, strands, changes);
  const overview = overviewRoom(platform, evidence, weave, gathering, strands, demo !== undefined);
  const all = [
    evidence,
    kept,
    weave,
    declared,
    changes,
    explaining,
    strands,
    find,
    live,
    indexing,
    looks,
    gathering,
    rollups,
    rounds,
    against,
    faults,
    shapes,
    jobs,
    calls,
    dataSets,
    unusual,
    runbooks,
    overview,
  ];
  return { all, metrics: overview.metrics };
}
