import type { Partitions } from '../database/partitions.ts';
import type { Platform, Room } from '../platform/room.ts';
import { WordIndex } from './word-index.ts';

/** Words of days that no longer grow, indexed when nothing else is to be done. */
export interface Indexing extends Room {
  words: WordIndex;
}

/**
 * @param busy records are being stored or woven
 * @param after quiet time before it begins, in milliseconds
 */
export function indexingRoom({ databaseUrl, db, log }: Platform, partitions: Partitions, busy: () => boolean, after?: number): Indexing {
  const trouble = (error: Error): void => log.warn({ err: error }, 'words could not be indexed; it is tried again after the next import');
  const words = new WordIndex(databaseUrl, db, partitions, { busy, trouble }, after);
  return {
    words,
    endpoints: [],
    async start() {
      words.consider();
    },
    close: () => words.close(),
  };
}
