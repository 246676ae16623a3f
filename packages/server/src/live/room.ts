import type { Evidence } from '../evidence/room.ts';
import type { Find } from '../find/room.ts';
import type { Platform, Room } from '../platform/room.ts';
import type { Strands } from '../strands/room.ts';
import { Arrivals } from './arrivals.ts';
import { LiveSearch } from './feed.ts';
import { liveRoutes } from './live-routes.ts';

/** What comes in, told as it does to those who watch. */
export function liveRoom({ happenings }: Platform, { sources }: Evidence, { scanner }: Find, { strands, presenter }: Strands): Room {
  const arrivals = new Arrivals();
  happenings.at('batch-stored', (batch) => arrivals.stored(batch));
  happenings.at('woven', () => arrivals.woven());
  return { endpoints: liveRoutes(arrivals, new LiveSearch(scanner, presenter), sources, strands) };
}
