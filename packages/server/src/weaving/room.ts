import { guarded, type Guarded } from '../platform/access.ts';
import type { Platform, Room } from '../platform/room.ts';
import { StrandRepository } from './strand-rows.ts';
import { Weaving } from './weaving.ts';

/** Records become strands: who belongs to whom, what is carried over, how each ended. */
export interface Weave extends Room {
  weaving: Weaving;
  rows: Guarded<StrandRepository>;
}

/** @param reading whether sources are being read at the moment; what reads them stands above this room */
export function weavingRoom(platform: Platform, reading: () => boolean): Weave {
  const weaving = new Weaving(platform, reading);
  platform.work.add(weaving.kind);
  return {
    weaving,
    rows: guarded((access) => new StrandRepository(platform.data.by(access).db)),
    endpoints: guarded(() => []),
    start: () => weaving.start(),
    close: () => weaving.close(),
  };
}
