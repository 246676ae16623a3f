import jstat from 'jstat';

const { jStat } = jstat;

const chooseLog = (n: number, k: number): number => jStat.gammaln(n + 1) - jStat.gammaln(k + 1) - jStat.gammaln(n - k + 1);

/**
 * How likely at least so many of these are as they are, if all are alike: Fisher's exact test, one-sided (upper tail of the hypergeometric distribution).
 *
 * @param some of `all` here; `others` of `allOthers` elsewhere
 * @returns 0 to 1
 */
export function chanceOfShare(some: number, all: number, others: number, allOthers: number): number {
  const [whole, marked] = [all + allOthers, some + others];
  if (some <= 0 || all === 0) return 1;
  const base = chooseLog(whole, all);
  let sum = 0;
  for (let k = some; k <= Math.min(all, marked); k++) {
    if (all - k > whole - marked) continue;
    const part = Math.exp(chooseLog(marked, k) + chooseLog(whole - marked, all - k) - base);
    sum += part;
    // behind the middle the parts only get smaller
    if (k > (all * marked) / whole && part < sum * 1e-12) break;
  }
  return Math.min(1, sum);
}

/** Below this share of the mean counts vary less than chance would have it, as where a clock starts them; above its inverse more. */
const EVEN = 0.95;

/**
 * How likely so few, and so many, are where a mean is expected: negative binomial where counts vary more than chance, Poisson where they vary as chance, normal (with half a count of
 * room) where they vary less.
 *
 * @param spread variance over mean, above 0
 */
export function chanceOfCount(count: number, mean: number, spread: number): { fewer: number; more: number } {
  if (mean <= 0) return { fewer: 1, more: count > 0 ? 0 : 1 };
  if (spread < EVEN) {
    const width = Math.sqrt(spread * mean);
    return { fewer: jStat.normal.cdf(count + 0.5, mean, width), more: jStat.normal.cdf(-(count - 0.5), -mean, width) };
  }
  const upTo = (most: number): number => {
    if (most < 0) return 0;
    return spread > 1 / EVEN ? jStat.ibeta(1 / spread, mean / (spread - 1), most + 1) : 1 - jStat.lowRegGamma(most + 1, mean);
  };
  return { fewer: upTo(count), more: Math.max(0, 1 - upTo(count - 1)) };
}

/**
 * Which of many tests tell something, so that of those that are told at most a share is told by chance (Benjamini and Hochberg, 1995).
 *
 * @returns in the order asked
 */
export function discoveries(chances: readonly number[], share: number): boolean[] {
  const order = chances.map((chance, i) => ({ chance, i })).sort((a, b) => a.chance - b.chance);
  const last = order.findLastIndex(({ chance }, rank) => chance <= (share * (rank + 1)) / order.length);
  const told = new Array<boolean>(chances.length).fill(false);
  for (const { i } of order.slice(0, last + 1)) told[i] = true;
  return told;
}
