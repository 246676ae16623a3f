import { Worker, type WorkerOptions } from 'node:worker_threads';

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
