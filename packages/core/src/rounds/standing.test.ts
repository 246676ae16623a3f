import { expect, test } from '@jest/globals';
import { standingOut } from './standing.ts';

test('who has all of it stands out; what nearly everybody has does not, however many they are', () => {
  const told = standingOut(
    [
      { id: 1, inside: 60, outside: 40 },
      { id: 2, inside: 60, outside: 4100 },
      { id: 3, inside: 1, outside: 70 },
    ],
    60,
    4200,
  );
  expect(told).toEqual([{ id: 1, inside: 60, odds: expect.any(Number) }]);
  expect(told[0]!.odds).toBeGreaterThan(100);
});

test('nothing to compare with tells nothing', () => {
  expect(standingOut([{ id: 1, inside: 5, outside: 0 }], 5, 0)).toEqual([]);
  expect(standingOut([], 0, 0)).toEqual([]);
});
