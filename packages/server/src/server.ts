import { once } from 'node:events';
import { createServer, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { pino, type Logger } from 'pino';
import { connect, type Database } from './database/connect.ts';
import { migrate } from './database/migrate.ts';
import { application } from './http/application.ts';
import { Following } from './following/following.ts';
import { Intake } from './intake/intake.ts';
import { Partitions } from './intake/partitions.ts';
import { WordIndex } from './intake/word-index.ts';
import { Arrivals } from './live/arrivals.ts';
import { LiveSearch } from './live/feed.ts';
import { ChangeRepository } from './repositories/changes.ts';
import { ClockRepository } from './repositories/clocks.ts';
import { CoverageRepository } from './repositories/coverage.ts';
import { DeclarationRepository } from './repositories/declarations.ts';
import { FollowRepository } from './repositories/follows.ts';
import { IdentifierRepository } from './repositories/identifiers.ts';
import { KeptRepository } from './repositories/kept.ts';
import { Names } from './repositories/names.ts';
import { OwnCodes } from './repositories/own-codes.ts';
import { OwnPackages } from './repositories/own-packages.ts';
import { RecordRepository } from './repositories/records.ts';
import { RunbookRepository } from './repositories/runbooks.ts';
import { SourceTextRepository } from './repositories/source-texts.ts';
import { ImportRepository } from './repositories/imports.ts';
import { KeptBytesRepository } from './repositories/kept-bytes.ts';
import { SourceRepository } from './repositories/sources.ts';
import { StrandRepository } from './repositories/strands.ts';
import { changeRoutes } from './routes/changes.ts';
import { coverageRoutes } from './routes/coverage.ts';
import { declarationRoutes } from './routes/declarations.ts';
import { demoRoutes, type Demo } from './routes/demo.ts';
import { keptRoutes } from './routes/kept.ts';
import { explanationRoutes } from './routes/explanations.ts';
import { followRoutes } from './routes/follows.ts';
import { hostRoutes } from './routes/hosts.ts';
import { importRoutes } from './routes/imports.ts';
import { liveRoutes } from './routes/live.ts';
import { overviewRoutes } from './routes/overview.ts';
import { recordRoutes } from './routes/records.ts';
import { runbookRoutes } from './routes/runbooks.ts';
import { ownPackageRoutes } from './routes/own-packages.ts';
import { sourceTextRoutes } from './routes/source-texts.ts';
import { sourceRoutes } from './routes/sources.ts';
import { strandRoutes } from './routes/strands.ts';
import { Changes } from './services/changes.ts';
import { Clocks } from './services/clocks.ts';
import { Discovery } from './services/discovery.ts';
import { FindService } from './services/find/find-service.ts';
import { RecordExport } from './services/record-lines/record-export.ts';
import { Scanner } from './services/find/scan.ts';
import { Searchables } from './services/find/searchables.ts';
import { ImportService } from './services/import-service.ts';
import { Presenter } from './services/present.ts';
import { QuietRules } from './services/quiet/quiet-rules.ts';
import { RoleGuard } from './services/role-guard.ts';
import { StepRunner } from './services/runbooks/run-step.ts';
import { SearchService } from './services/search-service.ts';
import { StrandSeriesService } from './services/series.ts';
import { SourceTimes } from './services/source-times.ts';
import { InCommonService } from './services/in-common.ts';
import { LockHolders } from './services/lock-holders.ts';
import { StrandBeside } from './services/strand-beside.ts';
import { StrandService } from './services/strand-service.ts';
import { SourceTexts } from './services/source-texts.ts';
import { Suggestions } from './services/suggestions.ts';
import { Weaving } from './weaving/weaving.ts';

export const VERSION = '0.1.0';

export interface ServerOptions {
  databaseUrl: string;
  /** 0 takes any free port. */
  port: number;
  /** Address to listen on; loopback unless told otherwise. */
  address?: string;
  /** Names besides loopback under which the server may be reached. */
  hosts?: string[];
  /** Folder for files that have arrived but are not read yet. */
  spool: string;
  web: string | null;
  /** Makes the demo's data and brings them in; where it is at hand. */
  demo?: Demo;
  logLevel?: string;
  /** Quiet time before words are indexed in the background, in milliseconds. */
  wordsAfter?: number;
}
export interface RunningServer {
  url: string;
  log: Logger;
  close(): Promise<void>;
}

/** Migrates, takes up what a dead process left, and serves. */
export async function startServer(options: ServerOptions): Promise<RunningServer> {
  const log = pino({ level: options.logLevel ?? 'warn' });
  const db = connect(options.databaseUrl);
  try {
    await migrate(db);
  } catch (error) {
    await db.destroy();
    throw error;
  }
  const parts = await assemble(options, db, log);
  const app = application({ endpoints: parts.endpoints, version: VERSION, log, web: options.web, hosts: options.hosts ?? [] });
  const server = createServer(app);
  server.requestTimeout = 0; // an upload may take as long as it takes; its pieces are timed by the sender
  try {
    await listen(server, options.port, options.address ?? '127.0.0.1');
  } catch (error) {
    await parts.close();
    await db.destroy();
    throw error;
  }
  const { port } = server.address() as AddressInfo;
  return {
    url: `http://${options.address ?? '127.0.0.1'}:${port}`,
    log,
    async close() {
      server.closeAllConnections();
      await new Promise((resolve) => server.close(resolve));
      await parts.close();
      await db.destroy();
    },
  };
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

async function assemble(options: ServerOptions, db: Database, log: Logger) {
  const names = new Names(db);
  await names.load();
  const sources = new SourceRepository(db);
  const bytes = new KeptBytesRepository(db);
  const strandRows = new StrandRepository(db);
  const records = new RecordRepository(db);
  const identifiers = new IdentifierRepository(db);
  const declarations = new DeclarationRepository(db);
  const coverage = new CoverageRepository(db);
  const kept = new KeptRepository(db);
  const quiet = new QuietRules(kept, sources, names);
  const presenter = new Presenter(identifiers, records, sources, names, strandRows);
  const ownCodes = new OwnCodes(db);
  const sourceTexts = new SourceTextRepository(db);
  const changeRows = new ChangeRepository(db, names);
  const changes = new Changes(changeRows, names, sources, strandRows);
  const holders = new LockHolders(records, identifiers);
  const strands = new StrandService(strandRows, records, identifiers, declarations, sources, names, presenter, { holders, changes });
  const searchables = new Searchables(records, sources, identifiers, strandRows, declarations, names);
  const scanner = new Scanner(records, sources, searchables, names, quiet);
  const find = new FindService(scanner, searchables, strandRows, declarations, presenter, records);
  const search = new SearchService(identifiers, strandRows, declarations, presenter);
  const arrivals = new Arrivals();
  let learning: Promise<void> = Promise.resolve();
  const weaving: Weaving = new Weaving(
    options.databaseUrl,
    db,
    () => intake.busy,
    () => {
      declarations.forget();
      changes.forget();
      words.consider();
      arrivals.woven();
      learning = quiet
        .learn()
        .catch((error: unknown) => log.warn({ err: error }, 'what recurs could not be learned; it is tried again after the next import'));
    },
  );
  const partitions = new Partitions();
  const words = new WordIndex(
    options.databaseUrl,
    db,
    partitions,
    {
      busy: () => intake.busy || weaving.atWork,
      trouble: (error) => log.warn({ err: error }, 'words could not be indexed; it is tried again after the next import'),
    },
    options.wordsAfter,
  );
  const clockRows = new ClockRepository(db);
  const clocks = new Clocks(options.databaseUrl, clockRows, names);
  const imports: ImportService = new ImportService(
    new ImportRepository(db),
    sources,
    names,
    () => intake,
    weaving,
    {
      times: new SourceTimes(db),
      discovery: new Discovery(options.databaseUrl, declarations, sources),
      clocks,
      guard: new RoleGuard(declarations, identifiers, sources),
    },
    options.spool,
    (importId) => following.stopFor(importId),
  );
  const following: Following = new Following(new FollowRepository(db), sources, imports, options.spool);
  const intake: Intake = new Intake(options.databaseUrl, db, sources, declarations, names, partitions, {
    stored: (batch, source, from) => {
      words.giveWay();
      arrivals.stored(batch, from);
      weaving.stored(batch, source.growing);
    },
    trouble: (error) => log.warn({ err: error }, 'reading is held up and will be tried again'),
    sourcesEnded: async (ended) => {
      await coverage.learn(ended.map((source) => source.id));
      // tried again with the next source, and at the next start
      for (const importId of new Set(ended.map((source) => source.read_for))) void imports.checkEnd(importId).catch(() => {});
    },
  });
  words.consider();
  const dirty = await weaving.wasDirty();
  if (dirty || (await sources.due()).length > 0) {
    weaving.ask(true, true);
    void imports.takeUp().catch(() => {}); // the database is away: the next start takes up what is left
  }
  await following.start();
  return {
    endpoints: [
      ...overviewRoutes({
        demoAtHand: options.demo !== undefined,
        db,
        version: VERSION,
        sources,
        strands: strandRows,
        names,
        imports,
        search,
        weaving,
      }),
      ...recordRoutes(
        records,
        sources,
        bytes,
        presenter,
        find,
        ownCodes,
        new RecordExport(options.databaseUrl, scanner, searchables, { records, sources, identifiers, strands: strandRows, names }),
      ),
      ...explanationRoutes(ownCodes),
      ...ownPackageRoutes(new OwnPackages(db)),
      ...keptRoutes(kept, quiet),
      ...sourceTextRoutes(sourceTexts, new SourceTexts(sourceTexts, changes)),
      ...runbookRoutes(new RunbookRepository(db), new StepRunner(find, strands, search, changes, names)),
      ...strandRoutes(
        strands,
        new StrandBeside(strands, strandRows, declarations, names, presenter),
        new StrandSeriesService(strandRows, identifiers),
        new InCommonService(strandRows, records, identifiers, names),
        search,
        find,
        names,
      ),
      ...importRoutes(imports),
      ...followRoutes(following),
      ...liveRoutes(arrivals, new LiveSearch(scanner, presenter), sources, strands),
      ...sourceRoutes(sources, bytes, names, imports, records),
      ...hostRoutes(clocks, clockRows, imports),
      ...coverageRoutes(coverage, sources, names),
      ...changeRoutes(changes, changeRows),
      ...demoRoutes(options.demo ?? null, imports, (error) => log.error({ err: error }, 'the demo data could not be loaded')),
      ...declarationRoutes({
        declarations,
        sources,
        strands,
        imports,
        weaving,
        suggestions: new Suggestions(options.databaseUrl, declarations, names),
      }),
    ],
    async close() {
      await following.stop();
      await words.close();
      await intake.close();
      await imports.close();
      await weaving.close();
      await learning;
    },
  };
}
