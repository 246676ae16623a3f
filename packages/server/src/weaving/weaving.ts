import type { Worker } from 'node:worker_threads';
import type { OverJoining } from '@fadenweg/core';
import type { Batch } from '../evidence/batch.ts';
import type { Database } from '../database/connect.ts';
import { startWorker } from '../platform/threads.ts';
import { Spent } from './spent.ts';
import type { FromWeaver, ToWeaver } from './weaving-worker.ts';

/** While sources are read, weaving takes at most about this share of the time. */
const SHARE = 0.2;
const SHORTEST_PAUSE = 1500;
const LONGEST_CLOSING = 1500;
/** A short import is woven once, at its end; a long one for the first time after this, in milliseconds. */
const FIRST_PAUSE = 30_000;
/** What is read again is woven as a whole, and that again at its end: only where it takes long is it woven in between. */
const AGAIN_PAUSE = 300_000;

/**
 * Keeps strands in step with what is stored: one worker, which is told of every batch and weaves in pauses that grow with its work.
 * Whether anything is left to weave stands in the database, so that a killed process catches up when it starts again.
 */
export class Weaving {
  private readonly worker: Worker;
  private dirty = false;
  private busy = false;
  /** What was woven last while sources were being read is not carried over yet. */
  private uncarried = false;
  private wanted: { all: boolean; fresh: boolean } | null = null;
  /** What is wanted may wait until more is read. */
  private patient = false;
  private pausedUntil = 0;
  /** When the last weaving is long enough ago. */
  private restedAt = 0;
  private timer: NodeJS.Timeout | null = null;
  /** Who waits: for all, or only until what is stored is tied. */
  private waiting: { judged: boolean; resolve: () => void }[] = [];
  /** What was tied last is not judged yet. */
  private unjudged = false;
  private closing = false;
  /** What stands in the database about it, null while that is not known. */
  private marked: boolean | null = null;
  behind = 0;
  /** How long each kind of its work has taken since the start, in milliseconds. */
  spent = new Spent().ms;
  /** Kinds of links that joined too much, as of the last whole weaving. */
  joining: readonly OverJoining[] = [];

  /**
   * @param reading whether sources are being read at the moment
   * @param woven called after each weaving: strands, and what is usual, may have changed
   */
  constructor(
    url: string,
    private readonly db: Database,
    private readonly reading: () => boolean,
    private readonly woven: () => void,
  ) {
    this.worker = startWorker('weaving/weaving-worker', { workerData: { url }, resourceLimits: { maxYoungGenerationSizeMb: 48 } });
    this.worker.on('message', (message: FromWeaver) => this.told(message));
  }

