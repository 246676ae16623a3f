import { once } from 'node:events';
import { Worker, type WorkerOptions } from 'node:worker_threads';

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
  const base = import.meta.url.replace(/\/src\/services\/workers\.ts$/, '/dist/').replace(/\/services\/workers\.js$/, '/');
  return new Worker(new URL(`${path}.js`, base), { execArgv: [], ...options });
}
