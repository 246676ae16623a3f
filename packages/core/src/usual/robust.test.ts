import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { fences, lieOf, TOLD_APART, usually } from './robust.ts';
import { dice } from './testing/legs.ts';

const MS = 1000;
const times = fc.array(fc.integer({ min: 0, max: 3_600_000 }).map((ms) => ms * MS), { minLength: 1, maxLength: 300 }); // prettier-ignore

describe('how long something usually takes', () => {
  test('its ranks are times that occurred, in their order, and the fence lies beyond nine of ten', () => {
    fc.assert(
      fc.property(times, (all) => {
        const { median, p90, p99, fence, cases } = usually(all);
        expect(cases).toBe(all.length);
        for (const one of [median, p90, p99]) expect(all).toContain(one);
        expect(median).toBeLessThanOrEqual(p90);
        expect(p90).toBeLessThanOrEqual(p99);
        // but for what the logarithm and back again loses
        expect(fence * (1 + 1e-9) + 1).toBeGreaterThanOrEqual(p90);
      }),
    );
  });

  test('what always takes the same departs only by what can be told apart', () => {
    expect(usually(Array.from({ length: 20 }, () => 0)).fence).toBe(TOLD_APART);
    fc.assert(fc.property(times, (all) => expect(usually(all).fence).toBeGreaterThanOrEqual(usually(all).median + TOLD_APART)));
  });

  test('does not depend on the order, nor on what is below nothing', () => {
    fc.assert(
      fc.property(times, (all) => {
        expect(usually([...all].reverse())).toEqual(usually(all));
        expect(usually(all.map((time) => (time === 0 ? -5 : time)))).toEqual(usually(all));
      }),
    );
  });

  test('is in proportion: what takes ten times as long has its fence ten times as far, but for what cannot be told apart', () => {
    const random = dice(3);
    const all = Array.from({ length: 400 }, () => Math.round(20_000 * MS * (0.8 + 0.4 * random())));
    const ten = usually(all.map((time) => time * 10));
    expect(ten.fence / usually(all).fence).toBeCloseTo(10, 2);
  });

  test('rests on few cases: the fewer there are, the further out the fence, and never further in', () => {
    const lie = { median: 4000, up: 0.2, down: 0.1 };
    const wide = [12, 30, 100, 1000].map((cases) => fences(lie, 1, cases));
    for (let i = 1; i < wide.length; i++) {
      expect(wide[i]!.high).toBeLessThan(wide[i - 1]!.high);
      expect(wide[i]!.low).toBeGreaterThan(wide[i - 1]!.low);
    }
    expect(wide[3]!.high / fences(lie, 1).high).toBeCloseTo(1, 1);
  });

  test('strangers that are fewer than one in twenty move no fence, though they take a hundred times as long', () => {
    const random = dice(11);
    const own = Array.from({ length: 960 }, () => Math.round(500 * MS * (0.7 + 0.6 * random())));
    const among = [...own, ...Array.from({ length: 40 }, () => 50_000 * MS)];
    const [alone, mixed] = [usually(own).fence, usually(among).fence];
    expect(mixed / alone).toBeLessThan(1.3);
    expect(among.filter((time) => time > mixed)).toHaveLength(40);
  });
});

test('fences are not alike upwards and downwards where the numbers are not', () => {
  const numbers = [...Array.from({ length: 50 }, () => 100), ...Array.from({ length: 50 }, (_, i) => 100 + i * 10)];
  const lie = lieOf(numbers, 1);
  expect(lie.down).toBe(0);
  expect(lie.up).toBeGreaterThan(0);
  const { low, high } = fences(lie, 1);
  expect(low).toBeCloseTo(lie.median, 6);
  expect(high).toBeGreaterThan(600);
});

test('what is always the same has its fences where it is', () => {
  const { low, high } = fences(lieOf(new Array<number>(200).fill(7 * MS), TOLD_APART), TOLD_APART);
  expect([Math.round(low), Math.round(high)]).toEqual([7 * MS, 7 * MS]);
});
