import type { Worker } from 'node:worker_threads';
import { isDatabaseAway, isTransient } from '../../database/failures.ts';
import type { Batch } from '../../evidence/batch.ts';
import type { FromReader, NameLists, ToReader } from './messages.ts';

/** What becomes of what a reading worker tells. */
export interface Pumped {
  /** Numbers of names that records gave to their component and host. */
  idsOf(names: NameLists<string[]>): Promise<NameLists<[string, number][]>>;
  /** Takes a batch; one after the other. False where no more of the source is wanted. */
  take(batch: Batch): Promise<boolean>;
}

/** A thread that read ended by itself, or was ended from outside. */
export class ReaderDied extends Error {
  constructor(why: Error | null) {
    super(`the thread that read it ended${why ? `: ${why.message}` : ''}`);
  }
}
/** What comes of the source itself: it is not tried again. */
export const isOwn = (error: Error & { code?: string }): boolean => error.code !== undefined && !isDatabaseAway(error) && !isTransient(error);

/**
 * Has a worker read a source while its batches are taken in order.
 *
 * @returns what went wrong in the source, or null
 * @throws what keeps batches from being stored at all: the database is away; or `ReaderDied`, where the thread ended over it
 */
export function pump(worker: Worker, job: Extract<ToReader, { type: 'read' }>, use: Pumped): Promise<string | null> {
  return new Promise((resolve, reject) => {
    let taking = Promise.resolve();
    let over = false;
    let allReceived = false;
    const finish = (settle: () => void): void => {
      over = true;
      worker.off('message', onMessage);
      worker.off('error', onError);
      worker.off('exit', onExit);
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
    let why: Error | null = null;
    const onError = (error: Error): void => {
      why = error; // the thread ends of it
    };
    const onExit = (): void => finish(() => reject(new ReaderDied(why)));
    const onMessage = (message: FromReader): void => {
      if (message.type === 'failed') {
        allReceived = true;
        taking = taking.then(() => {
          if (!over) finish(() => resolve(message.error));
        });
        return;
      }
      if (message.type === 'names') {
        use.idsOf(message.names).then(
          (ids) => worker.postMessage({ type: 'named', ids } satisfies ToReader),
          (error: Error) => finish(() => reject(error)),
        );
        return;
      }
      if (message.type !== 'batch') return;
      const { batch } = message;
      allReceived = batch.last;
      taking = taking
        .then(async () => {
          if (over) return;
          const wanted = await use.take(batch);
          if (batch.last) finish(() => resolve(null));
          else if (!wanted) stop(() => resolve(null));
          else worker.postMessage({ type: 'more' } satisfies ToReader);
        })
        .catch((error: Error) => {
          const settle = (): void => (isOwn(error) ? resolve(error.message) : reject(error));
          if (batch.last) finish(settle);
          else stop(settle);
        });
    };
    worker.on('message', onMessage);
    worker.on('error', onError);
    worker.on('exit', onExit);
    worker.postMessage(job);
  });
}
