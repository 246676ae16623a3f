import type { Evidence } from '../evidence/room.ts';
import type { Platform, Room } from '../platform/room.ts';
import { keptRoutes } from './kept-routes.ts';
import { KeptRepository } from './kept.ts';
import { QuietRules } from './quiet-rules.ts';

/** What people keep: searches, column sets, rules that take noise out of sight. */
export interface Kept extends Room {
  quiet: QuietRules;
}

export function keptRoom({ db }: Platform, { sources, names }: Evidence): Kept {
  const kept = new KeptRepository(db);
  const quiet = new QuietRules(kept, sources, names);
  return { quiet, endpoints: keptRoutes(kept, quiet) };
}
