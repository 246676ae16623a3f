import type { Evidence } from '../evidence/room.ts';
import type { Find } from '../find/room.ts';
import { guarded } from '../platform/access.ts';
import type { Platform, Room } from '../platform/room.ts';
import type { Strands } from '../strands/room.ts';
import { Arrivals } from './arrivals.ts';
import { LiveSearch } from './feed.ts';
import { liveRoutes } from './live-routes.ts';
import { Watchers } from './watchers.ts';

/** What comes in, told as it does to those who watch. */
export function liveRoom({ happenings }: Platform, { evidence }: Evidence, { scanner }: Find, { strands, presenter }: Strands): Room {
  const arrivals = new Arrivals();
  const watchers = new Watchers();
  happenings.at('batch-stored', (batch) => arrivals.stored(batch));
  happenings.at('woven', () => arrivals.woven());
  return {
    endpoints: guarded((access) =>
      liveRoutes(arrivals, watchers, new LiveSearch(scanner.by(access), presenter.by(access)), evidence.by(access).sources, strands.by(access)),
    ),
  };
}
