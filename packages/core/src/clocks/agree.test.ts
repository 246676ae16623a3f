import fc from 'fast-check';
import { describe, expect, it } from '@jest/globals';
import { agree, nearlyAgree } from './agree.ts';

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
  it('nearly agree as far around the peak as enough of them do', () => {
    fc.assert(
      fc.property(fc.array(interval, { minLength: 1, maxLength: 30 }), fc.constantFrom(0.5, 0.8, 0.95, 1), (all, share) => {
        const peak = agree(all)!;
        const found = nearlyAgree(all, share)!;
        expect(found.low).toBeLessThanOrEqual(peak.low);
        expect(found.high).toBeGreaterThanOrEqual(peak.high);
        for (let at = found.low; at <= found.high; at += 0.5) expect(votesAt(all, at)).toBeGreaterThanOrEqual(peak.votes * share);
        for (const at of [found.low - 0.5, found.high + 0.5]) expect(votesAt(all, at)).toBeLessThan(peak.votes * share);
      }),
    );
  });
  it('a few that are mistaken do not move it', () => {
    // all allow 140 to 160; two of sixty only what lies below 143
    const all = [...Array.from({ length: 58 }, (_, i) => ({ low: 140 - i, high: 160 + i })), { low: 130, high: 141 }, { low: 130, high: 142 }];
    expect(agree(all)!.high).toBeLessThan(143);
    expect(nearlyAgree(all, 0.95)).toMatchObject({ low: expect.any(Number), high: expect.any(Number) });
    expect(nearlyAgree(all, 0.95)!.high).toBeGreaterThanOrEqual(160);
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
