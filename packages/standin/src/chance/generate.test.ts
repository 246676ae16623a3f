import { describe, expect, test } from '@jest/globals';
import { FAULTS } from './faults.ts';
import { generateChance } from './generate.ts';

describe('worlds by chance', () => {
  test('the same seed gives the same world, another one another', () => {
    const bytes = (seed: number): string[] => generateChance(seed, 40).files.map((file) => `${file.path} ${new TextDecoder().decode(file.bytes)}`);
    expect(bytes(5)).toEqual(bytes(5));
    expect(bytes(6)).not.toEqual(bytes(5));
  });

  test.each([1, 2, 3, 4, 5, 6, 7, 8])(
    'of world %i every place of the truth is the begin of a record, each of one transaction, and they hang together',
    (seed) => {
      const { files, truth, tied } = generateChance(seed, 80);
      const lines = new Map(files.map((file) => [file.path, new TextDecoder().decode(file.bytes).split('\n')]));
      const seen = new Set<string>();
      for (const { legs, cause } of truth) {
        const own = legs.flat();
        expect(own.length).toBeGreaterThan(0);
        for (const place of own) {
          expect(seen.has(place)).toBe(false);
          seen.add(place);
          const at = place.lastIndexOf(':');
          // it begins with a time, or with a head in which one stands
          expect(lines.get(place.slice(0, at))?.[Number(place.slice(at + 1)) - 1]).toMatch(/\d{2}/);
        }
        for (const place of cause?.records ?? []) expect(own).toContain(place);
      }
      expect(tied).toBeGreaterThan(0.8);
    },
  );

  test('at least thirty kinds of faults, most of which strike in some worlds', () => {
    const met = new Set<string>();
    for (let seed = 100; seed < 130; seed++) for (const { fault } of generateChance(seed, 120).truth) if (fault) met.add(fault);
    expect(FAULTS.length).toBeGreaterThanOrEqual(30);
    expect(met.size).toBeGreaterThanOrEqual(30);
  });
});
