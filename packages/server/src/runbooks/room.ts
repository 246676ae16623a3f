import type { ChangesRoom } from '../changes/room.ts';
import type { Evidence } from '../evidence/room.ts';
import type { Find } from '../find/room.ts';
import { guarded } from '../platform/access.ts';
import type { Platform, Room } from '../platform/room.ts';
import type { Strands } from '../strands/room.ts';
import { StepRunner } from './run-step.ts';
import { runbookRoutes } from './runbook-routes.ts';
import { RunbookRepository } from './runbooks.ts';

/** Searches in order, with blanks, each saying what its result means. */
export function runbooksRoom(
  { data }: Platform,
  { evidence }: Evidence,
  { find }: Find,
  { strands, search }: Strands,
  { changes }: ChangesRoom,
): Room {
  return {
    endpoints: guarded((access) => {
      const { names } = evidence.by(access);
      const runner = new StepRunner(find.by(access), strands.by(access), search.by(access), changes.by(access), names);
      return runbookRoutes(new RunbookRepository(data.by(access).db), runner);
    }),
  };
}
