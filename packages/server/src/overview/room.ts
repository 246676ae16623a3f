import type { Evidence } from '../evidence/room.ts';
import type { Gathering } from '../gathering/room.ts';
import type { Metric } from '../platform/http/metrics.ts';
import { Access, guarded } from '../platform/access.ts';
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
  { data, version, work, happenings }: Platform,
  { evidence }: Evidence,
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
    metrics: () => metricsOf(data.by(Access.ownWork).db, work, happenings, weaving),
    endpoints: guarded((access) => {
      const { sources, names } = evidence.by(access);
      const own = { db: data.by(access).db, sources, names, strands: strands.by(access), imports: imports.by(access), search: search.by(access) };
      return [...overviewRoutes({ ...own, demoAtHand, version, weaving, work, happenings }), ...workRoutes(work)];
    }),
  };
}
