import type { Duration, Microseconds } from '../units.ts';
import { agree, nearlyAgree, type Agreed } from './agree.ts';
import { boundsOf, resolutions } from './calls.ts';
import { fit, MOST_DRIFT } from './fit.ts';
import { between, groups, measure, tighten, type Most, type PairBound } from './network.ts';
import { shiftAt } from './shift.ts';
import type { Bound, ClockEstimate, ClockReading, ClockRecord, ClockSpan } from './types.ts';

/** Strands of one stretch of time, about, and stretches at most. */
const STRANDS_EACH = 150;
const MOST_STRETCHES = 96;
const FEW_STRETCHES = 4;
/** A clock that is known as closely as this is known, in microseconds; else it has to be at least twice as far off as it is uncertain. */
export const CLOSE: Duration = 100_000;
const NEARLY_ALL = 0.9;
/** Of those that agree on a difference, so many do throughout what is taken for it. */
const NEARLY_ALL_AGREE = 0.95;
/** So many passages of a stretch have to agree before they prove that two clocks differ. */
const FEWEST_TO_PROVE = 10;
/** So many passages have to bound a clock before it is corrected. */
const FEWEST_HOPS = 20;

/**
 * How far each clock is ahead, and from when to when. They are measured by the clock with which most others agree: that one is right by definition.
 *
 * @param strands records of one strand each, in any order, with the times as they were written
 * @param clocks how many there are
 */
export function estimateClocks(strands: readonly (readonly ClockRecord[])[], clocks: number): ClockEstimate[] {
  const bounds = boundsOf(strands, resolutions(strands, clocks));
  const stretches = cut(bounds, strands.length).map((own) => ({ bounds: own, most: tighten(pairsOf(own), clocks) }));
  const estimates: ClockEstimate[] = [];
  const all = stretches.map((stretch) => stretch.most);
  const records = new Float64Array(clocks);
  for (const { clock } of strands.flat()) records[clock]!++;
  for (const group of groups(all, clocks)) {
    // where nothing else tells which of them is right, the one that says most
    group.sort((x, y) => records[y]! - records[x]! || x - y);
    const reference = group.length > 1 ? measure(all, clocks, group, CLOSE) : -1;
    for (const clock of group) estimates.push(estimateOf(clock, reference, stretches, clocks));
  }
  refine(estimates, bounds);
  return estimates.sort((x, y) => x.clock - y.clock);
}

interface Stretch {
  bounds: Bound[];
  most: Most;
}

/** Bounds in stretches of time with about as many each. */
function cut(bounds: readonly Bound[], strands: number): Bound[][] {
  // a few at least where there is enough to go by: one alone does not show that a clock drifts
  const few = Math.min(FEW_STRETCHES, Math.floor(bounds.length / (2 * FEWEST_HOPS)));
  const count = Math.max(1, few, Math.min(MOST_STRETCHES, Math.floor(strands / STRANDS_EACH)));
  const sorted = [...bounds].sort((x, y) => x.atA - y.atA);
  return Array.from({ length: count }, (_, i) =>
    sorted.slice(Math.floor((i * sorted.length) / count), Math.floor(((i + 1) * sorted.length) / count)),
  ).filter((own) => own.length > 0);
}

function pairsOf(bounds: readonly Bound[]): PairBound[] {
  const byPair = new Map<string, Bound[]>();
  for (const bound of bounds) {
    const turned = bound.a > bound.b;
    const one: Bound = turned ? { ...bound, a: bound.b, b: bound.a, low: 0 - bound.high, high: 0 - bound.low } : bound;
    const pair = `${one.a} ${one.b}`;
    const own = byPair.get(pair);
    if (own) own.push(one);
    else byPair.set(pair, [one]);
  }
  return [...byPair.values()].flatMap((own) => {
    const sure = levelled(own.filter((bound) => !bound.likely));
    const proven = sure.some((bound) => bound.low > -Infinity);
    const found = (proven ? null : agreeing(own)) ?? (sure.length > 0 ? widened(nearlyAgree(sure, NEARLY_ALL_AGREE)!, sure) : null);
    return found ? [{ a: own[0]!.a, b: own[0]!.b, ...doubted(found) }] : [];
  });
}

/** A few passages do not prove that two clocks differ. */
const doubted = ({ low, high, votes }: Agreed): Agreed =>
  votes < FEWEST_TO_PROVE ? { low: Math.min(low, 0), high: Math.max(high, 0), votes } : { low, high, votes };

/** Levelled where more of them agree so: a pace that few passages seem to show is none. */
function levelled(bounds: readonly Bound[]): Bound[] {
  const level = levelOf(bounds);
  return (agree(level)?.votes ?? 0) > (agree(bounds)?.votes ?? 0) ? level : [...bounds];
}

/** Bounds as they would be in the middle of their stretch of time, had the clocks kept the pace at which they drift apart there. */
function levelOf(bounds: readonly Bound[]): Bound[] {
  const closed = bounds.filter(({ low, high }) => low > -Infinity && high < Infinity);
  if (closed.length < FEWEST_HOPS) return [...bounds];
  const sorted = [...closed].sort((x, y) => x.atA - y.atA);
  const third = Math.floor(sorted.length / 3);
  // of the first and the last third, one by one (H. Theil, P. K. Sen: the median of slopes)
  const slopes = sorted.slice(0, third).flatMap((early, i) => {
    const late = sorted[sorted.length - third + i]!;
    const time = late.atA - early.atA;
    return time > 0 ? [(late.low + late.high - early.low - early.high) / 2 / time] : [];
  });
  const slope = Math.max(-MOST_DRIFT, Math.min(MOST_DRIFT, Float64Array.from(slopes).sort()[Math.floor(slopes.length / 2)] ?? 0));
  const middle = (sorted[0]!.atA + sorted[sorted.length - 1]!.atA) / 2;
  return bounds.map((bound) => {
    const grown = slope * (bound.atA - middle);
    return { ...bound, low: bound.low - grown, high: bound.high - grown };
  });
}

