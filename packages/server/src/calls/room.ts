import type { Evidence } from '../evidence/room.ts';
import { guarded } from '../platform/access.ts';
import type { Platform, Room } from '../platform/room.ts';
import type { Strands } from '../strands/room.ts';
import { CallRepository } from './call-rows.ts';
import { callRoutes } from './call-routes.ts';
import { CallService } from './calls.ts';

/** What is special to calls: the list, and messages between those who sent them. */
export function callsRoom({ data }: Platform, { evidence }: Evidence, { strands }: Strands): Room {
  return {
    endpoints: guarded((access) => {
      const { identifiers, names } = evidence.by(access);
      const own = strands.by(access);
      return callRoutes(new CallService(new CallRepository(data.by(access).db), own, identifiers, names), own);
    }),
  };
}
