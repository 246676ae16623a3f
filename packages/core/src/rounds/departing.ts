import type { Outcome } from '../path/types.ts';
import { A_RUN } from './by-clock.ts';
import type { Stretch } from './onset.ts';
import { chanceOfShare, discoveries } from './rare.ts';

/** Of what is told at most so much is told by chance. */
const BY_CHANCE = 0.01;
/** What is told matters: so many strands, and so many times the usual share. */
const STRANDS = 3;
const TIMES = 3;
/** Of flows whose runs a clock starts one alone is told, where none of so many was so before, or hardly ever one in such a time. */
const KNOWN_RUNS = 50;
const HARDLY_EVER = 0.05;
/** How grave one strand is that ended so. */
const GRAVITY: Partial<Record<Outcome, number>> = { failed: 1, stalled: 1, doubled: 0.8, odd: 0.8, slow: 0.5, refused: 0.3 };

/** Strands of a window that have one first finding. */
export interface Alike {
  outcome: Outcome;
  count: number;
  /** Strands of their flows in the window. */
  of: number;
  /** The same before the window; 0 of 0 where nothing earlier is known. */
  before: { count: number; of: number };
  /** The stretch of the window in which they are densest; null where none was looked for. */
  stretch: Stretch | null;
  /** Whether runs of their flows are started by a clock. */
  byClock: boolean;
}
export interface Departing<T> {
  one: T;
  chance: number;
  /** So many usually, of as many. */
  expected: number;
  /** What gravity it is sorted by: those beyond the usual, by how grave each is. */
  weight: number;
}

/**
 * Which findings are more frequent than usual, the gravest first: less likely than chance among all that are looked at (`discoveries`, exact test of shares, in the whole window or in the stretch in which they are densest, as often as there are such stretches), several of them and several times as often; of runs that
 * a clock starts one alone. Where nothing earlier is known each is told, and none as unusual.
 */
export function departing<T extends Alike>(found: readonly T[], knowsBefore: boolean): Departing<T>[] {
  const chances = found.map((one) => (knowsBefore ? chanceOf(one) : 1));
  const told = discoveries(chances, BY_CHANCE);
  return found
    .flatMap((one, i) => {
      const { count, of, before, byClock, outcome, stretch } = one;
      const usual = (before.count + 0.5) / (before.of + 1);
      const alone = byClock && before.of >= KNOWN_RUNS && (before.count === 0 || chances[i]! <= HARDLY_EVER);
      const share = Math.max(count / of, stretch === null ? 0 : stretch.some / stretch.all);
      const many = told[i]! && count >= STRANDS && share >= TIMES * usual;
      if (knowsBefore && !alone && !many) return [];
      const expected = before.of === 0 ? 0 : (before.count / before.of) * of;
      return [{ one, chance: chances[i]!, expected, weight: (GRAVITY[outcome] ?? 0.5) * Math.max(0.5, count - expected) * (byClock ? A_RUN : 1) }];
    })
    .sort((a, b) => b.weight - a.weight || a.chance - b.chance);
}

function chanceOf({ count, of, before, stretch }: Alike): number {
  const whole = chanceOfShare(count, of, before.count, before.of);
  if (!stretch || stretch.all === 0) return whole;
  return Math.min(whole, chanceOfShare(stretch.some, stretch.all, before.count, before.of) * (of / stretch.all));
}
