import type { Declared } from '../declared/room.ts';
import type { Evidence } from '../evidence/room.ts';
import type { Explaining } from '../explaining/room.ts';
import type { Kept } from '../kept/room.ts';
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
  find: FindService;
  scanner: Scanner;
}

export function findRoom(
  { databaseUrl }: Platform,
  { records, sources, identifiers, names, bytes }: Evidence,
  { rows: strands }: Weave,
  { declarations }: Declared,
  { quiet }: Kept,
  { codes }: Explaining,
  { presenter }: Strands,
): Find {
  const searchables = new Searchables(records, sources, identifiers, strands, declarations, names);
  const scanner = new Scanner(records, sources, searchables, names, quiet);
  const find = new FindService(scanner, searchables, strands, declarations, presenter, records);
  const along = new RecordExport(databaseUrl, scanner, searchables, { records, sources, identifiers, strands, names });
  return { find, scanner, endpoints: recordRoutes(records, sources, bytes, presenter, find, codes, along) };
}
