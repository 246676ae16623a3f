import { rm } from 'node:fs/promises';
import type { Worker } from 'node:worker_threads';
import type pg from 'pg';
import type { Encoding } from '@fadenweg/core/reading';
import type { Database } from '../../database/connect.ts';
import { isDatabaseAway, isTransient } from '../../database/failures.ts';
import { ownClient } from '../../database/own-client.ts';
import type { DeclarationRepository } from '../../declared/declarations.ts';
import type { Names } from '../../evidence/names.ts';
import type { SourceRepository, SourceRow } from '../../evidence/sources.ts';
import { startWorker } from '../../platform/threads.ts';
import type { Batch } from '../../evidence/batch.ts';
import type { NameLists, ReadingJob, ToReader } from './messages.ts';
import type { Partitions } from '../../database/partitions.ts';
import { isOwn, pump } from './pump.ts';
import { storeBatches, type Storing } from './store-batch.ts';

/** All else that a reader keeps; it is far less, but would be left to grow, in MB. */
const OLD = 256;
/** How long to wait before trying again when the database is away, in milliseconds. */
const RETRY = 1000;

/** Readers make much that dies at once; a larger nursery spares them most of the collecting, in MB. */
const YOUNG = 48;

/** Sources up to this size, in bytes, are stored together, so many at once: a transaction for each would take most of the time. */
const SMALL = 1 << 16;
const MOST_TOGETHER = 50;
/** After so many failures in a row a source is left. */
const MOST_FAILURES = 3;

export interface IntakeEvents {
  /** Batches are stored, and about to be committed: what is to be done for them is written beside. */
  storing(client: pg.Client, read: readonly Read[]): Promise<void>;
  /** They are committed. */
  stored(read: Read): void;
  /** Nothing more of them is read for now. */
  sourcesEnded(sources: readonly SourceRow[]): Promise<void>;
  /** Something keeps a lane from working; it tries again by itself. */
  trouble(error: Error): void;
}

/**
 * Reads waiting sources, a few at a time: each lane is a reading worker and a connection of its own.
 * Which sources wait, and how far each was read, stands in the database alone, so a killed process resumes from there.
 */
export class Intake {
  private readonly lanes: Promise<void>[] = [];
  private readonly cancelled = new Set<number>();
  private closing = false;
  private wake: (() => void)[] = [];
  /** Counted, so that none is lost while a lane is looking. */
  private pokes = 0;
  private readonly taken = new Set<number>();
  /** How often in a row reading a source failed for a reason that is not its own. */
  private readonly failures = new Map<number, number>();

  constructor(
    private readonly url: string,
    private readonly db: Database,
    private readonly sources: SourceRepository,
    private readonly declarations: DeclarationRepository,
    private readonly names: Names,
    private readonly partitions: Partitions,
    private readonly events: IntakeEvents,
    lanes = 2,
  ) {
    for (let i = 0; i < lanes; i++) this.lanes.push(this.lane());
  }

  /** What keeps sources from being read at the moment, null for nothing; it is tried again. */
  get heldUpBy(): string | null {
    return this.held;
  }
  private held: string | null = null;
  /** Whether a source is being read. */
  get busy(): boolean {
    return this.taken.size > 0;
  }
  /** There may be sources waiting. */
  poke(): void {
    this.pokes++;
    for (const wake of this.wake.splice(0)) wake();
  }
  /** Stops reading a source; what was stored of it is taken out by whoever cancels. Resolves when nothing more is written. */
  async cancel(sourceIds: readonly number[]): Promise<void> {
    for (const id of sourceIds) this.cancelled.add(id);
    while (sourceIds.some((id) => this.taken.has(id))) await new Promise((resolve) => setTimeout(resolve, 20));
    for (const id of sourceIds) this.cancelled.delete(id);
    this.poke();
  }
  async close(): Promise<void> {
    this.closing = true;
    this.poke();
    await Promise.all(this.lanes);
  }

  private async lane(): Promise<void> {
    let worker: Worker | null = null;
    let client: pg.Client | null = null;
    while (!this.closing) {
      try {
        client ??= await ownClient(this.url);
        worker ??= this.startReader(() => {
          worker = null;
        });
        const before = this.pokes;
        const sources = await this.next();
        if (sources.length === 0) {
          if (this.pokes === before && !this.closing) await new Promise<void>((resolve) => this.wake.push(resolve));
          continue;
        }
        try {
          await this.read(worker, client, sources);
          for (const { id } of sources) this.failures.delete(id);
          this.held = null;
        } catch (error) {
          await this.failed(sources, error as Error);
          throw error;
        } finally {
          for (const { id } of sources) this.taken.delete(id);
        }
      } catch (error) {
        // the source still waits in the database, and is taken up again
        this.held = (error as Error).message;
        this.events.trouble(error as Error);
        await client?.end().catch(() => {}); // it may be gone already
        client = null;
        await new Promise((resolve) => setTimeout(resolve, RETRY));
      }
    }
    await client?.end();
    await (worker as Worker | null)?.terminate();
  }

  /**
   * What keeps ending the thread, or fails each time for reasons unknown, is left, by its name; several that were read together are read one by one then.
   */
  private async failed(sources: readonly SourceRow[], error: Error): Promise<void> {
    if (isDatabaseAway(error) || isTransient(error) || this.closing) return;
    for (const { id } of sources) {
      const failures = (this.failures.get(id) ?? 0) + 1;
      this.failures.set(id, failures);
      if (failures < MOST_FAILURES) continue;
      this.failures.delete(id);
      await this.sources.change(id, { state: 'failed', error: error.message });
      await this.ended(sources.filter((one) => one.id === id));
    }
  }

