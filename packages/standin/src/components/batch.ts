import { localText, offsetText, type Micros } from '../writing/times.ts';

export const BATCH = 'batch/batch.log';
/** Integration jobs: text with offset, run id in brackets. */
export const batchLine = (at: Micros, run: string, level: string, job: string, message: string): string =>
  `${localText(at, 'T')}${offsetText(at, '')} [${run}] ${level} ${job}: ${message}`;
