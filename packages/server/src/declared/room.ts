import type { Evidence } from '../evidence/room.ts';
import type { Reread } from '../evidence/reread.ts';
import { guarded, type Guarded } from '../platform/access.ts';
import type { Platform, Room } from '../platform/room.ts';
import type { Weave } from '../weaving/room.ts';
import { declarationRoutes } from './declaration-routes.ts';
import { DeclarationRepository, KnownDeclarations } from './declarations.ts';

/** What people say about their data: kinds of identifiers, flows, what messages mean. */
export interface Declared extends Room {
  declarations: Guarded<DeclarationRepository>;
}

/** @param reread what reads sources again; it stands above this room, and is there before the first call */
export function declaredRoom({ data, happenings }: Platform, { evidence }: Evidence, { weaving, rows }: Weave, reread: () => Reread): Declared {
  const known = new KnownDeclarations();
  happenings.at('woven', () => known.forget()); // what is usual may have been learned anew
  const declarations = guarded((access) => new DeclarationRepository(data.by(access).db, known));
  return {
    declarations,
    endpoints: guarded((access) =>
      declarationRoutes({
        declarations: declarations.by(access),
        sources: evidence.by(access).sources,
        strands: rows.by(access),
        reread,
        weaving,
      }),
    ),
  };
}
