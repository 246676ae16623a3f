import type { Evidence } from '../evidence/room.ts';
import { Access, guarded, type Guarded } from '../platform/access.ts';
import type { Platform, Room } from '../platform/room.ts';
import { keptRoutes } from './kept-routes.ts';
import { KeptRepository } from './kept.ts';
import { QuietRules } from './quiet-rules.ts';

/** What people keep: searches, column sets, rules that take noise out of sight. */
export interface Kept extends Room {
  quiet: Guarded<QuietRules>;
}

export function keptRoom({ data, happenings, work }: Platform, { evidence }: Evidence): Kept {
  const kept = guarded((access) => new KeptRepository(data.by(access).db));
  const rules = new QuietRules(kept.by(Access.ownWork), evidence.by(Access.ownWork));
  const quiet = guarded(() => rules); // the rules are everybody's
  work.add({ name: 'learn-quiet', label: 'Learning what recurs', run: () => rules.learn() });
  happenings.add({
    name: 'learn-quiet',
    kinds: ['woven'],
    hear: async () => void (await work.ask('learn-quiet', { why: 'records came in', who: Access.ownWork.who, args: null })),
  });
  return { quiet, endpoints: guarded((access) => keptRoutes(kept.by(access), quiet.by(access))) };
}
