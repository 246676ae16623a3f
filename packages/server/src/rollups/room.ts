import { guarded, type Guarded } from '../platform/access.ts';
import type { Platform, Room } from '../platform/room.ts';
import { AgainstRepository } from './against-rows.ts';
import { AlikeRepository } from './alike.ts';
import { InstantRepository } from './instant-rows.ts';
import { SumRepository } from './sums.ts';

/** What is counted by time. */
export interface Rollups extends Room {
  sums: Guarded<SumRepository>;
  alike: Guarded<AlikeRepository>;
  instants: Guarded<InstantRepository>;
  against: Guarded<AgainstRepository>;
}

export function rollupsRoom({ data }: Platform): Rollups {
  return {
    sums: guarded((access) => new SumRepository(data.by(access).db)),
    instants: guarded((access) => new InstantRepository(data.by(access).db)),
    against: guarded((access) => new AgainstRepository(data.by(access).db)),
    alike: guarded((access) => new AlikeRepository(data.by(access).db)),
    endpoints: guarded(() => []),
  };
}
