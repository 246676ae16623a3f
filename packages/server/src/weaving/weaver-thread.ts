import type { Worker } from 'node:worker_threads';
import type { Batch } from '../evidence/batch.ts';
import { startWorker } from '../platform/threads.ts';
import type { FromWeaver, ToWeaver } from './weaving-worker.ts';

const LONGEST_CLOSING = 1500;

export type Woven = Extract<FromWeaver, { type: 'woven' }>;
type Order = Omit<Extract<ToWeaver, { type: 'weave' }>, 'type' | 'order'>;

/** The thread that weaves. Where it dies, whoever waits for it is told, and the next order finds a new one, which loads all from the database. */
export class WeaverThread {
  private worker: Worker | null = null;
  private orders = 0;
  private pending: { order: number; progress(done: number, of: number): void; resolve(woven: Woven): void; reject(error: Error): void } | null = null;
  private closing = false;

  constructor(
    private readonly url: string,
    /** The thread ended by itself. */
    private readonly died: (error: Error) => void,
  ) {
    this.start();
  }

  /** What a committed batch tells. A thread that is not there reads it back from the database when it comes. */
  stored({ seen, tied, glimpses }: Batch): void {
    this.post({ type: 'stored', seen, tied, glimpses }, [seen.buffer, tied.buffer, glimpses.rows.buffer, glimpses.places.buffer] as ArrayBuffer[]);
  }
  /** Sources are about to be read again from their beginning. */
  again(sources: readonly number[]): void {
    this.post({ type: 'again', sources });
  }
  /** Records that belong to these keys are others than before, and these keys are tied. */
  changed(keys: readonly number[], tied: readonly number[]): void {
    this.post({ type: 'changed', keys, tied });
  }
  /** Someone waits for what is stored to be tied. */
  hurry(): void {
    this.post({ type: 'hurry' });
  }
  /**
   * Weaves; one order at a time.
   *
   * @throws where it broke off, the thread died, or the signal was raised (then the thread may still be at it; a later order waits for that)
   */
  async weave(order: Order, progress: (done: number, of: number) => void, signal: AbortSignal): Promise<Woven> {
    const fresh = this.worker === null || order.fresh;
    if (!this.worker) this.start();
    const number = ++this.orders;
    return new Promise<Woven>((resolve, reject) => {
      const aborted = (): void => this.settle((pending) => pending.reject(signal.reason as Error));
      const after = (settle: () => void): void => {
        signal.removeEventListener('abort', aborted);
        settle();
      };
      this.pending = { order: number, progress, resolve: (woven) => after(() => resolve(woven)), reject: (error) => after(() => reject(error)) };
      signal.addEventListener('abort', aborted);
      if (signal.aborted) aborted();
      else this.post({ type: 'weave', order: number, ...order, fresh });
    });
  }
  /** A weaving that is under way is broken off: the database rolls it back. */
  async close(): Promise<void> {
    this.closing = true;
    const { worker } = this;
    if (!worker) return;
    const exited = new Promise((resolve) => worker.once('exit', resolve));
    this.post({ type: 'close' });
    const late = setTimeout(() => void worker.terminate(), LONGEST_CLOSING);
    await exited;
    clearTimeout(late);
  }

  private start(): void {
    const worker = startWorker('weaving/weaving-worker', { workerData: { url: this.url }, resourceLimits: { maxYoungGenerationSizeMb: 48 } });
    let why: Error | null = null;
    worker.on('message', (message: FromWeaver) => this.told(message));
    worker.on('error', (error: Error) => (why = error));
    worker.on('exit', () => {
      if (this.worker === worker) this.worker = null;
      if (this.closing) return;
      const error = new Error(`the thread that weaves ended${why ? `: ${why.message}` : ''}`);
      this.died(error);
      this.settle((pending) => pending.reject(error));
    });
    this.worker = worker;
  }
  private told(message: FromWeaver): void {
    if (message.order !== this.pending?.order) return; // of an order that was given up
    if (message.type === 'progress') this.pending.progress(message.done, message.of);
    else if (message.type === 'failed') this.settle((pending) => pending.reject(Object.assign(new Error(message.error), { code: message.code })));
    else this.settle((pending) => pending.resolve(message));
  }
  private settle(how: (pending: NonNullable<typeof this.pending>) => void): void {
    const { pending } = this;
    this.pending = null;
    if (pending) how(pending);
  }
  private post(message: ToWeaver, transfer: ArrayBuffer[] = []): void {
    this.worker?.postMessage(message, transfer);
  }
}
