import { describe, expect, it } from '@jest/globals';
import { between, measure, tighten, type PairBound } from './network.ts';

const CLOSE = 100_000;
const pair = (a: number, b: number, low: number, high: number): PairBound => ({ a, b, low, high, votes: 10 });

describe('the clock that the others are measured by', () => {
  it('is one that agrees closely with others, not one of which so little is known that it may agree with all', () => {
    // 2 is two seconds ahead and drifts; of 3 it is known only through it, and only roughly
    const stretches = [2_000_000, 2_100_000].map((ahead) =>
      tighten(
        [pair(0, 1, -3000, 3000), pair(0, 2, ahead - 9000, ahead + 9000), pair(1, 2, ahead - 9000, ahead + 9000), pair(2, 3, -3_000_000, 400_000)],
        4,
      ),
    );
    expect(between(stretches[0]!, 4, 0, 3)).toEqual({ low: -1_009_000, high: 2_409_000 });
    expect([0, 1]).toContain(measure(stretches, 4, [3, 2, 1, 0], CLOSE));
  });
  it('is the one that may agree with most where none is known closely', () => {
    const stretches = [tighten([pair(0, 1, -500_000, 500_000), pair(0, 2, -500_000, 500_000), pair(1, 2, 200_000, 400_000)], 3)];
    expect(measure(stretches, 3, [1, 0, 2], CLOSE)).toBe(0);
  });
  it('leaves out what contradicts the rest, the fewest votes first', () => {
    const most = tighten(
      [
        { ...pair(0, 1, 0, 10), votes: 9 },
        { ...pair(1, 2, 0, 10), votes: 8 },
        { ...pair(0, 2, 500, 600), votes: 1 },
      ],
      3,
    );
    expect(between(most, 3, 0, 2)).toEqual({ low: 0, high: 20 });
  });
});
