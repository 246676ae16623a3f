import type { Declared } from '../declared/room.ts';
import type { Evidence } from '../evidence/room.ts';
import { guarded } from '../platform/access.ts';
import type { Platform, Room } from '../platform/room.ts';
import type { Strands } from '../strands/room.ts';
import { DataRepository } from './data-rows.ts';
import { dataRoutes } from './data-routes.ts';
import { DataService } from './data.ts';

/** What runs touch: files, tables and feeds. */
export function dataRoom({ data }: Platform, { evidence }: Evidence, { declarations }: Declared, { strands }: Strands): Room {
  return {
    endpoints: guarded((access) => {
      const own = strands.by(access);
      const service = new DataService(new DataRepository(data.by(access).db), own, declarations.by(access), evidence.by(access).identifiers);
      return dataRoutes(service, own);
    }),
  };
}
