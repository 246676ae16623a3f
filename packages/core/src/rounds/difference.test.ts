import { describe, expect, test } from '@jest/globals';
import { difference, type Side } from './difference.ts';
import { bucketOf } from './lasted.ts';
import { die } from './testing/flows.ts';

const SECOND = 1_000_000;
/** So many strands, so many of them amiss, the others lasting about so long. */
function side(all: number, amiss: number, lasts: number, seed = 1): Side {
  const next = die(seed);
  const counts = new Map<number, number>();
  for (let i = 0; i < all - amiss; i++) {
    const bucket = bucketOf(lasts * (0.5 + next()));
    counts.set(bucket, (counts.get(bucket) ?? 0) + 1);
  }
  return { all, amiss, lasted: [...counts].map(([bucket, count]) => ({ bucket, count })) };
}

describe('what is different after an instant', () => {
  test('is that more, or fewer, are amiss', () => {
    expect(difference(side(400, 4, SECOND), side(300, 40, SECOND, 2)).kind).toBe('worse');
    expect(difference(side(300, 40, SECOND), side(400, 4, SECOND, 2)).kind).toBe('better');
  });
  test('is that they last longer, or shorter; with both medians', () => {
    const { kind, medians } = difference(side(200, 2, SECOND), side(200, 2, 2 * SECOND, 2));
    expect(kind).toBe('slower');
    expect(medians.since! / medians.before!).toBeGreaterThan(1.7);
    expect(difference(side(200, 2, 2 * SECOND), side(200, 2, SECOND, 2)).kind).toBe('faster');
  });
  test('is nothing where chance may have it, or nothing was before', () => {
    let told = 0;
    for (let seed = 1; seed <= 200; seed++) if (difference(side(150, 3, SECOND, seed), side(150, 4, SECOND, seed + 1000)).kind !== null) told++;
    expect(told).toBeLessThanOrEqual(2);
    expect(difference(side(0, 0, SECOND), side(50, 20, SECOND))).toMatchObject({ kind: null, chance: 1, medians: { before: null } });
  });
});
