import { expect, test } from '@jest/globals';
import { bytes, clock, micros } from './format.ts';

test('microseconds survive', () => {
  expect(micros('2026-11-24T09:41:58.912345Z') - micros('2026-11-24T09:41:58.000000Z')).toBe(912_345);
  expect(clock('2026-11-24T09:41:58.912345Z', 6)).toMatch(/^\d\d:41:58\.912345$/);
});
test.each([
  [999, '999 B'],
  [20_400, '20 kB'],
  [13_600_000, '13.6 MB'],
  [2_500_000_000, '2.50 GB'],
])('%d bytes', (n, words) => expect(bytes(n)).toBe(words));
