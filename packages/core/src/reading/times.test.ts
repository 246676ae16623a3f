import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { isoMicros } from '../units.ts';
import { TimeReader, type TimeLayout } from './times.ts';
import { zoneClock } from './zones.ts';

const read = (text: string, zone = 'UTC', layout?: TimeLayout): string | null => {
  const times = new TimeReader({ zone, year: 2026 });
  const end = layout ? times.read(text, 0, layout) : (times.readAny(text, 0)?.end ?? -1);
  return end < 0 ? null : isoMicros(times.at);
};

describe('times as logs write them', () => {
  test.each([
    ['2026-11-24T09:41:58.912Z', 'UTC', '2026-11-24T09:41:58.912000Z'],
    ['2026-11-24 10:41:58,912', 'Europe/Berlin', '2026-11-24T09:41:58.912000Z'],
    ['2026-11-24T10:41:58.912345+01:00', 'America/New_York', '2026-11-24T09:41:58.912345Z'],
    ['2026-11-24T10:41:58.9+0100', 'UTC', '2026-11-24T09:41:58.900000Z'],
    ['2026-11-24 10:41:58.705 CET', 'UTC', '2026-11-24T09:41:58.705000Z'],
    ['2026/11/24 10:41:58', 'UTC', '2026-11-24T10:41:58.000000Z'],
    ['24.11.2026 10:41:58.912', 'Europe/Berlin', '2026-11-24T09:41:58.912000Z'],
    ['24/Nov/2026:10:41:58 +0100', 'UTC', '2026-11-24T09:41:58.000000Z'],
    ['Nov 24 10:41:58', 'UTC', '2026-11-24T10:41:58.000000Z'],
    ['Nov  4 10:41:58', 'UTC', '2026-11-04T10:41:58.000000Z'],
    ['1795513318', 'UTC', '2026-11-24T09:41:58.000000Z'],
    ['1795513318912', 'UTC', '2026-11-24T09:41:58.912000Z'],
    ['1795513318.912345', 'UTC', '2026-11-24T09:41:58.912345Z'],
  ])('%s in %s', (text, zone, expected) => {
    expect(read(text, zone)).toBe(expected);
  });

  test.each(['2026-13-01T00:00:00Z', '2026-11-24', 'LX-204817', '99.99.2026 10:00:00', '12:00', '2026-11-24T25:61:00', ''])(
    '%s is no time',
    (text) => {
      expect(read(text)).toBeNull();
    },
  );

  test('a year is not read out of a longer number, nor an offset out of a following word', () => {
    expect(read('2026-11-24 10:41:58 ERROR', 'UTC')).toBe('2026-11-24T10:41:58.000000Z');
    expect(read('2026-11-24 10:41:58 -5 items', 'UTC')).toBe('2026-11-24T10:41:58.000000Z');
  });

  test('every instant comes back, in whatever zone it was written', () => {
    const zones = ['UTC', 'Europe/Berlin', 'America/New_York', 'Asia/Kolkata', 'Australia/Lord_Howe', 'Pacific/Apia'];
    fc.assert(
      fc.property(
        fc.integer({ min: 631_152_000, max: 4_000_000_000 }),
        fc.integer({ min: 0, max: 999_999 }),
        fc.constantFrom(...zones),
        (seconds, micros, zone) => {
          const at = seconds * 1_000_000 + micros;
          const clock = zoneClock(zone);
          const offset = clock.offsetAt(seconds * 1000) * 1000;
          const local = isoMicros(at + offset).slice(0, -1);
          const times = new TimeReader({ zone, year: 2000 });
          expect(times.read(local, 0, 'iso')).toBe(local.length);
          // in an hour that a clock change repeats the first occurrence is taken: then the two differ by the change
          const change = Math.abs(clock.offsetAt(seconds * 1000 - 7_200_000) - clock.offsetAt(seconds * 1000 + 7_200_000)) * 1000;
          expect([0, change]).toContain(Math.abs(times.at - at));
        },
      ),
    );
  });

  test('the hour that a clock change repeats is taken as its first occurrence', () => {
    expect(read('2026-10-25 02:30:00', 'Europe/Berlin')).toBe('2026-10-25T00:30:00.000000Z');
    expect(read('2026-10-25 03:30:00', 'Europe/Berlin')).toBe('2026-10-25T02:30:00.000000Z');
  });
});
