import { expect, test } from '@jest/globals';
import { lineTime, signed } from './line-time.ts';

test.each([
  [0, '+0.000 s'],
  [1_250_400, '+1.250 s'],
  [-185_000_000, '−3:05 min'],
  [7_200_000_000, '+2:00:00 h'],
])('%d µs are %s', (difference, text) => expect(signed(difference)).toBe(text));

test('a line tells only what changed since the one before', () => {
  const at = '2026-11-24T09:41:58.912345Z';
  expect(lineTime(at, null, { since: 'day' })).toMatch(/^11-24 \d\d:41:58\.912$/);
  expect(lineTime(at, '2026-11-24T09:41:57.000000Z', { since: 'day' })).toMatch(/^\d\d:41:58\.912$/);
  expect(lineTime(at, '2026-11-24T09:41:58.100000Z', { since: 'day' })).toBe('.912');
});
test('or how long it is since the line before, or since a marked record', () => {
  const at = '2026-11-24T09:41:58.912345Z';
  expect(lineTime(at, '2026-11-24T09:41:58.900000Z', { since: 'previous' })).toBe('+0.012 s');
  expect(lineTime(at, null, { since: 'previous' })).toMatch(/:41:58/);
  expect(lineTime(at, null, { since: 'mark', at: '2026-11-24T09:42:00.000000Z' })).toBe('−1.088 s');
});
