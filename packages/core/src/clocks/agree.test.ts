import fc from 'fast-check';
import { describe, expect, it } from '@jest/globals';
import { agree } from './agree.ts';

const interval = fc.tuple(fc.integer({ min: -50, max: 50 }), fc.nat(30)).map(([low, length]) => ({ low, high: low + length }));
const votesAt = (all: readonly { low: number; high: number }[], at: number): number => all.filter((one) => one.low <= at && at <= one.high).length;

describe('agreeing intervals', () => {
  it('are the stretch that lies in most of them', () => {
    fc.assert(
      fc.property(fc.array(interval, { minLength: 1, maxLength: 12 }), (all) => {
        const found = agree(all)!;
        const most = Math.max(...all.map((one) => votesAt(all, one.low)));
        expect(found.votes).toBe(most);
        for (const at of [found.low, (found.low + found.high) / 2, found.high]) expect(votesAt(all, at)).toBe(most);
        expect(votesAt(all, found.low - 0.5)).toBeLessThanOrEqual(most);
      }),
    );
  });
  it('may be open to one side', () => {
    expect(agree([{ low: -Infinity, high: 5 }, { low: -Infinity, high: 3 }, { low: 1, high: Infinity }])).toEqual({ low: 1, high: 3, votes: 3 }); // prettier-ignore
    expect(agree([{ low: -Infinity, high: 5 }])).toEqual({ low: -Infinity, high: 5, votes: 1 });
  });
  it('takes the least difference where two places are equally good', () => {
    expect(agree([{ low: -9, high: -8 }, { low: 1, high: 2 }])).toEqual({ low: 1, high: 2, votes: 1 }); // prettier-ignore
  });
  it('is nothing for none', () => expect(agree([])).toBeNull());
});
