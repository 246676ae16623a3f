import { expect, test } from '@jest/globals';
import { insteadOf } from './instead.ts';

test('one of several that take turns stands instead; what is passed too, or hardly at all, does not', () => {
  const others = [
    { id: 2, strands: 480, both: 1 },
    { id: 3, strands: 990, both: 500 },
    { id: 4, strands: 12, both: 0 },
  ];
  expect(insteadOf(500, others)).toEqual([2]);
  expect(insteadOf(6, [{ id: 2, strands: 4, both: 0 }])).toEqual([]);
  expect(insteadOf(0, [])).toEqual([]);
});
