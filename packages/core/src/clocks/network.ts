import type { Duration } from '../units.ts';

/** How far `b` is ahead of `a`, at least and at most; the votes that speak for it. */
export interface PairBound {
  a: number;
  b: number;
  low: Duration;
  high: Duration;
  votes: number;
}
/** By pair of clocks, row by row: at most how far the column's clock is ahead of the row's. */
export type Most = Float64Array;

/**
 * What bounds of pairs say about each clock against each: shortest ways over the bounds (difference constraints; R. Floyd, S. Warshall, 1962).
 * Bounds that contradict each other: those with the fewest votes are left out until the rest holds together.
 */
export function tighten(pairs: readonly PairBound[], clocks: number): Most {
  const believed = [...pairs].sort((x, y) => y.votes - x.votes);
  for (;;) {
    const most = shortest(believed, clocks);
    let holds = true;
    for (let i = 0; i < clocks && holds; i++) holds = most[i * clocks + i]! >= 0;
    if (holds) return most;
    believed.pop();
  }
}

function shortest(pairs: readonly PairBound[], clocks: number): Most {
  const most = new Float64Array(clocks * clocks).fill(Infinity);
  for (let i = 0; i < clocks; i++) most[i * clocks + i] = 0;
  for (const { a, b, low, high } of pairs) {
    most[a * clocks + b] = Math.min(most[a * clocks + b]!, high);
    most[b * clocks + a] = Math.min(most[b * clocks + a]!, -low);
  }
  for (let via = 0; via < clocks; via++) {
    for (let i = 0; i < clocks; i++) {
      const first = most[i * clocks + via]!;
      if (first === Infinity) continue;
      for (let j = 0; j < clocks; j++) {
        const sum = first + most[via * clocks + j]!;
        if (sum < most[i * clocks + j]!) most[i * clocks + j] = sum;
      }
    }
  }
  return most;
}

/** Differences of one clock against another; infinite where nothing bounds them. */
export const between = (most: Most, clocks: number, from: number, to: number): { low: Duration; high: Duration } => ({
  low: 0 - most[to * clocks + from]!,
  high: most[from * clocks + to]!,
});

/**
 * The clock that the others are measured by: the one with which most of them agree, as closely as is known, over all stretches of time; among those,
 * the one with which most may agree, however loosely they are bounded, and then the one that is bounded against most.
 *
 * @param close differences that are known so closely
 * @param among clocks that may be chosen and that count, which are bounded against each other
 */
export function measure(stretches: readonly Most[], clocks: number, among: readonly number[], close: Duration): number {
  let best = { clock: among[0]!, score: [-1, -1, -1] };
  for (const clock of among) {
    const score = [0, 0, 0];
    for (const most of stretches) {
      for (const other of among) {
        const { low, high } = between(most, clocks, clock, other);
        if (other === clock || low === -Infinity || high === Infinity) continue;
        score[2]!++;
        if (low > 0 || high < 0) continue;
        score[1]!++;
        if (high - low <= close) score[0]!++;
      }
    }
    const first = score.findIndex((one, i) => one !== best.score[i]);
    if (first >= 0 && score[first]! > best.score[first]!) best = { clock, score };
  }
  return best.clock;
}

/** Sets of clocks that are bounded against each other, directly or by others, in any stretch of time. */
export function groups(stretches: readonly Most[], clocks: number): number[][] {
  const group = Array.from({ length: clocks }, (_, i) => i);
  const rootOf = (clock: number): number => (group[clock] === clock ? clock : (group[clock] = rootOf(group[clock]!)));
  for (const most of stretches) {
    for (let i = 0; i < clocks; i++) {
      for (let j = i + 1; j < clocks; j++) {
        if (most[i * clocks + j]! < Infinity && most[j * clocks + i]! < Infinity) group[rootOf(i)] = rootOf(j);
      }
    }
  }
  const sets = new Map<number, number[]>();
  for (let clock = 0; clock < clocks; clock++) sets.set(rootOf(clock), [...(sets.get(rootOf(clock)) ?? []), clock]);
  return [...sets.values()];
}