  private startReader(gone: () => void): Worker {
    const worker = startWorker('gathering/intake/reading-worker', {
      resourceLimits: { maxYoungGenerationSizeMb: YOUNG, maxOldGenerationSizeMb: OLD },
    });
    worker.on('error', () => {}); // told to whoever waits for it, with its end
    worker.once('exit', gone);
    return worker;
  }

  private choosing: Promise<unknown> = Promise.resolve();
  /** One lane chooses at a time, so that no two take the same source. */
  private next(): Promise<SourceRow[]> {
    const chosen = this.choosing.then(() => this.choose());
    this.choosing = chosen.catch(() => {}); // told to the lane that asked
    return chosen;
  }

  /** What waits, or a dead process left half read, the smallest first, so that much is there soon: one source, or several small ones. */
  private async choose(): Promise<SourceRow[]> {
    const rows: SourceRow[] = await this.db('source')
      .whereIn('state', ['waiting', 'reading'])
      // one that is cancelled would be taken up again as soon as a lane lets it go, for ever
      .whereNotIn('id', [...this.taken, ...this.cancelled])
      .orderBy('size')
      .orderBy('id')
      .limit(MOST_TOGETHER);
    const few = rows.findIndex((row) => row.size > SMALL || this.failures.has(row.id));
    const chosen = few < 0 ? rows : rows.slice(0, Math.max(1, few));
    const ids = chosen.map((row) => row.id);
    for (const id of ids) this.taken.add(id);
    try {
      if (ids.length > 0) await this.sources.change(ids, { state: 'reading', error: null });
    } catch (error) {
      for (const id of ids) this.taken.delete(id);
      throw error;
    }
    return chosen;
  }

  private async read(worker: Worker, client: pg.Client, sources: readonly SourceRow[]): Promise<void> {
    const declarationsOf = await this.declarations.forReading();
    const jobOf = (source: SourceRow): Extract<ToReader, { type: 'read' }> => ({
      type: 'read',
      databaseUrl: this.url,
      declarations: declarationsOf(source.environment),
      job: this.jobOf(source),
    });
    const problems = new Map<number, string>();
    if (sources.length === 1) {
      const source = sources[0]!;
      let from = source.done_bytes;
      const take = async (batch: Batch): Promise<boolean> => {
        const stored = this.wanted(source) && (await this.store(client, [{ source, batch, from }])) > 0;
        from = batch.next.byte;
        return stored;
      };
      const problem = await pump(worker, jobOf(source), { idsOf: this.idsOf, take });
      if (problem !== null) problems.set(source.id, problem);
    } else {
      const read: Read[] = [];
      for (const source of sources) {
        const take = async (batch: Batch): Promise<boolean> => this.wanted(source) && read.push({ source, batch, from: source.done_bytes }) > 0;
        const problem = this.wanted(source) ? await pump(worker, jobOf(source), { idsOf: this.idsOf, take }) : null;
        if (problem !== null) problems.set(source.id, problem);
      }
      await this.storeTogether(client, read, problems);
    }
    for (const [id, error] of problems) await this.sources.change(id, { state: 'failed', error });
    await this.ended(sources);
  }

  /** In one transaction; where that does not do, each by itself, so that none keeps the others out. */
  private async storeTogether(client: pg.Client, read: readonly Read[], problems: Map<number, string>): Promise<void> {
    try {
      await this.store(client, read);
    } catch (error) {
      if (!isOwn(error as Error)) throw error;
      for (const one of read) {
        try {
          await this.store(client, [one]);
        } catch (own) {
          if (!isOwn(own as Error)) throw own;
          problems.set(one.source.id, (own as Error).message);
        }
      }
    }
  }
  private async store(client: pg.Client, read: readonly Read[]): Promise<number> {
    const stored = await storeBatches(client, this.partitions, read, (some) => this.events.storing(client, some));
    for (const one of read) if (stored.has(one.source.id)) this.events.stored(one);
    return stored.size;
  }
  private wanted({ id }: SourceRow): boolean {
    return !this.closing && !this.cancelled.has(id);
  }

  /** Files of what is read to its end are not needed any more. */
  private async ended(sources: readonly SourceRow[]): Promise<void> {
    const ended = (await this.sources.byNumbers(sources.map((source) => source.id))).filter(({ id }) => !this.cancelled.has(id));
    const done = ended.flatMap(({ id, state, spool }) => (state === 'done' && spool !== null ? [{ id, spool }] : []));
    // first that they are not needed: where this ends in between, a file is left over, and none is looked for that is gone
    for (const file of await this.sources.forgetFiles(done)) await rm(file, { force: true });
    if (ended.length > 0) await this.events.sourcesEnded(ended);
  }

  private jobOf(source: SourceRow): ReadingJob {
    return {
      sourceId: source.id,
      file: source.spool,
      fileFrom: source.spool_from,
      growing: source.growing,
      size: source.size,
      path: source.path,
      format: source.format,
      encoding: source.encoding as Encoding,
      zone: source.zone,
      hints: source.hints,
      componentId: source.component_id,
      component: this.names.component(source.component_id),
      hostId: source.host_id,
      host: this.names.host(source.host_id),
      ownComponents: !source.component_fixed,
      ownHosts: !source.host_fixed,
      from: { byte: source.done_bytes, line: source.done_lines + 1, inside: source.reader_state?.inside === true },
      state: source.reader_state,
    };
  }

  private readonly idsOf = async (names: NameLists<string[]>): Promise<NameLists<[string, number][]>> => {
    const ids: NameLists<[string, number][]> = { component: [], host: [] };
    for (const table of ['component', 'host'] as const) {
      for (const name of names[table]) ids[table].push([name, await this.names.idOf(table, name)]);
    }
    return ids;
  };
}

/** A batch of a source, as the source stood before. */
export interface Read extends Storing {
  source: SourceRow;
}
