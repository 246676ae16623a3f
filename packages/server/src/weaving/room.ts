import type { Platform, Room } from '../platform/room.ts';
import { StrandRepository } from './strand-rows.ts';
import { Weaving } from './weaving.ts';

/** Records become strands: who belongs to whom, what is carried over, how each ended. */
export interface Weave extends Room {
  weaving: Weaving;
  rows: StrandRepository;
}

/**
 * @param reading whether sources are being read at the moment
 * @param woven called after each weaving
 */
export function weavingRoom({ databaseUrl, db }: Platform, reading: () => boolean, woven: () => void): Weave {
  const weaving = new Weaving(databaseUrl, db, reading, woven);
  return { weaving, rows: new StrandRepository(db), endpoints: [], close: () => weaving.close() };
}
