import type { Path } from './types.ts';

/** How many callers stand above the step of a record, by its index. */
export function depthOf(path: Path, index: number): number {
  let steps = 0;
  for (let step = path.steps[path.stepOf[index]!]; step?.parent; step = path.steps[step.parent - 1]) steps++;
  return steps;
}
