import type { Evidence } from '../evidence/room.ts';
import type { Find } from '../find/room.ts';
import type { Room } from '../platform/room.ts';
import type { Strands } from '../strands/room.ts';
import { Arrivals } from './arrivals.ts';
import { LiveSearch } from './feed.ts';
import { liveRoutes } from './live-routes.ts';

/** What comes in, told as it does to those who watch. */
export interface Live extends Room {
  arrivals: Arrivals;
}

export function liveRoom({ sources }: Evidence, { scanner }: Find, { strands, presenter }: Strands): Live {
  const arrivals = new Arrivals();
  return { arrivals, endpoints: liveRoutes(arrivals, new LiveSearch(scanner, presenter), sources, strands) };
}
