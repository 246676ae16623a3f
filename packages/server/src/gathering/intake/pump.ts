import type { Worker } from 'node:worker_threads';
import type { Batch } from '../../evidence/batch.ts';
import type { FromReader, NameLists, ToReader } from './messages.ts';

/** What becomes of what a reading worker tells. */
export interface Pumped {
  /** Numbers of names that records gave to their component and host. */
  idsOf(names: NameLists<string[]>): Promise<NameLists<[string, number][]>>;
  /** Takes a batch; one after the other. False where no more of the source is wanted. */
  take(batch: Batch): Promise<boolean>;
}

/** Whether an error says that the database is away, so that the same has to be tried again. */
export const isAway = (error: Error & { code?: string }): boolean =>
  error.code === undefined || /^(?:57|08|53)/.test(error.code) || /^E[A-Z]+$/.test(error.code);

/**
 * Has a worker read a source while its batches are taken in order.
 *
 * @returns what went wrong in the source, or null
 * @throws what keeps batches from being stored at all: the database is away
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
          const settle = (): void => (isAway(error) ? reject(error) : resolve(error.message));
          if (batch.last) finish(settle);
          else stop(settle);
        });
    };
    worker.on('message', onMessage);
    worker.on('error', onError);
    worker.postMessage(job);
  });
}
