import type { Evidence } from '../evidence/room.ts';
import type { Platform, Room } from '../platform/room.ts';
import type { Weave } from '../weaving/room.ts';
import { changeRoutes } from './change-routes.ts';
import { ChangeRepository } from './change-rows.ts';
import { Changes } from './changes.ts';

/** What changed, by records and by people, and what was found out about causes. */
export interface ChangesRoom extends Room {
  changes: Changes;
}

export function changesRoom({ db, happenings }: Platform, { names, sources }: Evidence, { rows: strands }: Weave): ChangesRoom {
  const rows = new ChangeRepository(db, names);
  const changes = new Changes(rows, names, sources, strands);
  happenings.at('woven', () => changes.forget());
  return { changes, endpoints: changeRoutes(changes, rows) };
}
