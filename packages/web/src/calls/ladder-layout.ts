import type { Call, LadderArrow } from '@fadenweg/api';

/** Places of the ladder, in pixels. */
export const ROW = 30;
export const TIMES = 176;
const NARROWEST = 150;
const WIDEST = 380;

export interface LaidArrow extends LadderArrow {
  y: number;
  x1: number;
  x2: number;
  /** Of the point of the arrow: 1 to the right, -1 to the left, 0 where it stays. */
  way: 1 | -1 | 0;
  /** What it comes to: an answer that turns away, one that takes, or neither. */
  tone: 'bad' | 'good' | 'plain';
}
export interface LadderLayout {
  lanes: { x: number; label: string; detail: string }[];
  laneWidth: number;
  arrows: LaidArrow[];
  width: number;
  height: number;
  /** While both could talk: from where to where, and between which lanes. */
  talk: { top: number; bottom: number; left: number; right: number } | null;
}

/** @param width in pixels that there are */
export function ladderLayout(call: Pick<Call, 'lanes' | 'arrows' | 'talk'>, width: number): LadderLayout {
  const many = Math.max(1, call.lanes.length);
  const laneWidth = Math.min(WIDEST, Math.max(NARROWEST, (width - TIMES) / many));
  const lanes = call.lanes.map((lane, i) => ({ ...lane, x: TIMES + laneWidth * (i + 0.5) }));
  const arrows = call.arrows.map((one, i): LaidArrow => {
    const [from, to] = [lanes[one.from]!.x, lanes[one.to]!.x];
    const way = to > from ? 1 : to < from ? -1 : 0;
    return { ...one, y: ROW * (i + 0.5), x1: from, x2: to, way, tone: toneOf(one) };
  });
  return { lanes, laneWidth, arrows, width: TIMES + laneWidth * many, height: ROW * call.arrows.length, talk: talkOf(call, lanes, arrows) };
}

/** Challenges and the answer to what was cancelled are part of normal working (RFC 3261, sections 22 and 9). */
function toneOf({ status, method }: LadderArrow): LaidArrow['tone'] {
  if (status === null || status < 200 || status === 401 || status === 407 || status === 487) return 'plain';
  if (status >= 300) return 'bad';
  return method === 'INVITE' ? 'good' : 'plain';
}
function talkOf({ talk }: Pick<Call, 'talk'>, lanes: readonly { x: number }[], arrows: readonly LaidArrow[]): LadderLayout['talk'] {
  if (!talk || lanes.length < 2) return null;
  const first = arrows.findIndex((one) => one.at >= talk.from);
  const end = talk.to === null ? arrows.length : arrows.findIndex((one) => one.at >= talk.to!);
  if (first < 0 || end <= first) return null;
  const ends = arrows.slice(0, end + 1).flatMap((one) => [one.x1, one.x2]);
  return { top: ROW * (first + 0.5), bottom: ROW * (end === arrows.length ? end : end + 0.5), left: Math.min(...ends), right: Math.max(...ends) };
}
