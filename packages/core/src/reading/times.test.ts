import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { isoMicros } from '../units.ts';
import { dateOrder } from './calendar.ts';
import { TimeReader, type TimeLayout } from './times.ts';
import type { ReadingContext } from './types.ts';
import { zoneClock } from './zones.ts';

const read = (text: string, zone = 'UTC', layout?: TimeLayout, context: Partial<ReadingContext> = {}): string | null => {
  const times = new TimeReader({ zone, modified: Date.UTC(2026, 11, 31) * 1000, ...context });
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
    ['2026-11-24  10:41:58', 'UTC', '2026-11-24T10:41:58.000000Z'],
    ['2026/11/24 10:41:58', 'UTC', '2026-11-24T10:41:58.000000Z'],
    ['24.11.2026 10:41:58.912', 'Europe/Berlin', '2026-11-24T09:41:58.912000Z'],
    ['24/Nov/2026:10:41:58 +0100', 'UTC', '2026-11-24T09:41:58.000000Z'],
    ['Nov 24 10:41:58', 'UTC', '2026-11-24T10:41:58.000000Z'],
    ['Nov  4 10:41:58', 'UTC', '2026-11-04T10:41:58.000000Z'],
    ['1795513318', 'UTC', '2026-11-24T09:41:58.000000Z'],
    ['1795513318912', 'UTC', '2026-11-24T09:41:58.912000Z'],
    ['1795513318.912345', 'UTC', '2026-11-24T09:41:58.912345Z'],
    ['1795513318912345678', 'UTC', '2026-11-24T09:41:58.912345Z'],
    ['2026-11-24-10.41.58.123456', 'UTC', '2026-11-24T10:41:58.123456Z'],
    ['2026-11-24, 10:41:58:912', 'UTC', '2026-11-24T10:41:58.912000Z'],
    ['2026-11-24T10:41:58+01:00[Europe/Berlin]', 'UTC', '2026-11-24T09:41:58.000000Z'],
    ['2026-11-24 10:41:58 UTC+2', 'UTC', '2026-11-24T10:41:58.000000Z'],
    ['2026-11-24 10:41:58 UTC+02:00', 'UTC', '2026-11-24T08:41:58.000000Z'],
    ['24/11/2026 9:41:58 PM', 'UTC', '2026-11-24T21:41:58.000000Z'],
    ['24.11.26 10:41:58', 'UTC', '2026-11-24T10:41:58.000000Z'],
    ['Nov 24, 2026 12:41:58 AM', 'UTC', '2026-11-24T00:41:58.000000Z'],
    ['Nov 24 2026 10:41:58.912', 'UTC', '2026-11-24T10:41:58.912000Z'],
    ['Tue Nov 24 10:41:58 2026', 'UTC', '2026-11-24T10:41:58.000000Z'],
    ['Tue, 24 Nov 2026 10:41:58 +0100', 'UTC', '2026-11-24T09:41:58.000000Z'],
    ['Tuesday 24 November 2026 10:41:58', 'UTC', '2026-11-24T10:41:58.000000Z'],
    ['24-Nov-2026 10:41:58.912', 'UTC', '2026-11-24T10:41:58.912000Z'],
    ['24. Dezember 2026 10:41:58', 'UTC', '2026-12-24T10:41:58.000000Z'],
    ['24 Mär 2026 10:41:58', 'UTC', '2026-03-24T10:41:58.000000Z'],
    ['mar. 24 nov. 2026 à 10:41:58', 'UTC', '2026-11-24T10:41:58.000000Z'],
    ['24 févr. 2026 10:41:58', 'UTC', '2026-02-24T10:41:58.000000Z'],
    ['24 dic 2026, 10:41:58', 'UTC', '2026-12-24T10:41:58.000000Z'],
    ['24 gennaio 2026 10:41:58', 'UTC', '2026-01-24T10:41:58.000000Z'],
    ['24 mrt 2026 10:41:58', 'UTC', '2026-03-24T10:41:58.000000Z'],
    ['20261124 10:41:58.912', 'UTC', '2026-11-24T10:41:58.912000Z'],
    ['20261124T104158,912', 'UTC', '2026-11-24T10:41:58.912000Z'],
    ['20261124104158912', 'UTC', '2026-11-24T10:41:58.912000Z'],
    ['20261124-104158', 'Europe/Berlin', '2026-11-24T09:41:58.000000Z'],
    ['1124 10:41:58.912345', 'UTC', '2026-11-24T10:41:58.912345Z'],
    ['10:41:58.912', 'UTC', '2026-12-30T10:41:58.912000Z'],
  ])('%s in %s', (text, zone, expected) => {
    expect(read(text, zone)).toBe(expected);
  });

  test.each([
    '2026-13-01T00:00:00Z',
    '2026-11-24',
    'LX-204817',
    '99.99.2026 10:00:00',
    '12:00',
    'Marching 24 10:00:00',
    '1124 99:00:00',
    '2026-11-24T25:61:00',
    '',
  ])('%s is no time', (text) => {
    expect(read(text)).toBeNull();
  });

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
          const times = new TimeReader({ zone, modified: 0 });
          expect(times.read(local, 0, 'iso')).toBe(local.length);
          // in an hour that a clock change repeats the first occurrence is taken: then the two differ by the change
          const change = Math.abs(clock.offsetAt(seconds * 1000 - 7_200_000) - clock.offsetAt(seconds * 1000 + 7_200_000)) * 1000;
          expect([0, change]).toContain(Math.abs(times.at - at));
        },
      ),
    );
  });

  test.each([
    ['2026-328 10:41:58.5', '2026-11-24T10:41:58.500000Z'],
    ['2024.366T23:59:59', '2024-12-31T23:59:59.000000Z'],
    ['2026 11 24 10:41:58:123', '2026-11-24T10:41:58.123000Z'],
    ['10:41:58 24-11-2026', '2026-11-24T10:41:58.000000Z'],
    ['10:41:58.123 2026-11-24', '2026-11-24T10:41:58.123000Z'],
    ['10:41:58 24/Nov/2026', '2026-11-24T10:41:58.000000Z'],
    ['2026-11-24 11:41:58 Europe/Berlin', '2026-11-24T10:41:58.000000Z'],
    ['24-Nov-2026 05:41:58 America/New_York', '2026-11-24T10:41:58.000000Z'],
  ])('“%s” is a time', (text, at) => expect(read(text, 'UTC')).toBe(at));

  test.each([
    ['2026-367 10:41:58', null],
    ['2026-11-24 10:41:58 Nowhere/Atall', '2026-11-24T10:41:58.000000Z'],
    ['2026-11-24 10:41:58 GET/orders', '2026-11-24T10:41:58.000000Z'],
  ])('“%s”: a word that looks like a zone is none', (text, at) => expect(read(text, 'UTC')).toBe(at));

  test('month and day without a year are read in the order that the source is known to use', () => {
    const modified = Date.UTC(2026, 10, 30) * 1000;
    const at = (text: string, dateOrder?: 'day-first' | 'month-first') => {
      const times = new TimeReader({ zone: 'UTC', modified, ...(dateOrder ? { dateOrder } : {}) });
      return times.readAny(text, 0) ? isoMicros(times.at).slice(0, 10) : null;
    };
    expect([at('11-24 10:41:58'), at('24/11 10:41:58'), at('24.11. 10:41:58')]).toEqual(['2026-11-24', '2026-11-24', '2026-11-24']);
    expect([at('04/11 10:41:58', 'day-first'), at('04/11 10:41:58', 'month-first')]).toEqual(['2026-11-04', '2026-04-11']);
    expect([at('11-24 10:41'), at('13-24 10:41:58', 'month-first'), at('11-24')]).toEqual([null, null, null]);
  });

  test('numbers alone are read in the order that the source is known to use', () => {
    expect(read('04/11/2026 10:41:58', 'UTC', 'numeric', { dateOrder: 'month-first' })).toBe('2026-04-11T10:41:58.000000Z');
    expect(read('26/11/04 10:41:58', 'UTC', 'numeric', { dateOrder: 'year-first' })).toBe('2026-11-04T10:41:58.000000Z');
    expect(read('04/11/2026 10:41:58')).toBe('2026-11-04T10:41:58.000000Z');
  });

  test('a year that is missing is the latest before the source’s date, and goes on over new year', () => {
    const times = new TimeReader({ zone: 'UTC', modified: Date.UTC(2026, 0, 3) * 1000 });
    const years = ['Dec 30 23:00:00', 'Dec 31 23:59:59', 'Jan  1 00:00:01', 'Dec 31 23:59:59', 'Jan  2 08:00:00'].map((text) => {
      expect(times.read(text, 0, 'month-name')).toBe(15);
      times.reached();
      return isoMicros(times.at).slice(0, 10);
    });
    expect(years).toEqual(['2025-12-30', '2025-12-31', '2026-01-01', '2025-12-31', '2026-01-02']);
  });

  test('a clock alone goes on over midnight, also where two records changed places', () => {
    const times = new TimeReader({ zone: 'Europe/Berlin', modified: 0, firstDay: Date.UTC(2026, 10, 23) / 86_400_000 });
    const read = ['23:59:58', '23:59:59.5', '00:00:00.1', '23:59:59.9', '00:00:01', '12:00:00', '22:00:00', '03:00:00'].map((text) => {
      times.read(text, 0, 'clock');
      times.reached();
      return isoMicros(times.at).slice(8, 16);
    });
    expect(read).toEqual(['23T22:59', '23T22:59', '23T23:00', '23T22:59', '23T23:00', '24T11:00', '24T21:00', '25T02:00']);
  });

  test('the hour that a clock change repeats is taken as its first occurrence', () => {
    expect(read('2026-10-25 02:30:00', 'Europe/Berlin')).toBe('2026-10-25T00:30:00.000000Z');
    expect(read('2026-10-25 03:30:00', 'Europe/Berlin')).toBe('2026-10-25T02:30:00.000000Z');
  });

  test('… or as its second where the source has passed the first', () => {
    const times = new TimeReader({ zone: 'Europe/Berlin', modified: 0 });
    const read = ['01:59:00', '02:10:00', '02:59:59', '02:00:01', '02:30:00', '02:59:59', '03:00:00'].map((clock) => {
      times.read(`2026-10-25 ${clock}`, 0, 'iso');
      times.reached();
      return isoMicros(times.at).slice(11, 19);
    });
    expect(read).toEqual(['23:59:00', '00:10:00', '00:59:59', '01:00:01', '01:30:00', '01:59:59', '02:00:00']);
  });

  test('the order of dates in numbers is told by what all of them allow', () => {
    const order = (text: string): string | null => dateOrder(text, Date.UTC(2026, 10, 25) * 1000);
    expect(order('03/11/2026 10:00:00 a\n24/11/2026 10:00:00 b')).toBe('day-first');
    expect(order('11/03/2026 10:00:00 a\n11/24/2026 10:00:00 b')).toBe('month-first');
    expect(order('11/03/2026 10:00:00 a\n11/04/2026 10:00:00 b\n11/05/2026 10:00:00 c')).toBe('month-first');
    expect(order('03.11.2026 10:00:00 a')).toBe('day-first');
    expect(order('26/11/24 10:00:00 a')).toBe('year-first');
    expect(order('2026-11-24 10:00:00')).toBeNull();
  });
});