/** What likely calls say: that the two agree, if nearly all of them do; else nothing. */
function agreeing(all: readonly Bound[]): Agreed | null {
  const fitting = all.filter(({ low, high }) => low <= 0 && high >= 0);
  return fitting.length >= all.length * NEARLY_ALL ? agree(fitting) : null;
}

/** While a clock drifts, few passages agree on one difference: then it is taken as widely as nearly all of them need. Null where they contradict each other. */
function widened(peak: Agreed, all: readonly Bound[]): Agreed | null {
  const beside = Float64Array.from(all, ({ low, high }) => Math.max(0, low - peak.high, peak.low - high)).sort();
  const slack = beside[Math.ceil(all.length * NEARLY_ALL) - 1]!;
  const wide = { ...peak, low: peak.low - slack, high: peak.high + slack };
  if (slack <= CLOSE) return wide;
  // where a clock was set in between, more than half agree on what was before it or on what came after: it lies between both, since other pairs may agree on the other
  return beside[Math.ceil(all.length / 2) - 1]! <= CLOSE ? wide : null;
}

function estimateOf(clock: number, reference: number, stretches: readonly Stretch[], clocks: number): ClockEstimate {
  const readings: ClockReading[] = [];
  const partners = new Map<number, number>();
  for (const { bounds, most } of stretches) {
    let [from, to, hops] = [Infinity, -Infinity, 0];
    for (const { a, b, atA, atB } of bounds) {
      if (a !== clock && b !== clock) continue;
      const [at, other] = a === clock ? [atA, b] : [atB, a];
      from = Math.min(from, at);
      to = Math.max(to, at);
      hops++;
      partners.set(other, (partners.get(other) ?? 0) + 1);
    }
    if (hops === 0 || reference < 0) continue;
    const { low, high } = between(most, clocks, reference, clock);
    if (low > -Infinity && high < Infinity) readings.push({ from, to, low, high, hops });
  }
  const hops = [...partners.values()].reduce((sum, one) => sum + one, 0);
  const spans = hops >= FEWEST_HOPS || clock === reference ? fit(readings).filter(isKnown) : [];
  return {
    clock,
    spans,
    readings,
    hops,
    with: [...partners].map(([other, count]) => ({ clock: other, hops: count })).sort((x, y) => y.hops - x.hops),
  };
}

const isKnown = ({ within, ahead }: ClockSpan): boolean => within <= Math.max(CLOSE, Math.abs(ahead) / 2);

/** The moment at which a clock was set: where most passages before agree with what held before, and most behind with what holds then. */
function refine(estimates: readonly ClockEstimate[], bounds: readonly Bound[]): void {
  const sure = bounds.filter((bound) => !bound.likely);
  const spansOf = new Map(estimates.map((one) => [one.clock, one.spans]));
  for (const { clock, spans, readings } of estimates) {
    for (let i = 0; i + 1 < spans.length; i++) {
      const [before, behind] = [spans[i]!, spans[i + 1]!];
      const last = [...readings].reverse().find((reading) => reading.from < behind.from);
      if (!last) continue;
      const near = sure
        .flatMap((bound) => asSeen(bound, clock, spansOf))
        .filter(
          (one) =>
            one.at >= last.from && one.at > before.from && one.at < behind.to && one.at <= Math.max(last.to, behind.from + (last.to - last.from)),
        )
        .sort((x, y) => x.at - y.at);
      let score = near.filter((one) => holds(behind, one)).length;
      let best = { score, at: Math.max(last.from, before.from) };
      for (const [place, one] of near.entries()) {
        score += Number(holds(before, one)) - Number(holds(behind, one));
        if (score > best.score) best = { score, at: near[place + 1] ? (one.at + near[place + 1]!.at) / 2 : one.at + 1 };
      }
      const at = Math.round(best.at);
      behind.ahead += behind.drift * (at - behind.from);
      behind.from = before.to = at;
    }
  }
}

interface Seen {
  at: Microseconds;
  low: Duration;
  high: Duration;
}
/** What a passage says about one clock, the other one's difference taken out. */
function asSeen({ a, b, atA, atB, low, high }: Bound, clock: number, spansOf: ReadonlyMap<number, readonly ClockSpan[]>): Seen[] {
  if (a !== clock && b !== clock) return [];
  const other = a === clock ? b : a;
  const spans = spansOf.get(other) ?? [];
  if (spans.length === 0) return [];
  const ahead = 0 - shiftAt(spans, a === clock ? atB : atA);
  return [a === clock ? { at: atA, low: ahead - high, high: ahead - low } : { at: atB, low: ahead + low, high: ahead + high }];
}
function holds(span: ClockSpan, { at, low, high }: Seen): boolean {
  const ahead = span.ahead + span.drift * (at - span.from);
  return low <= ahead + span.within && high >= ahead - span.within;
}
