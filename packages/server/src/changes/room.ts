import type { Evidence } from '../evidence/room.ts';
import { guarded, type Guarded } from '../platform/access.ts';
import type { Platform, Room } from '../platform/room.ts';
import type { Weave } from '../weaving/room.ts';
import { changeRoutes } from './change-routes.ts';
import { ChangeRepository } from './change-rows.ts';
import { Changes } from './changes.ts';

/** What changed, by records and by people, and what was found out about causes. */
export interface ChangesRoom extends Room {
  changes: Guarded<Changes>;
}

export function changesRoom({ data, happenings }: Platform, { evidence }: Evidence, { rows: strands }: Weave): ChangesRoom {
  const rows = guarded((access) => new ChangeRepository(data.by(access).db, evidence.by(access).names));
  const changes = guarded((access) => {
    const { names, sources } = evidence.by(access);
    const made = new Changes(rows.by(access), names, sources, strands.by(access));
    happenings.at('woven', () => made.forget());
    return made;
  });
  return { changes, endpoints: guarded((access) => changeRoutes(changes.by(access), rows.by(access))) };
}
