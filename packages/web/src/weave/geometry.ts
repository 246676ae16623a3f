import { ROW_HEIGHT, type Row } from './rows.ts';

export interface Point {
  x: number;
  y: number;
}
export const LANE_LEFT = 24;
/** Lanes stand closer together the more there are; beyond that the weave scrolls sideways. */
export const laneWidth = (lanes: number): number => (lanes <= 9 ? 30 : lanes <= 14 ? 22 : 18);
export const rowY = (index: number): number => index * ROW_HEIGHT + ROW_HEIGHT / 2;

/** The strand between two points: straight down in a lane, a soft S from lane to lane. */
export function passage(from: Point, to: Point): string {
  if (from.x === to.x) return `M${from.x} ${from.y} V${to.y}`;
  const middle = (from.y + to.y) / 2;
  return `M${from.x} ${from.y} C${from.x} ${middle} ${to.x} ${middle} ${to.x} ${to.y}`;
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
