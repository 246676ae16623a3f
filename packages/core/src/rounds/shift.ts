/** So many times as many, or as few, are a shift. */
const FACTOR = 1.5;
/** It holds in so large a part of the slots in which any are expected, each so far off by itself. */
const SLOTS = 0.7;
const EACH = 1.2;
/** What shifted together is so much of what is expected. */
const MOST = 0.5;
const FEWEST_SLOTS = 4;

interface FlowCounts {
  flow: string;
  /** By slot; null where nothing is expected because nothing is known, or was collected. */
  counts: readonly { all: number; expected: number | null }[];
}

/**
 * Whether most of what usually comes has shifted at once, up or down, all over the window: a holiday, half the traffic. It is told once; cells are compared after it.
 *
 * @returns by flow, how many times as many came; and of all of them together
 */
export function shiftOf(flows: readonly FlowCounts[]): { factors: Map<string, number>; factor: number } | null {
  const found = flows.flatMap(({ flow, counts }) => {
    const known = counts.flatMap(({ all, expected }) => (expected === null || Math.max(all, expected) < 1 ? [] : [{ all, expected }]));
    const [all, expected] = [sum(known.map((one) => one.all)), sum(known.map((one) => one.expected))];
    if (known.length === 0) return [];
    const factor = all / expected;
    const up = factor >= 1;
    const along = known.filter((one) => (up ? one.all >= one.expected * EACH : one.all * EACH <= one.expected)).length;
    const isShift = known.length >= FEWEST_SLOTS && (up ? factor >= FACTOR : factor * FACTOR <= 1) && along >= SLOTS * known.length && all > 0;
    return [{ flow, all, expected, up, isShift, factor }];
  });
  for (const up of [true, false]) {
    const own = found.filter((one) => one.isShift && one.up === up);
    if (own.length < 2 || sum(own.map((one) => one.expected)) < MOST * sum(found.map((one) => one.expected))) continue;
    return {
      factors: new Map(own.map((one) => [one.flow, one.factor])),
      factor: sum(own.map((one) => one.all)) / sum(own.map((one) => one.expected)),
    };
  }
  return null;
}
const sum = (numbers: readonly number[]): number => numbers.reduce((whole, one) => whole + one, 0);
