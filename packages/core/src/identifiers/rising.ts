/** Values from which it can be told whether they rise: of so few, chance makes four in five rise once in a thousand. */
const FEWEST = 20;
/** What is told side by side comes a little out of order. */
export const MOSTLY = 0.75;

/**
 * Whether numbers are given out one after another, as those of orders, cases and runs are, and those of customers, places and machines are not: of neighbours by their first mention,
 * the share in which the later one is the higher one. Told by the component whose mentions rise most, since the clocks and zones of several may not be known yet.
 *
 * @param first by component, the values in the order in which it names each for the first time
 * @returns 0 to 1, a half of what is by chance; NaN where there are too few
 */
export function risingShare(first: Iterable<readonly string[]>): number {
  let most = NaN;
  for (const values of first) {
    if (values.length < FEWEST) continue;
    let up = 0;
    for (let i = 1; i < values.length; i++) if (isHigher(values[i]!, values[i - 1]!)) up++;
    const share = up / (values.length - 1);
    if (!(share <= most)) most = share;
  }
  return most;
}

/** By the runs of digits from the front: a year before the counter, a check letter behind it. */
function isHigher(one: string, other: string): boolean {
  const [a, b] = [runsOf(one), runsOf(other)];
  for (let i = 0; i < Math.min(a.length, b.length); i++) {
    if (a[i]!.length !== b[i]!.length) return a[i]!.length > b[i]!.length;
    if (a[i] !== b[i]) return a[i]! > b[i]!;
  }
  return a.length > b.length;
}
const runsOf = (value: string): string[] => (value.match(/\d+/g) ?? []).map((run) => run.replace(/^0+(?=\d)/, ''));
