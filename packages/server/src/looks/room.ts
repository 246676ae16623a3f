import type { Declared } from '../declared/room.ts';
import type { Evidence } from '../evidence/room.ts';
import type { Reread } from '../evidence/reread.ts';
import { Access, guarded } from '../platform/access.ts';
import type { Platform, Room } from '../platform/room.ts';
import { Clocks } from './clocks.ts';
import { Copies } from './copies/copies.ts';
import { Discovery } from './discovery.ts';
import { hostRoutes } from './host-routes.ts';
import { RoleGuard } from './role-guard.ts';
import { SourceEnds } from './source-ends.ts';
import { SourceLanes } from './source-lanes.ts';
import { SourceNames } from './source-names.ts';
import { SourceSamples } from './source-samples.ts';
import { SourceSnapshots } from './source-snapshots.ts';
import { SourceTimes } from './source-times.ts';
import { suggestionRoutes } from './suggestion-routes.ts';
import { Suggestions } from './suggestions.ts';

/** What is looked for when something came in: links that nobody declared, zones and years, clocks, links that join too much, folders of machines, copies. */
export interface Looks extends Room {
  samples: SourceSamples;
  snapshots: SourceSnapshots;
  lanes: SourceLanes;
  times: SourceTimes;
  names: SourceNames;
  ends: SourceEnds;
  discovery: Discovery;
  clocks: Clocks;
  guard: RoleGuard;
  copies: Copies;
}

/** @param reread what reads sources again; it stands above this room, and is there before the first call */
export function looksRoom({ data }: Platform, { evidence }: Evidence, { declarations }: Declared, reread: () => Reread): Looks {
  const { db, url } = data.by(Access.ownWork);
  const { sources, identifiers, ...own } = evidence.by(Access.ownWork);
  const ownDeclarations = declarations.by(Access.ownWork);
  return {
    samples: new SourceSamples(db, own.bytes),
    snapshots: new SourceSnapshots(db),
    lanes: new SourceLanes(db),
    times: new SourceTimes(db),
    names: new SourceNames(db, own.names),
    ends: new SourceEnds(db),
    discovery: new Discovery(url, ownDeclarations, sources),
    clocks: new Clocks(url, own.clocks, own.names),
    guard: new RoleGuard(ownDeclarations, identifiers, sources),
    copies: new Copies(url),
    endpoints: guarded((access) => {
      const { clocks, names, sources } = evidence.by(access);
      const { url } = data.by(access);
      return [
        ...hostRoutes(new Clocks(url, clocks, names), clocks, reread),
        ...suggestionRoutes(new Suggestions(url, declarations.by(access), names), sources),
      ];
    }),
  };
}