  /** Something is woven, or waits to be. */
  get atWork(): boolean {
    return this.busy || this.dirty || this.uncarried || this.unjudged || this.wanted !== null;
  }
  /**
   * A batch was committed.
   *
   * @param followed it comes from a file that grows: nobody waits for its end, and it is woven as soon as it may
   */
  stored(batch: Batch, followed = false): void {
    if (!this.dirty && !this.busy && !followed) this.pausedUntil = Math.max(this.pausedUntil, Date.now() + FIRST_PAUSE);
    this.dirty = true;
    const { seen, tied, glimpses } = batch;
    this.worker.postMessage({ type: 'stored', seen, tied, glimpses } satisfies ToWeaver, [
      seen.buffer,
      tied.buffer,
      glimpses.rows.buffer,
      glimpses.places.buffer,
    ] as ArrayBuffer[]);
    this.schedule();
  }
  /** Asks for a weaving now. */
  ask(all: boolean, fresh: boolean): void {
    this.want(all, fresh);
    this.patient = false;
    if (this.timer) clearTimeout(this.timer);
    this.timer = null;
    this.schedule();
  }
  /**
   * Asks for a weaving of what is stored by now, once what is read again is there or after a while: whoever sees that all is read asks for it at once.
   *
   * @param all also of what is not named in what is read again
   */
  askLater(all: boolean): void {
    this.patient = true;
    this.pausedUntil = Math.max(this.pausedUntil, Date.now() + AGAIN_PAUSE);
    this.want(all, true);
    this.schedule();
  }
  /** Asks for a weaving as soon as the last one is long enough ago. */
  soon(): void {
    this.pausedUntil = Math.min(this.pausedUntil, this.restedAt);
    this.want(false, false);
    this.patient = true;
    if (this.timer) clearTimeout(this.timer);
    this.timer = null;
    this.schedule();
  }
  private want(all: boolean, fresh: boolean): void {
    this.wanted = { all: all || (this.wanted?.all ?? false), fresh: fresh || (this.wanted?.fresh ?? false) };
  }
  /** Resolves when all that is stored is woven. */
  settle(): Promise<void> {
    return this.wait(true);
  }
  /** Resolves when it stands what belongs to which strand of all that is stored; strands may be judged later. */
  tied(): Promise<void> {
    return this.wait(false);
  }
  private wait(judged: boolean): Promise<void> {
    if (!this.atWork) return Promise.resolve();
    if (this.timer) clearTimeout(this.timer);
    this.timer = null;
    const done = new Promise<void>((resolve) => this.waiting.push({ judged, resolve }));
    // what is judged now may have to be judged again for what whoever waits finds out
    if (this.busy && this.waiting.every((one) => !one.judged)) this.post({ type: 'hurry' });
    this.schedule();
    return done;
  }
  /** Sources are about to be read again from their beginning. */
  again(sources: readonly number[]): void {
    this.post({ type: 'again', sources });
  }
  /** Ends the worker. A weaving that is under way is broken off: the database rolls it back, and the mark that stands there makes the next start do it again. */
  async close(): Promise<void> {
    this.closing = true;
    if (this.timer) clearTimeout(this.timer);
    const exited = new Promise((resolve) => this.worker.once('exit', resolve));
    this.post({ type: 'close' });
    const late = setTimeout(() => void this.worker.terminate(), LONGEST_CLOSING);
    await exited;
    clearTimeout(late);
  }
  /** Keeps in the database whether something may be stored that is not woven yet. */
  async markDirty(dirty: boolean): Promise<void> {
    if (dirty === this.marked) return;
    this.marked = null;
    await this.db('mark')
      .insert({ name: 'unwoven', value: String(dirty) })
      .onConflict('name')
      .merge();
    this.marked = dirty;
  }
  async wasDirty(): Promise<boolean> {
    const row: { value: string } | undefined = await this.db('mark').where({ name: 'unwoven' }).first('value');
    return row?.value === 'true';
  }

  private schedule(): void {
    if (this.busy || this.timer || this.closing) return;
    // whoever waits for the end of an import is not kept waiting
    const wait = this.waiting.length > 0 || (this.wanted && !this.patient) ? 0 : Math.max(0, this.pausedUntil - Date.now());
    this.timer = setTimeout(
      () => {
        this.timer = null;
        this.start();
      },
      Math.max(wait, this.reading() ? 400 : 20),
    );
  }
  private start(): void {
    const { all, fresh } = this.wanted ?? { all: false, fresh: false };
    this.wanted = null;
    this.patient = false;
    this.dirty = false;
    this.busy = true;
    // who waits for the end of an import waits for what is carried over too, and not for the reading of others
    this.uncarried = this.reading() && this.waiting.length === 0;
    this.unjudged = this.waiting.length > 0 && this.waiting.every((one) => !one.judged);
    this.post({ type: 'weave', all, fresh, carrying: !this.uncarried, judging: !this.unjudged, ending: this.waiting.length > 0 });
  }
  private told(message: FromWeaver): void {
    if (message.type === 'progress') {
      this.behind = message.of - message.done;
      return;
    }
    this.busy = false;
    this.behind = 0;
    if (message.type === 'failed') {
      console.error(`Weaving broke off and is done again: ${message.error}`);
      this.wanted = { all: true, fresh: true };
      this.pausedUntil = Date.now() + 3000;
      setTimeout(() => this.schedule(), 3000).unref();
      return;
    }
    this.spent = message.spent;
    this.unjudged ||= message.left;
    if (message.joining) this.joining = message.joining;
    this.woven();
    this.restedAt = Date.now() + Math.max(SHORTEST_PAUSE, message.ms * (1 / SHARE - 1));
    this.pausedUntil = this.unjudged ? Date.now() + FIRST_PAUSE : this.restedAt;
    if (!this.dirty && !this.wanted) {
      const served = (one: { judged: boolean }): boolean => !one.judged || (!this.unjudged && !this.uncarried);
      const done = this.waiting.filter(served);
      this.waiting = this.waiting.filter((one) => !served(one));
      for (const { resolve } of done) resolve();
    }
    if (this.dirty || this.wanted || this.unjudged || this.waiting.length > 0 || (this.uncarried && !this.reading())) this.schedule();
  }
  private post(message: ToWeaver): void {
    this.worker.postMessage(message);
  }
}
