import { expect, test } from '@jest/globals';
import { fuzz, mutate, randomFrom } from './fuzz.ts';

test('mutated sources of every format: no exception, no record out of its place, nothing lost', () => {
  // the clock stands still: how long a record takes is measured by the bench
  const { records, faults } = fuzz(20261125, 3000, () => 0);
  expect(faults.map(({ format, fault }) => `${format}: ${fault}`)).toEqual([]);
  expect(records).toBeGreaterThan(5000);
});

test('mutations are the same for a seed and change the bytes', () => {
  const bytes = Uint8Array.from({ length: 200 }, (_, i) => i);
  expect(mutate(bytes, randomFrom(5))).toEqual(mutate(bytes, randomFrom(5)));
  expect(mutate(bytes, randomFrom(5))).not.toEqual(bytes);
});
