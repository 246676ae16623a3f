import type { ChangesRoom } from '../changes/room.ts';
import type { Declared } from '../declared/room.ts';
import type { Evidence } from '../evidence/room.ts';
import type { Room } from '../platform/room.ts';
import type { Weave } from '../weaving/room.ts';
import { InCommonService } from './in-common.ts';
import { LockHolders } from './lock-holders.ts';
import { Presenter } from './present.ts';
import { SearchService } from './search-service.ts';
import { StrandSeriesService } from './series.ts';
import { StrandBeside } from './strand-beside.ts';
import { strandRoutes, type HoldingStrands } from './strand-routes.ts';
import { StrandService } from './strand-service.ts';

/** Strands as people read them: the list, one strand, what stands beside it, what many have in common. */
export interface Strands extends Room {
  strands: StrandService;
  presenter: Presenter;
  search: SearchService;
}

/** @param holding what finds strands by their records; it stands above this room, and is there before the first call */
export function strandsRoom(
  { records, identifiers, sources, names }: Evidence,
  { rows }: Weave,
  { declarations }: Declared,
  { changes }: ChangesRoom,
  holding: () => HoldingStrands,
): Strands {
  const presenter = new Presenter(identifiers, records, sources, names, rows);
  const holders = new LockHolders(records, identifiers);
  const strands = new StrandService(rows, records, identifiers, declarations, sources, names, presenter, { holders, changes });
  const search = new SearchService(identifiers, rows, declarations, presenter);
  const endpoints = strandRoutes(
    strands,
    new StrandBeside(strands, rows, declarations, names, presenter),
    new StrandSeriesService(rows, identifiers),
    new InCommonService(rows, records, identifiers, names),
    search,
    holding,
    names,
  );
  return { strands, presenter, search, endpoints };
}
