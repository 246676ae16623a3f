import type { Outcome } from '../path/index.ts';
import type { Microseconds } from '../units.ts';
import { chanceOfLarger, chanceWithin } from './strata.ts';
import {
  MEASURES,
  type AgainstAll,
  type StrandFacts,
  type Compared,
  type Judged,
  type Measure,
  type Piece,
  type PieceSide,
  type Value,
} from './types.ts';

/** Less likely than that by chance is a difference. */
const CHANCE = 0.001;
/** It matters: so many strands that are amiss, and so many times the share; so many times the duration, and so many microseconds. */
const STRANDS = 3;
const TIMES = 1.5;
const SLOWER = 1.2;
const MATTERS = 1000;
/** Fewer on either side tell nothing. */
const FEWEST = 5;
const UNDER_WAY: ReadonlySet<Outcome> = new Set<Outcome>(['running', 'out-of-sight']);

/**
 * One thing – a party, component, host, version – against all others, and against itself before: shares of what is amiss, and where the time goes. Compared is within each flow, so
 * that one who asks for what is slow by nature does not look slow; what stays flat while the whole grows is innocent.
 *
 * @param strands of both sides, in any order, of the window and of as long before it
 * @param begin of the window: what began before is compared as before
 * @param slot length of the pieces in which the course is told, in microseconds
 */
export function againstAll(strands: readonly StrandFacts[], begin: Microseconds, slot: number): AgainstAll {
  const [now, before] = [sidesOf(strands.filter((one) => one.at >= begin)), sidesOf(strands.filter((one) => one.at < begin))];
  const hasHere = strands.some((one) => one.own && one.here !== null);
  return {
    measures: MEASURES.filter((one) => one !== 'here' || hasHere).map((measure): Compared => {
      const mix = mixOf(now.own);
      return {
        measure,
        own: valueOf(measure, now.own, mix),
        others: valueOf(measure, now.others, mix),
        ownBefore: valueOf(measure, before.own, mix),
        othersBefore: valueOf(measure, before.others, mix),
        beside: judged(measure, now.own, now.others),
        since: judged(measure, now.own, before.own),
      };
    }),
    course: courseOf(strands, slot),
    outcomes: outcomesOf(now, before),
  };
}

type Flows = ReadonlyMap<string, readonly StrandFacts[]>;
interface Sides {
  own: Flows;
  others: Flows;
}
function sidesOf(strands: readonly StrandFacts[]): Sides {
  const of = (own: boolean): Flows =>
    parted(
      strands.filter((one) => one.own === own),
      (one) => one.flow,
    );
  return { own: of(true), others: of(false) };
}
function parted<K>(strands: readonly StrandFacts[], by: (one: StrandFacts) => K): Map<K, StrandFacts[]> {
  const parts = new Map<K, StrandFacts[]>();
  for (const one of strands) {
    const known = parts.get(by(one));
    if (known) known.push(one);
    else parts.set(by(one), [one]);
  }
  return parts;
}
const isAmiss = ({ outcome }: StrandFacts): boolean => outcome !== 'done' && !UNDER_WAY.has(outcome);
/** Durations are compared of what came to its end: a failure may be quicker than what it broke off, and what waits for its end has none yet. */
const ended = ({ outcome }: StrandFacts): boolean => outcome === 'done' || outcome === 'slow';

function durationOf(measure: Exclude<Measure, 'amiss'>, { whole, database, transit, here }: StrandFacts): Value {
  if (measure === 'whole') return whole;
  if (measure === 'database') return database;
  if (measure === 'transit') return transit;
  return measure === 'here' ? here : Math.max(0, whole - database - transit);
}
const durations = (measure: Exclude<Measure, 'amiss'>, strands: readonly StrandFacts[]): number[] =>
  strands.filter(ended).flatMap((one) => {
    const value = durationOf(measure, one);
    return value === null ? [] : [value];
  });

/** How many of each flow there are. */
const mixOf = (flows: Flows): Map<string, number> => new Map([...flows].map(([flow, strands]) => [flow, strands.length]));

/** As if they were of these flows in that proportion. */
function valueOf(measure: Measure, flows: Flows, mix: ReadonlyMap<string, number>): Value {
  const known = [...mix].filter(([flow]) => (flows.get(flow)?.length ?? 0) > 0);
  if (measure === 'amiss') {
    const whole = known.reduce((sum, [, count]) => sum + count, 0);
    return whole === 0
      ? null
      : known.reduce((sum, [flow, count]) => sum + (count * flows.get(flow)!.filter(isAmiss).length) / flows.get(flow)!.length, 0) / whole;
  }
  const weighted = known.flatMap(([flow, count]) => {
    const values = durations(measure, flows.get(flow)!);
    return values.map((value) => ({ value, weight: count / values.length }));
  });
  return half(weighted);
}

function half(values: { value: number; weight: number }[]): Value {
  const sorted = values.sort((a, b) => a.value - b.value);
  let left = sorted.reduce((sum, one) => sum + one.weight, 0) / 2;
  for (const { value, weight } of sorted) if ((left -= weight) <= 1e-9) return value;
  return null;
}

