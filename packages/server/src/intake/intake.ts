import { rm } from 'node:fs/promises';
import type { Worker } from 'node:worker_threads';
import type pg from 'pg';
import type { Encoding } from '@fadenweg/core';
import { ownClient, type Database } from '../database/connect.ts';
import type { DeclarationRepository } from '../repositories/declarations.ts';
import type { Names } from '../repositories/names.ts';
import type { SourceRepository, SourceRow } from '../repositories/sources.ts';
import { startWorker } from '../services/workers.ts';
import type { Batch, FromReader, NameLists, ToReader } from './batch.ts';
import type { Partitions } from './partitions.ts';
import { storeBatch } from './store-batch.ts';

/** All else that a reader keeps; it is far less, but would be left to grow, in MB. */
const OLD = 256;
/** How long to wait before trying again when the database is away, in milliseconds. */
const RETRY = 1000;

/** Readers make much that dies at once; a larger nursery spares them most of the collecting, in MB. */
const YOUNG = 48;

export interface IntakeEvents {
  /** @param from the first byte of the source that the batch holds */
  stored(batch: Batch, source: SourceRow, from: number): void;
  sourceEnded(source: SourceRow): Promise<void>;
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
        const source = await this.next();
        if (!source) {
          if (this.pokes === before && !this.closing) await new Promise<void>((resolve) => this.wake.push(resolve));
          continue;
        }
        try {
          await this.read(worker, client, source);
        } finally {
          this.taken.delete(source.id);
        }
      } catch (error) {
        // the source still waits in the database, and is taken up again
        this.events.trouble(error as Error);
        await client?.end().catch(() => {}); // it may be gone already
        client = null;
        await new Promise((resolve) => setTimeout(resolve, RETRY));
      }
    }
    await client?.end();
    await (worker as Worker | null)?.terminate();
  }

  private startReader(gone: () => void): Worker {
    const worker = startWorker('intake/reading-worker', { resourceLimits: { maxYoungGenerationSizeMb: YOUNG, maxOldGenerationSizeMb: OLD } });
    worker.on('error', (error) => this.events.trouble(error));
    worker.once('exit', gone);
    return worker;
  }

  private choosing: Promise<unknown> = Promise.resolve();
  /** One lane chooses at a time, so that no two take the same source. */
  private next(): Promise<SourceRow | null> {
    const chosen = this.choosing.then(() => this.choose());
    this.choosing = chosen.catch(() => {}); // told to the lane that asked
    return chosen;
  }

  /** The next source that waits, or that a dead process left half read; the smallest first, so that much is there soon. */
  private async choose(): Promise<SourceRow | null> {
    const rows: SourceRow[] = await this.db('source')
      .whereIn('state', ['waiting', 'reading'])
      .whereNotIn('id', [...this.taken])
      .orderBy('size')
      .orderBy('id')
      .limit(1);
    const source = rows[0];
    if (!source) return null;
    this.taken.add(source.id);
    await this.sources.change(source.id, { state: 'reading', error: null });
    return source;
  }

  private async read(worker: Worker, client: pg.Client, source: SourceRow): Promise<void> {
    const job: Extract<ToReader, { type: 'read' }> = {
      type: 'read',
      databaseUrl: this.url,
      declarations: await this.declarations.forReading(),
      job: {
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
      },
    };
    const problem = await this.pump(worker, client, job, source);
    if (problem !== null) await this.sources.change(source.id, { state: 'failed', error: problem });
    const ended = await this.sources.source(source.id);
    if (!ended || this.cancelled.has(source.id)) return;
    if (ended.state === 'done' && ended.spool) {
      await rm(ended.spool, { force: true });
      await this.sources.change(source.id, { spool: null });
    }
    await this.events.sourceEnded(ended);
  }

  private async idsOf(names: NameLists<string[]>): Promise<NameLists<[string, number][]>> {
    const ids: NameLists<[string, number][]> = { component: [], host: [] };
    for (const table of ['component', 'host'] as const) {
      for (const name of names[table]) ids[table].push([name, await this.names.idOf(table, name)]);
    }
    return ids;
  }

  /** Stores batches in order while the worker reads ahead. Resolves with what went wrong in the source, or null; rejects when the database is away. */
  private pump(worker: Worker, client: pg.Client, job: Extract<ToReader, { type: 'read' }>, source: SourceRow): Promise<string | null> {
    return new Promise((resolve, reject) => {
      let position = source.done_bytes;
      let storing = Promise.resolve();
      let over = false;
      let allReceived = false;
      const finish = (settle: () => void): void => {
        over = true;
        worker.off('message', onMessage);
        worker.off('error', onError);
        settle();
      };
      const stop = (settle: () => void): void => {
        if (over) return;
        over = true;
        if (allReceived) return finish(settle);
        worker.off('message', onMessage);
        const stopped = (message: FromReader): void => {
          if (message.type === 'batch' && !message.batch.last) return;
          worker.off('message', stopped);
          finish(settle);
        };
        worker.on('message', stopped);
        worker.postMessage({ type: 'stop' } satisfies ToReader);
      };
      const onError = (error: Error): void => finish(() => reject(error));
      const onMessage = (message: FromReader): void => {
        if (message.type === 'failed') {
          allReceived = true;
          storing = storing.then(() => {
            if (!over) finish(() => resolve(message.error));
          });
          return;
        }
        if (message.type === 'names') {
          this.idsOf(message.names).then(
            (ids) => worker.postMessage({ type: 'named', ids } satisfies ToReader),
            (error: Error) => finish(() => reject(error)),
          );
          return;
        }
        if (message.type !== 'batch') return;
        const { batch } = message;
        allReceived = batch.last;
        storing = storing
          .then(async () => {
            if (over) return;
            if (this.closing || this.cancelled.has(source.id)) {
              if (batch.last) finish(() => resolve(null));
              else stop(() => resolve(null));
              return;
            }
            const stored = await storeBatch(client, this.partitions, batch, position);
            const from = position;
            position = batch.next.byte;
            if (stored) this.events.stored(batch, source, from);
            if (batch.last) finish(() => resolve(null));
            else if (!stored) stop(() => resolve(null));
            else worker.postMessage({ type: 'more' } satisfies ToReader);
          })
          .catch((error: Error & { code?: string }) => {
            const away = error.code === undefined || /^(?:57|08|53)/.test(error.code) || /^E[A-Z]+$/.test(error.code);
            const settle = (): void => (away ? reject(error) : resolve(error.message));
            if (batch.last) finish(settle);
            else stop(settle);
          });
      };
      worker.on('message', onMessage);
      worker.on('error', onError);
      worker.postMessage(job);
    });
  }
}
