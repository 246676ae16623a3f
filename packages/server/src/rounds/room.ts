import type { ChangesRoom } from '../changes/room.ts';
import type { Declared } from '../declared/room.ts';
import type { Evidence } from '../evidence/room.ts';
import { guarded, type Guarded } from '../platform/access.ts';
import type { Platform, Room } from '../platform/room.ts';
import type { Rollups } from '../rollups/room.ts';
import type { JobsRoom } from '../jobs/room.ts';
import type { Strands } from '../strands/room.ts';
import { DeparturesService } from './departures.ts';
import { FlowGroups } from './flow-groups.ts';
import { FoundDepartures } from './found-departures.ts';
import { InstantService } from './instant.ts';
import { NotedRepository } from './noted.ts';
import { roundsRoutes } from './rounds-routes.ts';
import { RoundsService } from './rounds.ts';
import { SinceService } from './since.ts';

/** What departs from the usual, since when, for whom. */
export interface RoundsRoom extends Room {
  departures: Guarded<DeparturesService>;
}

export function roundsRoom(
  { data, happenings }: Platform,
  { evidence }: Evidence,
  { declarations }: Declared,
  { changes }: ChangesRoom,
  { sums, alike, instants }: Rollups,
  { presenter }: Strands,
  { jobs }: JobsRoom,
): RoundsRoom {
  let judged = 0;
  happenings.at('woven', () => judged++);
  const state = (): number => judged;
  const groups = guarded((access) => new FlowGroups(data.by(access).db));
  const noted = guarded((access) => new NotedRepository(data.by(access).db));
  const rounds = guarded((access) => new RoundsService(sums.by(access), declarations.by(access), groups.by(access), state));
  const departures = guarded((access) => {
    const { identifiers, names, clocks } = evidence.by(access);
    const found = new FoundDepartures(sums.by(access), alike.by(access), identifiers, changes.by(access), names, state);
    return new DeparturesService(rounds.by(access), found, clocks, changes.by(access), noted.by(access), jobs.by(access));
  });
  return {
    departures,
    endpoints: guarded((access) => {
      const { names, clocks } = evidence.by(access);
      const instant = new InstantService(instants.by(access), declarations.by(access), presenter.by(access), changes.by(access), clocks, names);
      const since = new SinceService(sums.by(access), alike.by(access), rounds.by(access));
      return roundsRoutes(rounds.by(access), departures.by(access), instant, since, noted.by(access), groups.by(access));
    }),
  };
}