function judged(measure: Measure, own: Flows, others: Flows): Judged {
  const flows = [...own.keys()].filter((flow) => others.has(flow));
  const count = (side: Flows): number => flows.reduce((sum, flow) => sum + side.get(flow)!.length, 0);
  if (Math.min(count(own), count(others)) < FEWEST) return { is: 'few', chance: 1 };
  return measure === 'amiss' ? share(isAmiss, own, others) : longer(measure, flows, own, others);
}

/** Whether some are more, or less, often marked than the others of their flows. */
function share(marked: (one: StrandFacts) => boolean, own: Flows, others: Flows): Judged {
  const flows = [...own.keys()].filter((flow) => others.has(flow));
  const counted = (strands: readonly StrandFacts[]) => ({ all: strands.length, some: strands.filter(marked).length });
  const tables = flows.map((flow) => ({ own: counted(own.get(flow)!), others: counted(others.get(flow)!) }));
  const sum = (side: 'own' | 'others'): number => tables.reduce((whole, one) => whole + one[side].some, 0);
  const all = tables.reduce((whole, one) => whole + one.own.all, 0);
  if (
    Math.min(
      all,
      tables.reduce((whole, one) => whole + one.others.all, 0),
    ) < FEWEST
  )
    return { is: 'few', chance: 1 };
  // as many as there were if each flow of the own ones were marked as often as that of the others
  const [mine, theirs] = [sum('own'), tables.reduce((whole, one) => whole + (one.own.all * one.others.some) / one.others.all, 0)];
  const more = chanceWithin(tables);
  if (more <= CHANCE && sum('own') >= STRANDS && mine >= TIMES * theirs) return { is: 'more', chance: more };
  const less = chanceWithin(tables.map((one) => ({ own: one.others, others: one.own })));
  if (less <= CHANCE && sum('others') >= STRANDS && theirs >= TIMES * mine) return { is: 'less', chance: less };
  return { is: 'flat', chance: 1 };
}

function longer(measure: Exclude<Measure, 'amiss'>, flows: readonly string[], own: Flows, others: Flows): Judged {
  const tables = flows.map((flow) => ({ own: durations(measure, own.get(flow)!), others: durations(measure, others.get(flow)!) }));
  const sum = (side: 'own' | 'others'): number => tables.reduce((whole, one) => whole + one[side].length, 0);
  if (Math.min(sum('own'), sum('others')) < FEWEST) return { is: 'few', chance: 1 };
  const mix = new Map(flows.map((flow) => [flow, own.get(flow)!.length]));
  const [mine, theirs] = [valueOf(measure, own, mix) ?? 0, valueOf(measure, others, mix) ?? 0];
  const matters = (one: number, other: number): boolean => one >= SLOWER * other && one - other >= MATTERS;
  const more = chanceOfLarger(tables);
  if (more <= CHANCE && matters(mine, theirs)) return { is: 'more', chance: more };
  if (1 - more <= CHANCE && matters(theirs, mine)) return { is: 'less', chance: 1 - more };
  return { is: 'flat', chance: 1 };
}

function courseOf(strands: readonly StrandFacts[], slot: number): Piece[] {
  const pieces = parted(strands, (one) => Math.floor(one.at / slot) * slot);
  return [...pieces]
    .sort(([a], [b]) => a - b)
    .map(([at, own]): Piece => ({ at, own: sideOf(own.filter((one) => one.own)), others: sideOf(own.filter((one) => !one.own)) }));
}
function sideOf(strands: readonly StrandFacts[]): PieceSide | null {
  if (strands.length === 0) return null;
  const middle = (measure: Exclude<Measure, 'amiss'>): Value => half(durations(measure, strands).map((value) => ({ value, weight: 1 })));
  return {
    strands: strands.length,
    amiss: strands.filter(isAmiss).length / strands.length,
    whole: middle('whole'),
    database: middle('database'),
    transit: middle('transit'),
    rest: middle('rest'),
    here: middle('here'),
  };
}

function outcomesOf(now: Sides, before: Sides): AgainstAll['outcomes'] {
  const counts = (flows: Flows): Map<Outcome, number> => {
    const found = new Map<Outcome, number>();
    for (const { outcome } of [...flows.values()].flat()) found.set(outcome, (found.get(outcome) ?? 0) + 1);
    return found;
  };
  const [own, others, ownBefore, othersBefore] = [counts(now.own), counts(now.others), counts(before.own), counts(before.others)];
  const names = new Set([own, others, ownBefore, othersBefore].flatMap((one) => [...one.keys()]));
  const of = (side: Map<Outcome, number>, outcome: Outcome): number => side.get(outcome) ?? 0;
  return [...names]
    .map((outcome) => ({
      outcome,
      beside: share((one) => one.outcome === outcome, now.own, now.others),
      own: of(own, outcome),
      others: of(others, outcome),
      ownBefore: of(ownBefore, outcome),
      othersBefore: of(othersBefore, outcome),
    }))
    .sort((a, b) => b.own - a.own || b.others - a.others);
}
