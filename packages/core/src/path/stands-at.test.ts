import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { standsAt, type Lasting } from './stands-at.ts';

const MS = 1000;
/** Calls that their callers tell of at both edges, which call others themselves or not; what is told stands at one end of them. */
const drawn = (end: 'begin' | 'end', coarse: boolean): fc.Arbitrary<Lasting[]> =>
  fc.array(
    fc
      .record({
        from: fc.integer({ min: 0, max: 1e9 }),
        took: fc.integer({ min: coarse ? 6000 : 20, max: 20_000 }),
        called: fc.boolean(),
        within: fc.array(fc.double({ min: 0.3, max: 0.7, noNaN: true }), { maxLength: 4 }),
        calls: fc.boolean(),
        goesOn: fc.array(fc.double({ min: 0.2, max: 0.6, noNaN: true }), { maxLength: 3 }),
      })
      .map(({ from, took, called, within, calls, goesOn }) => {
        const [a, b] = [from * MS, (from + took) * MS];
        const edges = called || !calls ? [a - MS, b + MS] : [];
        const inside = calls ? [a + MS, ...within.map((share) => a + share * took * MS), b - MS] : [];
        const others = [...edges, ...inside, ...goesOn.map((share) => b + share * took * MS)];
        const at = end === 'begin' ? a : b;
        return { at: coarse ? Math.floor(at / 1e6) * 1e6 : at, took: took * MS, coarse, others };
      }),
    { minLength: 60, maxLength: 90 },
  );

describe('at which end of a duration a record stands', () => {
  test.each(['begin', 'end'] as const)('the %s, whether it calls others or not, and whatever goes on behind it', (end) => {
    fc.assert(
      fc.property(drawn(end, false), (records) => {
        expect(standsAt(records)).toBe(end);
      }),
    );
  });
  test.each(['begin', 'end'] as const)('the %s, in whole seconds: right or not known', (end) => {
    fc.assert(
      fc.property(drawn(end, true), (records) => {
        expect([end, null]).toContain(standsAt(records));
      }),
    );
  });
  test('is not known of few, of short ones in whole seconds, and where they differ', () => {
    const one: Lasting = { at: 1e9, took: 1e6, coarse: false, others: [1e9 - 1e6] };
    expect(standsAt(Array.from({ length: 7 }, () => one))).toBeNull();
    expect(standsAt(Array.from({ length: 20 }, () => one))).toBe('end');
    expect(standsAt(Array.from({ length: 20 }, () => ({ ...one, coarse: true })))).toBeNull();
    expect(standsAt(Array.from({ length: 20 }, (_, i) => (i % 2 ? one : { ...one, others: [1e9 + 1e6] })))).toBeNull();
    expect(standsAt(Array.from({ length: 20 }, () => ({ ...one, others: [] })))).toBeNull();
  });
});
