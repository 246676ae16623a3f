import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { durationField, typedDuration } from './duration-field.ts';

test('a length of time is typed as it is shown', () => {
  expect([durationField(600_000), durationField(90_000), durationField(1500), durationField(7_200_000), durationField(null)]).toEqual([
    '10 min',
    '90 s',
    '1500 ms',
    '2 h',
    '',
  ]);
  fc.assert(fc.property(fc.integer({ min: 1, max: 1e9 }), (ms) => expect(typedDuration(durationField(ms))).toBe(ms)));
});
test('what is none is refused', () => {
  expect(typedDuration(' ')).toBeNull();
  expect([typedDuration('soon'), typedDuration('-3 s'), typedDuration('0 s')]).toEqual([undefined, undefined, undefined]);
});
