import type { Declared } from '../declared/room.ts';
import type { Evidence } from '../evidence/room.ts';
import type { Kept } from '../kept/room.ts';
import { guarded, type Guarded } from '../platform/access.ts';
import type { Platform, Room } from '../platform/room.ts';
import { OneShape } from './one-shape.ts';
import { ShapeHands } from './shape-hands.ts';
import { ShapeRepository } from './shape-rows.ts';
import { shapeRoutes } from './shape-routes.ts';
import { ShapeService } from './shapes.ts';

/** What is said, and what of it is said otherwise than before. */
export interface ShapesRoom extends Room {
  shapes: Guarded<ShapeService>;
}

export function shapesRoom({ data }: Platform, { evidence }: Evidence, { declarations }: Declared, { parameters }: Kept): ShapesRoom {
  const rows = guarded((access) => new ShapeRepository(data.by(access).db));
  const hands = guarded((access) => new ShapeHands(data.by(access).db));
  const shapes = guarded((access) => new ShapeService(rows.by(access), hands.by(access), evidence.by(access).names));
  return {
    shapes,
    endpoints: guarded((access) => {
      const own = evidence.by(access);
      const one = new OneShape(rows.by(access), hands.by(access), parameters.by(access), own, declarations.by(access), own.names);
      return shapeRoutes(shapes.by(access), one, hands.by(access), parameters.by(access));
    }),
  };
}
