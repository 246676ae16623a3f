import type { Declared } from '../declared/room.ts';
import type { Evidence } from '../evidence/room.ts';
import type { Reread } from '../evidence/reread.ts';
import type { Platform, Room } from '../platform/room.ts';
import { Clocks } from './clocks.ts';
import { Discovery } from './discovery.ts';
import { hostRoutes } from './host-routes.ts';
import { RoleGuard } from './role-guard.ts';
import { SourceTimes } from './source-times.ts';
import { suggestionRoutes } from './suggestion-routes.ts';
import { Suggestions } from './suggestions.ts';

/** What is looked for when something came in: links that nobody declared, zones and years, clocks, links that join too much. */
export interface Looks extends Room {
  times: SourceTimes;
  discovery: Discovery;
  clocks: Clocks;
  guard: RoleGuard;
}

/** @param reread what reads sources again; it stands above this room, and is there before the first call */
export function looksRoom(
  { databaseUrl, db }: Platform,
  { clocks: rows, names, sources, identifiers }: Evidence,
  { declarations }: Declared,
  reread: () => Reread,
): Looks {
  const clocks = new Clocks(databaseUrl, rows, names);
  return {
    times: new SourceTimes(db),
    discovery: new Discovery(databaseUrl, declarations, sources),
    clocks,
    guard: new RoleGuard(declarations, identifiers, sources),
    endpoints: [...hostRoutes(clocks, rows, reread), ...suggestionRoutes(new Suggestions(databaseUrl, declarations, names), sources)],
  };
}
