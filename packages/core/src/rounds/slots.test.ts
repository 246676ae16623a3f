import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { isoMicros } from '../units.ts';
import { daysBefore, slotsOf } from './slots.ts';

const at = (iso: string): number => Date.parse(iso) * 1000;
const HOUR = 3_600_000_000;

describe('a window in slots', () => {
  test('is cut at the hours of a place, from its begin to its end', () => {
    const { length, bounds } = slotsOf(at('2026-11-23T23:00:00Z'), at('2026-11-24T23:02:00Z'), 'Europe/Berlin');
    expect([length, bounds.length]).toEqual([HOUR, 26]);
    expect(isoMicros(bounds[0]!)).toBe('2026-11-23T23:00:00.000000Z');
    expect(isoMicros(bounds[24]!)).toBe('2026-11-24T23:00:00.000000Z');
  });

  test('days are those of the place, also where clocks are changed', () => {
    const { length, bounds } = slotsOf(at('2026-10-20T22:00:00Z'), at('2026-11-10T23:00:00Z'), 'Europe/Berlin');
    expect(length).toBe(24 * HOUR);
    expect(isoMicros(bounds[4]!)).toBe('2026-10-24T22:00:00.000000Z');
    expect(isoMicros(bounds[5]!)).toBe('2026-10-25T23:00:00.000000Z');
  });

  test('follow upon each other without a gap, and are no more than asked for', () => {
    const zones = ['UTC', 'Europe/Berlin', 'America/St_Johns', 'Asia/Kathmandu', 'Australia/Lord_Howe'];
    fc.assert(
      fc.property(
        fc.integer({ min: 1_700_000_000, max: 1_900_000_000 }),
        fc.integer({ min: 1, max: 90 * 86_400 }),
        fc.constantFrom(...zones),
        (from, span, zone) => {
          const { bounds } = slotsOf(from * 1e6, (from + span) * 1e6, zone);
          expect([bounds[0], bounds.at(-1)]).toEqual([from * 1e6, (from + span) * 1e6]);
          expect(bounds.length).toBeLessThanOrEqual(29);
          for (let i = 1; i < bounds.length; i++) expect(bounds[i]!).toBeGreaterThan(bounds[i - 1]!);
        },
      ),
    );
  });

  test('the same hours of an earlier day are those that a clock on the wall shows', () => {
    const [before] = daysBefore([at('2026-10-27T08:30:00Z')], 7, 'Europe/Berlin');
    expect(isoMicros(before!)).toBe('2026-10-20T07:30:00.000000Z');
  });
});
