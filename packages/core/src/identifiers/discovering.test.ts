import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { sampledStretches } from './discovering.ts';

const from = (all: readonly { at: number }[]) => (at: number, most: number): { at: number }[] => all.filter((one) => one.at >= at).slice(0, most); // prettier-ignore

describe('stretches that are looked at', () => {
  test('where nearly all lies between two of them, it is looked at on', async () => {
    const all = [{ at: 0 }, ...Array.from({ length: 9000 }, (_, i) => ({ at: 1_000_000 + i })), { at: 10_000_000 }];
    const some = await sampledStretches(0, 10_000_000, from(all));
    expect(some).toHaveLength(9002);
  });
  test('each record once, in order of time, within the limit, to the end where there are few', async () => {
    await fc.assert(
      fc.asyncProperty(fc.uniqueArray(fc.nat(50_000), { minLength: 2, maxLength: 300 }), fc.integer({ min: 1, max: 400 }), async (times, thick) => {
        const all = times
          .sort((a, b) => a - b)
          .flatMap((at) => Array.from({ length: at === times[0] ? thick : 1 }, (_, i) => ({ at: at * 1000 + i })));
        const some = await sampledStretches(all[0]!.at, all[all.length - 1]!.at, from(all));
        expect(some).toEqual(all);
      }),
      { numRuns: 50 },
    );
  });
  test('of many no more than 25,000', async () => {
    const all = Array.from({ length: 60_000 }, (_, at) => ({ at }));
    const some = await sampledStretches(0, 59_999, (at, most) => all.slice(at, at + most));
    expect(some).toHaveLength(25_000);
    expect(new Set(some.map((one) => one.at)).size).toBe(25_000);
  });
});
