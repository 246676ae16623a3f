import { askWorker } from '../../platform/threads.ts';
import type { CopiesAnswer, CopiesData } from './copies-worker.ts';

/** Longest comparing, in milliseconds: copies of a few million records each. */
const LONGEST = 1_800_000;

/** Finds sources that tell the same events as others, and takes their records out of sight: each event is one record, counted once. */
export class Copies {
  constructor(private readonly databaseUrl: string) {}

  /** Compares what was read since the last time. What is taken out of sight then stands in the database already. */
  run(): Promise<CopiesAnswer> {
    return askWorker<CopiesAnswer>('looks/copies/copies-worker', { databaseUrl: this.databaseUrl } satisfies CopiesData, LONGEST);
  }
}
