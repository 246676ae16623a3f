import type { Evidence } from '../evidence/room.ts';
import type { Platform, Room } from '../platform/room.ts';
import { keptRoutes } from './kept-routes.ts';
import { KeptRepository } from './kept.ts';
import { QuietRules } from './quiet-rules.ts';

/** What people keep: searches, column sets, rules that take noise out of sight. */
export interface Kept extends Room {
  quiet: QuietRules;
}

export function keptRoom({ db, happenings, work }: Platform, { sources, names }: Evidence): Kept {
  const kept = new KeptRepository(db);
  const quiet = new QuietRules(kept, sources, names);
  work.add({ name: 'learn-quiet', label: 'Learning what recurs', run: () => quiet.learn() });
  happenings.add({
    name: 'learn-quiet',
    kinds: ['woven'],
    hear: async () => void (await work.ask('learn-quiet', { why: 'records came in', who: 'supplied', args: null })),
  });
  return { quiet, endpoints: keptRoutes(kept, quiet) };
}
