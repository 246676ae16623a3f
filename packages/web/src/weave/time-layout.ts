import type { Strand, StrandLine } from '@fadenweg/api';
import { scaleLinear } from 'd3-scale';
import { durationWords } from '@fadenweg/core/findings';
import { micros } from '../time/format.ts';
import { lanesOf } from './rows.ts';

export const TIMES_LEFT = 84;
export const HEAD = 30;
/** Between legs, whatever time passes there. */
const BREAK = 44;
const FOOT = 24;
export const NARROWEST_LANE = 96;
/** A bar that would be thinner is drawn so high. */
const LEAST_BAR = 3;
const BAR = 9;
/** Labels stand no closer below each other. */
const LABEL = 14;
/** Taller pictures are not drawn by browsers. */
export const MOST_HEIGHT = 400_000;

export interface Bar {
  step: number;
  x: number;
  y: number;
  height: number;
  component: string;
  outcome: Strand['outcome'];
  words: string;
}
export interface Arrow {
  key: string;
  from: { x: number; y: number };
  to: { x: number; y: number };
  /** Back to the caller. */
  back: boolean;
  label: string | null;
}
export interface Dot {
  line: StrandLine;
  x: number;
  y: number;
}
export interface TimeLayout {
  lanes: { name: string; x: number }[];
  laneWidth: number;
  width: number;
  height: number;
  ticks: { y: number; text: string }[];
  /** Silences that the path tells of. */
  waits: { x: number; y: number; height: number; kind: string; text: string }[];
  breaks: { y: number; text: string }[];
  bars: Bar[];
  arrows: Arrow[];
  dots: Dot[];
}

/** Pixels for a millisecond at which the longest leg fills a height. */
export function fittingScale(strand: Strand, height: number): number {
  const longest = Math.max(1, ...strand.legs.map((leg) => (micros(leg.endedAt) - micros(leg.startedAt)) / 1000));
  return Math.max(1, height - HEAD - FOOT - 20) / longest;
}

/**
 * The strand in proportion to time: it runs down, each step a bar in the lane of its component, what one hands to another an arrow. Legs that lie apart follow each other
 * with a break between.
 *
 * @param perMs pixels for a millisecond; less where the whole would be too tall
 */
export function timeLayout(strand: Strand, lines: readonly StrandLine[], perMs: number, available: number): TimeLayout {
  const names = lanesOf(strand, []).concat(lines.map((line) => line.component)).filter((name, i, all) => all.indexOf(name) === i); // prettier-ignore
  const laneWidth = Math.max(NARROWEST_LANE, Math.floor((available - TIMES_LEFT - 20) / Math.max(1, names.length)));
  const x = (component: string): number => TIMES_LEFT + names.indexOf(component) * laneWidth + laneWidth / 2;
  const spans = legSpans(strand);
  const whole = spans.reduce((sum, { from, to }) => sum + (to - from) / 1000, 0);
  const scale = Math.min(perMs, MOST_HEIGHT / Math.max(1, whole));
  let top = HEAD;
  const placed = spans.map((span, i) => {
    const own = { ...span, top };
    top += ((span.to - span.from) / 1000) * scale + (i + 1 < spans.length ? BREAK : FOOT);
    return own;
  });
  const y = (at: number): number => {
    const span = placed.findLast((one) => at >= one.from) ?? placed[0]!;
    return span.top + ((Math.min(Math.max(at, span.from), span.to) - span.from) / 1000) * scale;
  };
  const steps = new Map(strand.steps.map((step) => [step.id, step]));
  const depthIn = (id: number): number => {
    const own = steps.get(id)!;
    let depth = 0;
    for (let up = own.parent === null ? undefined : steps.get(own.parent); up; up = up.parent === null ? undefined : steps.get(up.parent))
      if (up.component === own.component) depth++;
    return depth;
  };
  const bars = strand.steps.map((step): Bar => {
    const [from, to] = [micros(step.startedAt), micros(step.endedAt)];
    return {
      step: step.id,
      x: x(step.component) - BAR / 2 + Math.min(4, depthIn(step.id)) * 4,
      y: y(from),
      height: Math.max(LEAST_BAR, y(to) - y(from)),
      component: step.component,
      outcome: step.outcome,
      words: `${step.component}: ${durationWords(to - from)}${step.attempt > 1 ? `, attempt ${step.attempt}` : ''}`,
    };
  });
  const firstLine = new Map<number, StrandLine>();
  for (const line of lines) if (!firstLine.has(line.step)) firstLine.set(line.step, line);
  const lane = new Set(names);
  return {
    lanes: names.map((name) => ({ name, x: x(name) })),
    laneWidth,
    width: TIMES_LEFT + names.length * laneWidth + 20,
    height: Math.ceil(top),
    ticks: placed.flatMap((span) => ticksOf(span, scale)),
    waits: strand.silences.flatMap((silence) => {
      const line = lines.find((one) => one.id === silence.before);
      if (!line || silence.component === null || !lane.has(silence.component)) return [];
      const end = micros(line.at);
      const begin = end - silence.ms * 1000;
      return [{ x: x(silence.component) - BAR / 2, y: y(begin), height: y(end) - y(begin), kind: silence.kind, text: durationWords(silence.ms * 1000) }]; // prettier-ignore
    }),
    breaks: placed.slice(1).map((span, i) => ({ y: span.top - BREAK / 2, text: `${durationWords(span.from - placed[i]!.to)} later` })),
    bars,
    arrows: arrowsOf(strand, firstLine, x, y),
    dots: lines.map((line) => ({ line, x: x(line.component), y: y(micros(line.at)) })),
  };
}

