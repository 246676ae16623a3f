import type { ChangesRoom } from '../changes/room.ts';
import type { Declared } from '../declared/room.ts';
import type { Evidence } from '../evidence/room.ts';
import { guarded } from '../platform/access.ts';
import type { Platform, Room } from '../platform/room.ts';
import type { Rollups } from '../rollups/room.ts';
import { DeparturesService } from './departures.ts';
import { FoundDepartures } from './found-departures.ts';
import { NotedRepository } from './noted.ts';
import { roundsRoutes } from './rounds-routes.ts';
import { RoundsService } from './rounds.ts';

/** What departs from the usual, since when, for whom. */
export function roundsRoom(
  { data }: Platform,
  { evidence }: Evidence,
  { declarations }: Declared,
  { changes }: ChangesRoom,
  { sums, alike }: Rollups,
): Room {
  return {
    endpoints: guarded((access) => {
      const { identifiers, names, clocks } = evidence.by(access);
      const own = changes.by(access);
      const rounds = new RoundsService(sums.by(access), declarations.by(access));
      const found = new FoundDepartures(sums.by(access), alike.by(access), identifiers, own, names);
      const noted = new NotedRepository(data.by(access).db);
      return roundsRoutes(rounds, new DeparturesService(rounds, found, clocks, own, noted), noted);
    }),
  };
}
