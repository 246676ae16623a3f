import type { Partitions } from '../database/partitions.ts';
import type { Declared } from '../declared/room.ts';
import type { Evidence } from '../evidence/room.ts';
import type { Reread } from '../evidence/reread.ts';
import type { Looks } from '../looks/room.ts';
import { Access, guarded, type Guarded } from '../platform/access.ts';
import type { Happened } from '../platform/happenings/kinds.ts';
import { tell } from '../platform/happenings/tell.ts';
import type { Platform, Room } from '../platform/room.ts';
import type { Weave } from '../weaving/room.ts';
import { demoRoutes, makingDemo, type Demo } from './demo-routes.ts';
import { followRoutes } from './following/follow-routes.ts';
import { Following } from './following/following.ts';
import { FollowRepository } from './following/follows.ts';
import { importRoutes } from './import-routes.ts';
import { ImportService } from './import-service.ts';
import { ImportRepository } from './imports.ts';
import { Intake, type Read } from './intake/intake.ts';
import { sourceRoutes } from './source-routes.ts';
import { clearSpool } from './spool-folder.ts';

/** How logs come in: imports, files that are followed, reading, and reading again. */
export interface Gathering extends Room {
  imports: Guarded<ImportService>;
  reread: Reread;
  /** Whether sources are being read. */
  busy(): boolean;
}
export interface GatheringOptions {
  /** Makes the demo's data; null where it is not at hand. */
  demo: Demo | null;
  partitions: Partitions;
}
/** Coverage of what was read is worked out, then an import's end is looked at. A kill in between loses none of it: then it is looked at after so long, in milliseconds. */
const AT_THE_LATEST = 2000;

export function gatheringRoom(
  platform: Platform,
  { evidence }: Evidence,
  { declarations }: Declared,
  { weaving }: Weave,
  looks: Looks,
  { demo, partitions }: GatheringOptions,
): Gathering {
  const { data, log, spool, happenings, work } = platform;
  const { db, url } = data.by(Access.ownWork);
  const { sources, names, coverage, copies } = evidence.by(Access.ownWork);
  const rows = new ImportRepository(db);
  const imports: ImportService = new ImportService(
    platform,
    rows,
    sources,
    names,
    copies,
    () => intake,
    weaving,
    looks,
    spool,
    (importId) => following.stopFor(importId),
  );
  const following: Following = new Following(new FollowRepository(db), sources, imports, spool);
  if (demo) work.add(makingDemo(demo));
  const intake: Intake = new Intake(url, db, sources, declarations.by(Access.ownWork), names, partitions, {
    async storing(client, read) {
      for (const one of read) await tell(client, 'batch-stored', storedOf(one));
      await weaving.note(client, read.every(({ source }) => source.growing)); // prettier-ignore
      const ended = new Set(read.filter(({ batch }) => batch.last).map(({ source }) => source.read_for));
      for (const importId of [...ended].sort((a, b) => a - b)) await imports.checkEnd(importId, client, AT_THE_LATEST);
    },
    stored(read) {
      happenings.echo('batch-stored', storedOf(read));
      weaving.stored(read.batch);
    },
    trouble: (error) => log.warn({ err: error }, 'reading is held up and will be tried again'),
    async sourcesEnded(ended) {
      await coverage.learn(ended.map((source) => source.id));
      for (const importId of new Set(ended.map((source) => source.read_for))) await imports.checkEnd(importId);
    },
  });
  return {
    imports: guarded(() => imports), // there is one that takes in, for all
    reread: imports,
    busy: () => intake.busy,
    endpoints: guarded((access) => [
      ...importRoutes(imports),
      ...followRoutes(following),
      ...sourceRoutes(evidence.by(access), imports),
      ...demoRoutes(demo, imports, work),
    ]),
    async start() {
      await clearSpool(spool, await sources.spoolFiles());
      await coverage.learnMissing();
      await imports.takeUp();
      await following.start();
    },
    async close() {
      await following.stop();
      await intake.close();
    },
  };
}

const storedOf = ({ source, batch, from }: Read): Happened['batch-stored'] => ({
  source: source.id,
  importId: source.read_for,
  from,
  to: batch.next.byte,
  records: batch.count,
  first: batch.firstAt,
  last: batch.lastAt,
  ended: batch.last,
});
