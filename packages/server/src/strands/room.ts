import type { ChangesRoom } from '../changes/room.ts';
import type { Declared } from '../declared/room.ts';
import type { Evidence } from '../evidence/room.ts';
import type { KnownFaults } from '../evidence/known-faults.ts';
import { guarded, type Guarded } from '../platform/access.ts';
import type { Room } from '../platform/room.ts';
import type { Kept } from '../kept/room.ts';
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
  strands: Guarded<StrandService>;
  presenter: Guarded<Presenter>;
  search: Guarded<SearchService>;
}

/** @param holding what finds strands by their records; it stands above this room, and is there before the first call */
export function strandsRoom(
  { evidence }: Evidence,
  { rows }: Weave,
  { declarations }: Declared,
  { changes }: ChangesRoom,
  { weights, parameters }: Kept,
  faults: Guarded<KnownFaults>,
  holding: () => Guarded<HoldingStrands>,
): Strands {
  const presenter = guarded((access) => new Presenter(evidence.by(access), rows.by(access), weights.by(access), parameters.by(access)));
  const strands = guarded((access) => {
    const { records, identifiers, sources, names } = evidence.by(access);
    const others = { holders: new LockHolders(records, identifiers), changes: changes.by(access), faults: faults.by(access) };
    return new StrandService(
      { ...others, strands: rows.by(access), records, identifiers, declarations: declarations.by(access), sources, presenter: presenter.by(access) },
      names,
    );
  });
  const search = guarded(
    (access) => new SearchService(evidence.by(access).identifiers, rows.by(access), declarations.by(access), presenter.by(access)),
  );
  const endpoints = guarded((access) => {
    const { names, records, identifiers } = evidence.by(access);
    const [own, ownRows] = [strands.by(access), rows.by(access)];
    return strandRoutes(
      own,
      new StrandBeside(own, ownRows, declarations.by(access), names, presenter.by(access)),
      new StrandSeriesService(ownRows, identifiers),
      new InCommonService(ownRows, records, identifiers, names),
      search.by(access),
      () => holding().by(access),
      faults.by(access),
      names,
    );
  });
  return { strands, presenter, search, endpoints };
}
