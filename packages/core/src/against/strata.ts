import jstat from 'jstat';
import { chanceOfShare } from '../rounds/index.ts';

const { jStat } = jstat;

/** Two sides of one flow: how many there are, and of how many it is so. */
export interface SharesOf {
  own: { all: number; some: number };
  others: { all: number; some: number };
}
/** With so many marked in one flow normal holds well enough. */
const MANY = 400;

/**
 * How likely own ones are marked at least so often, if within each flow own and others are alike: the exact conditional test of several tables, by folding their hypergeometric
 * distributions together; where very many are marked the statistic of Mantel and Haenszel (1959) with a correction for whole numbers. Flows that differ among each other do not count as a difference.
 *
 * @returns 0 to 1
 */
export function chanceWithin(flows: readonly SharesOf[]): number {
  const tables = flows.filter(({ own, others }) => own.all > 0 && others.all > 0);
  const some = tables.reduce((sum, { own }) => sum + own.some, 0);
  if (some === 0) return 1;
  if (tables.length === 1) return chanceOfShare(tables[0]!.own.some, tables[0]!.own.all, tables[0]!.others.some, tables[0]!.others.all);
  if (tables.some(({ own, others }) => own.some + others.some > MANY)) return byNormal(tables, some);
  let known: readonly number[] = [1];
  for (const table of tables) known = folded(known, likelihoods(table));
  return Math.min(
    1,
    known.slice(some).reduce((sum, one) => sum + one, 0),
  );
}

/** How likely 0, 1, 2 … of the own ones are marked, of as many marked as there are on both sides. */
function likelihoods({ own, others }: SharesOf): number[] {
  const marked = own.some + others.some;
  const log = (n: number, k: number): number => jStat.gammaln(n + 1) - jStat.gammaln(k + 1) - jStat.gammaln(n - k + 1);
  const base = log(own.all + others.all, marked);
  return Array.from({ length: Math.min(own.all, marked) + 1 }, (_, k) =>
    marked - k > others.all ? 0 : Math.exp(log(own.all, k) + log(others.all, marked - k) - base),
  );
}
function folded(a: readonly number[], b: readonly number[]): number[] {
  const sum = new Array<number>(a.length + b.length - 1).fill(0);
  for (const [i, x] of a.entries()) if (x > 0) for (const [k, y] of b.entries()) sum[i + k]! += x * y;
  return sum;
}
function byNormal(tables: readonly SharesOf[], some: number): number {
  let [mean, variance] = [0, 0];
  for (const { own, others } of tables) {
    const all = own.all + others.all;
    const marked = own.some + others.some;
    mean += (own.all * marked) / all;
    if (all > 1) variance += (own.all * others.all * marked * (all - marked)) / (all * all * (all - 1));
  }
  return variance === 0 ? 1 : jStat.normal.cdf(-(some - mean - 0.5) / Math.sqrt(variance), 0, 1);
}

/**
 * How likely own values are so much larger, if within each flow own and others are alike: ranks within each flow, each flow weighted by one over its size and one more (van Elteren,
 * 1960), the variance corrected for ties.
 *
 * @returns one-sided, 0 to 1
 */
export function chanceOfLarger(flows: readonly { own: readonly number[]; others: readonly number[] }[]): number {
  let [above, variance] = [0, 0];
  for (const { own, others } of flows) {
    const [m, n] = [own.length, others.length];
    if (m === 0 || n === 0) continue;
    const all = m + n;
    const { sum, ties } = ranked(own, others);
    const weight = 1 / (all + 1);
    above += weight * (sum - (m * (all + 1)) / 2);
    variance += (weight * weight * m * n * (all + 1 - ties / (all * (all - 1)))) / 12;
  }
  return variance <= 0 ? 1 : jStat.normal.cdf(-above / Math.sqrt(variance), 0, 1);
}

/** The sum of the ranks of the own ones, of alike values the middle of theirs, and how much is tied. */
function ranked(own: readonly number[], others: readonly number[]): { sum: number; ties: number } {
  const values = [...own.map((value) => ({ value, own: 1 })), ...others.map((value) => ({ value, own: 0 }))].sort((a, b) => a.value - b.value);
  let [sum, ties] = [0, 0];
  for (let from = 0; from < values.length;) {
    let to = from;
    let mine = 0;
    while (to < values.length && values[to]!.value === values[from]!.value) mine += values[to++]!.own;
    const alike = to - from;
    sum += mine * ((from + 1 + to) / 2);
    ties += alike * alike * alike - alike;
    from = to;
  }
  return { sum, ties };
}
