import { describe, expect, test } from '@jest/globals';
import fc from 'fast-check';
import { dateOrder, dateOrderOf, dayNumber, isWeekday, monthOf, readInOrder } from './calendar.ts';

const DAY = 86_400_000;
const date = fc.date({ min: new Date('1900-01-01T00:00:00Z'), max: new Date('2199-12-31T00:00:00Z'), noInvalidDate: true });
const two = (value: number): string => String(value).padStart(2, '0');

describe('the calendar', () => {
  test('counts days as UTC does, leap years among them', () => {
    fc.assert(
      fc.property(date, (one) => {
        const day = Math.floor(one.getTime() / DAY);
        expect(dayNumber(one.getUTCFullYear(), one.getUTCMonth() + 1, one.getUTCDate())).toBe(day);
      }),
    );
    for (const [year, days] of [[2000, 366], [2100, 365], [2024, 366], [2026, 365]] as const) expect(dayNumber(year + 1, 1, 1) - dayNumber(year, 1, 1)).toBe(days); // prettier-ignore
  });

  test.each(['en', 'de', 'fr', 'es', 'it', 'nl'])('knows the months and weekdays of “%s”', (language) => {
    for (let month = 0; month < 12; month++) {
      const name = new Date(Date.UTC(2026, month, 1)).toLocaleDateString(language, { month: 'long', timeZone: 'UTC' });
      expect([name, monthOf(name)]).toEqual([name, month + 1]);
      expect(monthOf(name.toUpperCase())).toBe(month + 1);
      expect(isWeekday(new Date(Date.UTC(2026, 0, month)).toLocaleDateString(language, { weekday: 'long', timeZone: 'UTC' }))).toBe(true);
    }
    expect(monthOf('order')).toBe(0);
    expect(isWeekday('order')).toBe(false);
  });

  test('tells the order of dates by what they allow, and by how they run on', () => {
    const written = {
      'day-first': ([y, m, d]: number[]) => `${two(d!)}/${two(m!)}/${y}`,
      'month-first': ([y, m, d]: number[]) => `${two(m!)}/${two(d!)}/${y}`,
    };
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 300 }), fc.constantFrom('day-first', 'month-first'), (first, order) => {
        // forty days in a row hold one above the twelfth
        const days = Array.from({ length: 40 }, (_, i) => new Date(Date.UTC(2026, 0, 1 + first + i)));
        const text = days
          .map((day) => `${written[order]([day.getUTCFullYear(), day.getUTCMonth() + 1, day.getUTCDate()])} 08:00:00 begun`)
          .join('\n');
        expect(dateOrder(text, days.at(-1)!.getTime() * 1000)).toBe(order);
      }),
    );
    expect(dateOrder('03.04.2026 08:00:00 begun', 0)).toBe('day-first');
    expect(dateOrder('no date at all', 0)).toBeNull();
    // a week into March, or one day of each month: the days run on in small steps
    expect(dateOrder('03/01/2026 08:00\n03/02/2026 08:00\n03/03/2026 08:00', 0)).toBe('month-first');
  });

  test('tells it also of dates behind their clock, and of month and day without a year', () => {
    const at = Date.UTC(2026, 10, 30) * 1000;
    expect(dateOrder('10:00:00 24-11-2026 begun', at)).toBe('day-first');
    expect(dateOrder('10:00:00.123 11/24/2026 begun', at)).toBe('month-first');
    expect(dateOrder('24/11 10:00:00 begun', at)).toBe('day-first');
    expect(dateOrder('11-24 10:00:00 begun', at)).toBe('month-first');
    expect(dateOrder('03-01 08:00:00\n03-02 08:00:00\n03-03 08:00:00', at)).toBe('month-first');
    // pairs of numbers count only where no whole dates are
    expect(dateOrder('24.11.2026 10:00:00 moved from 11/25 10:00:00', at)).toBe('day-first');
  });
});

describe('an order that is guessed', () => {
  const modified = Date.UTC(2026, 10, 24) * 1000;
  test('is certain where no other one fits, or both come to the same', () => {
    expect(dateOrderOf('24/11/26 10:00:00 x', modified)).toEqual({ order: 'day-first', certain: true });
    expect(dateOrderOf('03.10.26 10:00:00 x', modified)).toEqual({ order: 'day-first', certain: true });
    expect(dateOrderOf('10/03/26 10:00:00 x', modified)?.certain).toBe(false);
    expect(dateOrderOf('order LX-1 taken', modified)).toBeNull();
  });

  test('gives back what was written, whichever other order it is read in, and none where that is no date', () => {
    const orders = fc.constantFrom('day-first' as const, 'month-first' as const, 'year-first' as const);
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 20_000 }), fc.nat(86_399), orders, orders, (day, second, read, other) => {
        const at = (dayNumber(2001, 1, 1) + (day % 9000)) * 86_400_000_000 + second * 1_000_000;
        const turned = readInOrder(at, read, other);
        if (Number.isNaN(turned)) return;
        expect(((turned % 86_400_000_000) + 86_400_000_000) % 86_400_000_000).toBe(second * 1_000_000);
        const date = new Date(turned / 1000);
        if (date.getUTCDate() <= 28) expect(readInOrder(turned, other, read)).toBe(at);
      }),
    );
    expect(readInOrder(Date.UTC(2026, 10, 24) * 1000, 'day-first', 'month-first')).toBeNaN();
    expect(readInOrder(Date.UTC(2026, 2, 10, 7) * 1000, 'day-first', 'month-first')).toBe(Date.UTC(2026, 9, 3, 7) * 1000);
  });
});
