import type { Declared } from '../declared/room.ts';
import type { Evidence } from '../evidence/room.ts';
import type { Explaining } from '../explaining/room.ts';
import type { Kept } from '../kept/room.ts';
import { guarded, type Guarded } from '../platform/access.ts';
import type { Platform, Room } from '../platform/room.ts';
import type { Strands } from '../strands/room.ts';
import type { Weave } from '../weaving/room.ts';
import { FindService } from './find-service.ts';
import { recordRoutes } from './record-routes.ts';
import { Scanner } from './scan.ts';
import { Searchables } from './searchables.ts';
import { RecordExport } from './taken-along/record-export.ts';

/** Records by what they say: searches, values, groups, one record in full, what is taken along of them. */
export interface Find extends Room {
  find: Guarded<FindService>;
  scanner: Guarded<Scanner>;
}

export function findRoom(
  { data }: Platform,
  { evidence }: Evidence,
  { rows: strands }: Weave,
  { declarations }: Declared,
  { quiet, weights, parameters }: Kept,
  { codes }: Explaining,
  { presenter }: Strands,
): Find {
  const searchables = guarded(
    (access) => new Searchables(evidence.by(access), strands.by(access), declarations.by(access), weights.by(access), parameters.by(access)),
  );
  const scanner = guarded((access) => new Scanner(evidence.by(access), searchables.by(access), quiet.by(access)));
  const find = guarded((access) => {
    const { records } = evidence.by(access);
    return new FindService(scanner.by(access), searchables.by(access), strands.by(access), declarations.by(access), presenter.by(access), records);
  });
  const endpoints = guarded((access) => {
    const own = evidence.by(access);
    const along = new RecordExport(data.by(access).url, scanner.by(access), searchables.by(access), { ...own, strands: strands.by(access) });
    return recordRoutes(own, presenter.by(access), find.by(access), codes.by(access), along);
  });
  return { find, scanner, endpoints };
}
