import type { ChangesRoom } from '../changes/room.ts';
import { labelIn } from '../declared/declarations.ts';
import type { Declared } from '../declared/room.ts';
import type { Evidence } from '../evidence/room.ts';
import { guarded } from '../platform/access.ts';
import type { Room } from '../platform/room.ts';
import type { Rollups } from '../rollups/room.ts';
import { againstRoutes } from './against-routes.ts';
import { AgainstService } from './against.ts';
import { Things } from './things.ts';

/** One thing beside all others of its kind. */
export function againstRoom({ evidence }: Evidence, { declarations }: Declared, { changes }: ChangesRoom, rollups: Rollups): Room {
  return {
    endpoints: guarded((access) => {
      const { identifiers, names } = evidence.by(access);
      const declared = declarations.by(access);
      const things = new Things(names, identifiers, declared, changes.by(access));
      const labels = async (): Promise<(flow: string) => string> => labelIn(await declared.flows());
      return againstRoutes(new AgainstService(rollups.against.by(access), rollups.sums.by(access), things, identifiers, names, labels));
    }),
  };
}
