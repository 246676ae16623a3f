import { expect, test } from '@jest/globals';
import fc from 'fast-check';
import { hash53, identifierKey } from './hash.ts';

test('keys are whole numbers below 2^53, the same for the same identifier', () => {
  fc.assert(
    fc.property(fc.string(), fc.string(), fc.string(), (kind, scope, value) => {
      const key = identifierKey(kind, scope, value);
      expect(Number.isSafeInteger(key)).toBe(true);
      expect(key).toBeGreaterThanOrEqual(0);
      expect(identifierKey(kind, scope, value)).toBe(key);
    }),
  );
});

test('two hundred thousand neighbouring numbers have different keys', () => {
  const keys = new Set<number>();
  for (let i = 0; i < 200_000; i++) keys.add(identifierKey('order', '', `LX-${100_000 + i}`));
  expect(keys.size).toBe(200_000);
});

test('kind, scope and value all count, and their border too', () => {
  const keys = [
    identifierKey('a', 'b', 'c'),
    identifierKey('a', '', 'c'),
    identifierKey('b', 'b', 'c'),
    identifierKey('ab', '', 'c'),
    identifierKey('a', 'b', 'd'),
    hash53('c'),
  ];
  expect(new Set(keys).size).toBe(keys.length);
});
