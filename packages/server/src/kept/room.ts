import type { KnownFaults } from '../evidence/known-faults.ts';
import type { Evidence } from '../evidence/room.ts';
import { Access, guarded, type Guarded } from '../platform/access.ts';
import type { Platform, Room } from '../platform/room.ts';
import { keptRoutes } from './kept-routes.ts';
import { KeptRepository } from './kept.ts';
import { Parameters } from './parameters.ts';
import { QuietRules } from './quiet-rules.ts';
import { weightRoutes } from './weight-routes.ts';
import { WeighedByPeople } from './weights.ts';

/** What people keep: searches, column sets, rules that take noise out of sight. */
export interface Kept extends Room {
  quiet: Guarded<QuietRules>;
  weights: Guarded<WeighedByPeople>;
  parameters: Guarded<Parameters>;
}

/** @param faults what is known of faults; it stands above this room, and is there before the first call */
export function keptRoom({ data, happenings, work }: Platform, { evidence }: Evidence, faults: () => Guarded<KnownFaults>): Kept {
  const kept = guarded((access) => new KeptRepository(data.by(access).db));
  const rules = new QuietRules(kept.by(Access.ownWork), evidence.by(Access.ownWork), () => faults().by(Access.ownWork));
  const weighed = new WeighedByPeople(kept.by(Access.ownWork));
  const weights = guarded(() => weighed);
  const named = new Parameters(data.by(Access.ownWork).db);
  const parameters = guarded(() => named);
  const quiet = guarded(() => rules); // the rules are everybody's
  work.add({ name: 'learn-quiet', label: 'Learning what recurs', run: () => rules.learn() });
  happenings.add({
    name: 'learn-quiet',
    kinds: ['woven'],
    hear: async () => void (await work.ask('learn-quiet', { why: 'records came in', who: Access.ownWork.who, args: null })),
  });
  return {
    quiet,
    weights,
    parameters,
    endpoints: guarded((access) => [...keptRoutes(kept.by(access), quiet.by(access)), ...weightRoutes(kept.by(access), weights.by(access))]),
  };
}
