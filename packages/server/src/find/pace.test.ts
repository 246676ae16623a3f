import { describe, expect, test } from '@jest/globals';
import { Pace } from './pace.ts';

const MINUTE = 60_000_000;
/** Goes through a past with so many records in each minute; tells how long each query took, a thousand records a millisecond, and a planner that knows it. */
async function through(
  perMinute: (minute: number) => number,
  minutes: number,
  budget = 160,
  perCost = 0.0025,
): Promise<{ took: number[]; slices: number[] }> {
  const pace = new Pace(budget, 0);
  const took: number[] = [];
  const slices: number[] = [];
  const recordsIn = (from: number, length: number): number => {
    let sum = 0;
    for (let at = from; at < Math.min(minutes, from + length / MINUTE); at++) sum += perMinute(Math.floor(at));
    return sum;
  };
  for (let at = 0; at < minutes;) {
    const planned = await pace.next(budget, (slice) => Promise.resolve(recordsIn(at, slice) / 1000 / perCost));
    const ms = recordsIn(at, planned.slice) / 1000;
    took.push(ms);
    slices.push(planned.slice / MINUTE);
    pace.went(planned, ms);
    at += planned.slice / MINUTE;
  }
  return { took, slices };
}

describe('the pace at which records are gone through', () => {
  test('grows where nothing is in the way', async () => {
    const { slices } = await through(() => 1, 100_000);
    expect(slices.slice(0, 4)).toEqual([10, 30, 90, 270]);
  });
  test('keeps queries at their share of a call, also where a night ends', async () => {
    const { took } = await through((minute) => (minute < 300 ? 20 : 3000), 3000);
    expect(Math.max(...took)).toBeLessThan(160 * 0.4 * 1.6);
    expect(took.filter((ms) => ms > 30).length).toBeGreaterThan(took.length / 2);
  });
  test('learns what the costs of the planner mean', async () => {
    for (const perCost of [0.00025, 0.025]) {
      const { took } = await through(() => 2000, 3000, 160, perCost);
      const later = took.slice(3, -1);
      expect(Math.max(...later)).toBeLessThan(160 * 0.4 * 1.6);
      expect(Math.min(...later)).toBeGreaterThan(20);
    }
  });
  test('goes on with as much as was gone through before, unless it is too much', async () => {
    expect((await new Pace(160, 3000 * MINUTE).next(160, () => Promise.resolve(10))).slice).toBe(3000 * MINUTE);
    expect((await new Pace(160, 3000 * MINUTE).next(160, () => Promise.resolve(1e6))).slice).toBeLessThan(100 * MINUTE);
  });
  test('asks for little where little is left of the call', async () => {
    const all = (await new Pace(160, 0).next(160, () => Promise.resolve(7500))).slice;
    const rest = (await new Pace(160, 0).next(20, () => Promise.resolve(7500))).slice;
    expect(rest).toBeLessThan(all / 2);
  });
});
