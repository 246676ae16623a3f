import type { Evidence } from '../evidence/room.ts';
import { guarded } from '../platform/access.ts';
import type { Room } from '../platform/room.ts';
import type { RoundsRoom } from '../rounds/room.ts';
import type { ShapesRoom } from '../shapes/room.ts';
import { unusualRoutes } from './unusual-routes.ts';

/** What departs from the usual, of strands and of what is said, in one export. */
export function unusualRoom({ evidence }: Evidence, { departures }: RoundsRoom, { shapes }: ShapesRoom): Room {
  return { endpoints: guarded((access) => unusualRoutes(departures.by(access), shapes.by(access), evidence.by(access).sources)) };
}
