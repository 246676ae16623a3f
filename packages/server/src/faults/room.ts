import type { ChangesRoom } from '../changes/room.ts';
import type { Declared } from '../declared/room.ts';
import type { Evidence } from '../evidence/room.ts';
import { Access, guarded, type Guarded } from '../platform/access.ts';
import type { Platform, Room } from '../platform/room.ts';
import type { Strands } from '../strands/room.ts';
import type { Weave } from '../weaving/room.ts';
import { faultRoutes } from './fault-routes.ts';
import { FaultHands } from './fault-hands.ts';
import { FaultRepository } from './fault-rows.ts';
import { FaultService } from './faults.ts';
import { handRoutes } from './hand-routes.ts';
import { FaultStanding } from './standing.ts';

/** In which state faults are: what other rooms need to know of them. */
export function faultStanding({ data, happenings }: Platform, { evidence }: Evidence, { changes }: ChangesRoom): Guarded<FaultStanding> {
  const standing = guarded((access) => {
    const { names, records } = evidence.by(access);
    return new FaultStanding(new FaultRepository(data.by(access).db), changes.by(access), names, records);
  });
  happenings.at('woven', () => standing.by(Access.ownWork).forget());
  return guarded(() => standing.by(Access.ownWork)); // what people say of faults is everybody's
}

/** Errors by where they come from, and what people say of them. */
export function faultsRoom(
  { data }: Platform,
  { evidence }: Evidence,
  { weaving, rows: strands }: Weave,
  { declarations }: Declared,
  { changes }: ChangesRoom,
  { presenter }: Strands,
  standing: Guarded<FaultStanding>,
): Room {
  return {
    endpoints: guarded((access) => {
      const { records, identifiers, names } = evidence.by(access);
      const { db } = data.by(access);
      const [rows, hands, own] = [new FaultRepository(db), new FaultHands(db), standing.by(access)];
      const faults = new FaultService(
        rows,
        hands,
        own,
        records,
        identifiers,
        strands.by(access),
        presenter.by(access),
        declarations.by(access),
        changes.by(access),
        names,
      );
      return [...faultRoutes(faults, rows, own), ...handRoutes(rows, hands, own, weaving)];
    }),
  };
}
