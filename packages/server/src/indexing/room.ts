import type { Partitions } from '../database/partitions.ts';
import { Access, guarded } from '../platform/access.ts';
import type { Platform, Room } from '../platform/room.ts';
import { WordIndex } from './word-index.ts';

/**
 * Words of days that no longer grow, indexed when nothing else is to be done.
 *
 * @param busy records are being stored or woven
 * @param after quiet time before it begins, in milliseconds
 */
export function indexingRoom(platform: Platform, partitions: Partitions, busy: () => boolean, after?: number): Room {
  const { happenings, work } = platform;
  const words = new WordIndex(work, platform.data.by(Access.ownWork), partitions, busy, after);
  work.add(words.kind);
  happenings.at('batch-stored', () => words.giveWay());
  happenings.add({ name: 'index-words', kinds: ['woven'], hear: () => words.consider() });
  return { endpoints: guarded(() => []), start: () => words.consider() };
}
