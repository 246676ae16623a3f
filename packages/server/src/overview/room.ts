import type { Evidence } from '../evidence/room.ts';
import type { Gathering } from '../gathering/room.ts';
import type { Metric } from '../platform/http/metrics.ts';
import type { Platform, Room } from '../platform/room.ts';
import type { Strands } from '../strands/room.ts';
import type { Weave } from '../weaving/room.ts';
import { metricsOf } from './metrics.ts';
import { overviewRoutes } from './overview-routes.ts';
import { workRoutes } from './work-routes.ts';

/** What is loaded and what goes on, over all rooms; the finder's first answer. */
export interface Overview extends Room {
  metrics(): Promise<Metric[]>;
}

export function overviewRoom(
  { db, version, work, happenings }: Platform,
  { sources, names }: Evidence,
  { weaving, rows: strands }: Weave,
  { imports }: Gathering,
  { search }: Strands,
  demoAtHand: boolean,
): Overview {
  work.add({
    name: 'clear-up',
    label: 'Clearing up',
    schedule: { at: '*/10 * * * *', zone: 'UTC', why: 'what has been heard and done is cleared every ten minutes', args: null },
    run: async () => {
      await happenings.clear();
      await work.clearEnded();
    },
  });
  return {
    metrics: () => metricsOf(db, work, happenings, weaving),
    endpoints: [
      ...overviewRoutes({ demoAtHand, db, version, sources, strands, names, imports, search, weaving, work, happenings }),
      ...workRoutes(work),
    ],
  };
}
