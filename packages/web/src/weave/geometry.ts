import type { Step } from '@fadenweg/api';
import { ROW_HEIGHT, type Row } from './rows.ts';

export interface Point {
  x: number;
  y: number;
}
export const LANE_LEFT = 24;
/** Lanes stand closer together the more there are; beyond that the weave scrolls sideways. */
export const laneWidth = (lanes: number): number => (lanes <= 9 ? 30 : lanes <= 14 ? 22 : 18);
export const rowY = (index: number): number => index * ROW_HEIGHT + ROW_HEIGHT / 2;

/**
 * The strand between two points: straight down in a lane, a soft S from lane to lane. Over several rows it stays in the lane that it comes from until the last of them;
 * where a branch comes back (`early`) it leaves that at once.
 */
export function passage(from: Point, to: Point, early = false): string {
  if (from.x === to.x) return `M${from.x} ${from.y} V${to.y}`;
  const begin = early ? from.y : Math.max(from.y, to.y - ROW_HEIGHT);
  const end = early ? Math.min(to.y, from.y + ROW_HEIGHT) : to.y;
  const middle = (begin + end) / 2;
  const curve = `C${from.x} ${middle} ${to.x} ${middle} ${to.x} ${end}`;
  return `M${from.x} ${from.y} ${begin > from.y ? `V${begin} ` : ''}${curve}${end < to.y ? ` V${to.y}` : ''}`;
}

/** Where the strand passes in each row; a gap or the head of a leg keeps the lane of the row before it. */
export function points(rows: readonly Row[], lanes: readonly string[]): Point[] {
  const width = laneWidth(lanes.length);
  let x = LANE_LEFT;
  return rows.map((row, index) => {
    const lane = row.kind === 'line' ? lanes.indexOf(row.lane) : row.lane === null ? -1 : lanes.indexOf(row.lane);
    if (lane >= 0) x = LANE_LEFT + lane * width;
    return { x, y: rowY(index) };
  });
}

/**
 * From which rows the strand comes to each row. Mostly from the one before; where steps went on side by side, each branch goes on from its own last row, leaves from its
 * caller's, and comes back to it behind its end.
 */
export function comesFrom(rows: readonly Row[], steps: readonly Pick<Step, 'id' | 'parent' | 'parallel'>[]): number[][] {
  const byId = new Map(steps.map((step) => [step.id, step]));
  /** The nearest step that stands beside others, among a step and those that called it; 0 for none. */
  const branchOf = (id: number): number => {
    for (let step = byId.get(id); step; step = step.parent === null ? undefined : byId.get(step.parent)) if (step.parallel !== null) return step.id;
    return 0;
  };
  const outer = (branch: number): number => branchOf(byId.get(branch)!.parent ?? 0);
  const branches = new Array<number>(rows.length).fill(0);
  for (let i = rows.length - 1, branch = 0; i >= 0; i--) {
    const row = rows[i]!;
    if (row.kind === 'line') branch = branchOf(row.line.step);
    branches[i] = branch; // a gap belongs to what comes behind it
  }
  const last = new Map<number, number>();
  const ends = new Map<number, number>();
  branches.forEach((branch, i) => ends.set(branch, i));
  const open = new Set<number>();
  return branches.map((branch, i) => {
    if (rows[i]!.kind === 'leg') {
      last.clear();
      open.clear();
      last.set(branch, i);
      return [];
    }
    const from: number[] = [];
    const own = last.get(branch);
    if (own !== undefined) from.push(own);
    else for (let up = branch; up !== 0 && from.length === 0;) if (last.has((up = outer(up)))) from.push(last.get(up)!);
    // branches of its own that have come to their end come back
    for (const other of [...open])
      if (outer(other) === branch && ends.get(other)! < i) {
        from.push(last.get(other)!);
        open.delete(other);
      }
    last.set(branch, i);
    if (branch !== 0) open.add(branch);
    return from;
  });
}