/** Letters and points reach so far beyond their place. */
const AROUND = 24;
/** What of a layout shows between two heights. */
export function partOf({ ticks, breaks, bars, waits, arrows }: TimeLayout, from: number, to: number) {
  const shows = (begin: number, end: number): boolean => end >= from - AROUND && begin <= to + AROUND;
  return {
    ticks: ticks.filter((one) => shows(one.y, one.y)),
    breaks: breaks.filter((one) => shows(one.y, one.y)),
    bars: bars.filter((one) => shows(one.y, one.y + one.height)),
    waits: waits.filter((one) => shows(one.y, one.y + one.height)),
    arrows: arrows.filter((one) => shows(Math.min(one.from.y, one.to.y), Math.max(one.from.y, one.to.y))),
  };
}

/** Records that would lie on the same point are one; the selected one and those that tell of a failure stay. */
export function apartDots(dots: readonly Dot[], selected: string | null): Dot[] {
  const seen = new Set<string>();
  return dots.filter((dot) => {
    const telling = dot.line.id === selected || dot.line.marks.includes('failing');
    const place = `${dot.x} ${Math.round(dot.y / 2)} ${telling}`;
    return !seen.has(place) && seen.add(place);
  });
}

/** When legs are under way, those that overlap as one, in order of time. */
function legSpans(strand: Strand): { from: number; to: number }[] {
  const spans: { from: number; to: number }[] = [];
  const legs = strand.legs.map((leg) => ({ from: micros(leg.startedAt), to: micros(leg.endedAt) })).sort((a, b) => a.from - b.from);
  for (const leg of legs) {
    const last = spans[spans.length - 1];
    if (last && leg.from <= last.to) last.to = Math.max(last.to, leg.to);
    else spans.push({ ...leg });
  }
  return spans.length > 0 ? spans : [{ from: micros(strand.startedAt), to: micros(strand.endedAt) }];
}

function ticksOf({ from, to, top }: { from: number; to: number; top: number }, scale: number): { y: number; text: string }[] {
  const length = (to - from) / 1000;
  const ticks = scaleLinear([0, length], [0, length]).ticks(Math.max(2, Math.min(400, Math.floor((length * scale) / 70))));
  return ticks.map((ms) => ({ y: top + ms * scale, text: ms === 0 ? '0' : `+${durationWords(ms * 1000)}` }));
}

type Place = (component: string) => number;
/** From callers to those they called and back, and from who handed on to who took up; labelled by its first words where there is room. */
function arrowsOf(strand: Strand, first: ReadonlyMap<number, StrandLine>, x: Place, y: (at: number) => number): Arrow[] {
  const steps = new Map(strand.steps.map((step) => [step.id, step]));
  // what it was handed first, by somebody who had begun before: what comes later are answers to it
  const handed = new Map<number, Strand['hops'][number]>();
  for (const hop of strand.hops) {
    const [from, to] = [steps.get(hop.from), steps.get(hop.to)];
    if (from && to && !handed.has(hop.to) && from.startedAt <= to.startedAt) handed.set(hop.to, hop);
  }
  const arrows: Arrow[] = [];
  for (const step of strand.steps) {
    const hop = handed.get(step.id);
    const from = steps.get(hop?.from ?? step.parent ?? 0);
    if (!from || from.component === step.component) continue;
    const begin = micros(step.startedAt);
    const label = first.get(step.id)?.message.split('\n', 1)[0] ?? step.component;
    const leaves = hop ? begin - hop.delayMs * 1000 : begin;
    arrows.push({ key: `to${step.id}`, from: { x: x(from.component), y: y(leaves) }, to: { x: x(step.component), y: y(begin) }, back: false, label });
    if (step.parent === from.id && step.endedAt <= from.endedAt)
      arrows.push({ key: `back${step.id}`, from: { x: x(step.component), y: y(micros(step.endedAt)) }, to: { x: x(from.component), y: y(micros(step.endedAt)) }, back: true, label: null }); // prettier-ignore
  }
  // labels that would stand on one another are left out
  const taken: { left: number; right: number; y: number }[] = [];
  return arrows
    .sort((a, b) => a.to.y - b.to.y)
    .map((arrow) => {
      if (arrow.label === null) return arrow;
      const [left, right] = [Math.min(arrow.from.x, arrow.to.x), Math.max(arrow.from.x, arrow.to.x)];
      const at = (arrow.from.y + arrow.to.y) / 2;
      if (taken.slice(-LOOKED_BACK).some((one) => Math.abs(at - one.y) < LABEL && one.left < right && left < one.right))
        return { ...arrow, label: null };
      taken.push({ left, right, y: at });
      return arrow;
    });
}
/** Labels further above cannot be in the way. */
const LOOKED_BACK = 60;
