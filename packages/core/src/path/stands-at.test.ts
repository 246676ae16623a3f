import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { standsAt, type Lasting } from './stands-at.ts';

/** Records that stand at one end of what lasts, with what lies within it and some of it elsewhere. */
const drawn = (end: 'begin' | 'end', coarse: boolean): fc.Arbitrary<Lasting[]> =>
  fc.array(
    fc
      .record({
        from: fc.integer({ min: 0, max: 1e9 }),
        took: fc.integer({ min: coarse ? 3_000_000 : 2_000, max: 20_000_000 }),
        within: fc.array(fc.double({ min: 0.05, max: 0.95, noNaN: true }), { minLength: 1, maxLength: 6 }),
      })
      .map(({ from, took, within }) => {
        const at = end === 'begin' ? from : from + took;
        const others = [...within.map((share) => from + share * took), at + took * 50];
        return { at: coarse ? Math.floor(at / 1e6) * 1e6 : at, took, coarse, others };
      }),
    { minLength: 30, maxLength: 60 },
  );

describe('at which end of a duration a record stands', () => {
  test.each(['begin', 'end'] as const)('the %s, whatever lies within', (end) => {
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
    const one: Lasting = { at: 1e9, took: 1e6, coarse: false, others: [1e9 - 5e5] };
    expect(standsAt(Array.from({ length: 7 }, () => one))).toBeNull();
    expect(standsAt(Array.from({ length: 20 }, () => one))).toBe('end');
    expect(standsAt(Array.from({ length: 20 }, () => ({ ...one, coarse: true })))).toBeNull();
    expect(standsAt(Array.from({ length: 20 }, (_, i) => (i % 2 ? one : { ...one, others: [1e9 + 5e5] })))).toBeNull();
  });
});
