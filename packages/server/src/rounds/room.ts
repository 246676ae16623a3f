import type { ChangesRoom } from '../changes/room.ts';
import type { Declared } from '../declared/room.ts';
import type { Evidence } from '../evidence/room.ts';
import { guarded } from '../platform/access.ts';
import type { Platform, Room } from '../platform/room.ts';
import type { Rollups } from '../rollups/room.ts';
import type { Strands } from '../strands/room.ts';
import { DeparturesService } from './departures.ts';
import { FoundDepartures } from './found-departures.ts';
import { InstantService } from './instant.ts';
import { NotedRepository } from './noted.ts';
import { roundsRoutes } from './rounds-routes.ts';
import { RoundsService } from './rounds.ts';
import { SinceService } from './since.ts';

/** What departs from the usual, since when, for whom. */
export function roundsRoom(
  { data, happenings }: Platform,
  { evidence }: Evidence,
  { declarations }: Declared,
  { changes }: ChangesRoom,
  { sums, alike, instants }: Rollups,
  { presenter }: Strands,
): Room {
  let judged = 0;
  happenings.at('woven', () => judged++);
  const state = (): number => judged;
  return {
    endpoints: guarded((access) => {
      const { identifiers, names, clocks, sources } = evidence.by(access);
      const own = changes.by(access);
      const rounds = new RoundsService(sums.by(access), declarations.by(access), state);
      const found = new FoundDepartures(sums.by(access), alike.by(access), identifiers, own, names, state);
      const noted = new NotedRepository(data.by(access).db);
      const instant = new InstantService(instants.by(access), declarations.by(access), presenter.by(access), own, clocks, names);
      return roundsRoutes(
        rounds,
        new DeparturesService(rounds, found, clocks, own, noted),
        instant,
        new SinceService(sums.by(access), alike.by(access), rounds),
        noted,
        sources,
      );
    }),
  };
}
