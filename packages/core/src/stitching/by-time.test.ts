import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { byTime } from './by-time.ts';

test('the order is that of the times, and among equal ones the given one', () => {
  const time = fc.oneof(fc.integer({ min: -5, max: 5 }), fc.maxSafeInteger(), fc.integer({ min: 1_763_000_000_000_000, max: 1_764_000_000_000_000 }));
  fc.assert(
    fc.property(fc.array(time, { maxLength: 300 }), fc.nat(5), (times, more) => {
      // what lies behind the length does not count
      const column = Float64Array.from([...times, ...Array<number>(more).fill(0)]);
      const wanted = times.map((_, i) => i).sort((a, b) => Number(BigInt(times[a]!) - BigInt(times[b]!)) || b - a);
      expect([...byTime(column, times.length, (a, b) => b - a)]).toEqual(wanted);
    }),
  );
  const far = [1_763_000_000_000_020, -7_263_168_594_113_248, 1_763_000_000_000_019];
  expect([...byTime(Float64Array.from(far), 3, (a, b) => b - a)]).toEqual([1, 2, 0]);
});
