import { once } from 'node:events';
import { setFlagsFromString } from 'node:v8';
import { Worker, type WorkerOptions } from 'node:worker_threads';

/**
 * Old objects of a thread may come to so much, in MB, before they are collected for the first time. An engine that begins with a few MB goes through all of them
 * over and over while they grow: two thirds of all such collecting in an import. It holds for threads that are started from now on.
 */
setFlagsFromString('--initial-old-space-size=64');

/**
 * Asks a worker thread that answers with one message.
 *
 * @param longest milliseconds after which it is ended, and the question fails
 */
export async function askWorker<Answer>(path: string, workerData: unknown, longest: number): Promise<Answer> {
  const worker = startWorker(path, { workerData });
  const timer = setTimeout(() => void worker.terminate(), longest);
  try {
    const [answer] = (await Promise.race([
      once(worker, 'message'),
      once(worker, 'exit').then(() => {
        throw new Error('the search was ended before it had an answer');
      }),
    ])) as [Answer];
    return answer;
  } finally {
    clearTimeout(timer);
  }
}

/**
 * Starts a worker thread of this package. Threads always run the built code, also where their parent runs from source (tests),
 * since a loader for TypeScript does not reach into them.
 *
 * @param path below the package's folder of code, without its ending
 */
export function startWorker(path: string, options: WorkerOptions = {}): Worker {
  const base = import.meta.url.replace(/\/src\/platform\/threads\.ts$/, '/dist/').replace(/\/platform\/threads\.js$/, '/');
  return new Worker(new URL(`${path}.js`, base), { execArgv: [], ...options });
}
