import type { ChangesRoom } from '../changes/room.ts';
import type { Evidence } from '../evidence/room.ts';
import type { Find } from '../find/room.ts';
import type { Platform, Room } from '../platform/room.ts';
import type { Strands } from '../strands/room.ts';
import { StepRunner } from './run-step.ts';
import { runbookRoutes } from './runbook-routes.ts';
import { RunbookRepository } from './runbooks.ts';

/** Searches in order, with blanks, each saying what its result means. */
export function runbooksRoom({ db }: Platform, { names }: Evidence, { find }: Find, { strands, search }: Strands, { changes }: ChangesRoom): Room {
  return { endpoints: runbookRoutes(new RunbookRepository(db), new StepRunner(find, strands, search, changes, names)) };
}
