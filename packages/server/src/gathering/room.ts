import type { Partitions } from '../database/partitions.ts';
import type { Declared } from '../declared/room.ts';
import type { Batch } from '../evidence/batch.ts';
import type { Evidence } from '../evidence/room.ts';
import type { Looks } from '../looks/room.ts';
import type { Platform, Room } from '../platform/room.ts';
import type { Weave } from '../weaving/room.ts';
import { demoRoutes, type Demo } from './demo-routes.ts';
import { followRoutes } from './following/follow-routes.ts';
import { Following } from './following/following.ts';
import { FollowRepository } from './following/follows.ts';
import { importRoutes } from './import-routes.ts';
import { ImportService } from './import-service.ts';
import { ImportRepository } from './imports.ts';
import { Intake } from './intake/intake.ts';
import { sourceRoutes } from './source-routes.ts';

/** How logs come in: imports, files that are followed, reading, and reading again. */
export interface Gathering extends Room {
  imports: ImportService;
  /** Whether sources are being read. */
  busy(): boolean;
}
export interface GatheringOptions {
  /** Makes the demo's data; null where it is not at hand. */
  demo: Demo | null;
  partitions: Partitions;
  /** A batch was committed. */
  stored(batch: Batch, from: number): void;
}

export function gatheringRoom(
  { databaseUrl, db, log, spool }: Platform,
  { sources, names, bytes, records, coverage }: Evidence,
  { declarations }: Declared,
  { weaving }: Weave,
  looks: Looks,
  { demo, partitions, stored }: GatheringOptions,
): Gathering {
  const imports: ImportService = new ImportService(
    new ImportRepository(db),
    sources,
    names,
    () => intake,
    weaving,
    looks,
    spool,
    (importId) => following.stopFor(importId),
  );
  const following: Following = new Following(new FollowRepository(db), sources, imports, spool);
  const intake: Intake = new Intake(databaseUrl, db, sources, declarations, names, partitions, {
    stored: (batch, source, from) => {
      stored(batch, from);
      weaving.stored(batch, source.growing);
    },
    trouble: (error) => log.warn({ err: error }, 'reading is held up and will be tried again'),
    sourcesEnded: async (ended) => {
      await coverage.learn(ended.map((source) => source.id));
      // tried again with the next source, and at the next start
      for (const importId of new Set(ended.map((source) => source.read_for))) void imports.checkEnd(importId).catch(() => {});
    },
  });
  return {
    imports,
    busy: () => intake.busy,
    endpoints: [
      ...importRoutes(imports),
      ...followRoutes(following),
      ...sourceRoutes(sources, bytes, names, imports, records),
      ...demoRoutes(demo, imports, (error) => log.error({ err: error }, 'the demo data could not be loaded')),
    ],
    async start() {
      if ((await weaving.wasDirty()) || (await sources.due()).length > 0) {
        weaving.ask(true, true);
        void imports.takeUp().catch(() => {}); // the database is away: the next start takes up what is left
      }
      await following.start();
    },
    async close() {
      await following.stop();
      await intake.close();
      await imports.close();
    },
  };
}
