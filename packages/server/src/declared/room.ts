import type { Evidence } from '../evidence/room.ts';
import type { Reread } from '../evidence/reread.ts';
import type { Platform, Room } from '../platform/room.ts';
import type { Weave } from '../weaving/room.ts';
import { declarationRoutes } from './declaration-routes.ts';
import { DeclarationRepository } from './declarations.ts';

/** What people say about their data: kinds of identifiers, flows, what messages mean. */
export interface Declared extends Room {
  declarations: DeclarationRepository;
}

/** @param reread what reads sources again; it stands above this room, and is there before the first call */
export function declaredRoom({ db, happenings }: Platform, { sources }: Evidence, { weaving, rows }: Weave, reread: () => Reread): Declared {
  const declarations = new DeclarationRepository(db);
  happenings.at('woven', () => declarations.forget()); // what is usual may have been learned anew
  return { declarations, endpoints: declarationRoutes({ declarations, sources, strands: rows, reread, weaving }) };
}
