import type { WorkerOptions } from 'node:worker_threads';

/** Built, a worker is plain JavaScript; run from source (tests), it needs the same loader as its parent. */
export const workerOptions = (): WorkerOptions =>
  import.meta.url.endsWith('.ts') ? { execArgv: ['--import', 'tsx', '--conditions=source'] } : {};
