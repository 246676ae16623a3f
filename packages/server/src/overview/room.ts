import type { Evidence } from '../evidence/room.ts';
import type { Gathering } from '../gathering/room.ts';
import type { Platform, Room } from '../platform/room.ts';
import type { Strands } from '../strands/room.ts';
import type { Weave } from '../weaving/room.ts';
import { overviewRoutes } from './overview-routes.ts';

/** What is loaded and what goes on, over all rooms; the finder's first answer. */
export function overviewRoom(
  { db, version }: Platform,
  { sources, names }: Evidence,
  { weaving, rows: strands }: Weave,
  { imports }: Gathering,
  { search }: Strands,
  demoAtHand: boolean,
): Room {
  return { endpoints: overviewRoutes({ demoAtHand, db, version, sources, strands, names, imports, search, weaving }) };
}
