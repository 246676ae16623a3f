import { describe, expect, test } from '@jest/globals';
import { alike, renewed, renewedReadings } from './account.ts';
import { shiftAt } from './shift.ts';
import type { ClockSpan } from './types.ts';

const HOUR = 3_600_000_000;
const span = (from: number, to: number, ahead: number, more: Partial<ClockSpan> = {}): ClockSpan => ({ from: from * HOUR, to: to * HOUR, ahead, drift: 0, within: 1000, ...more }); // prettier-ignore

describe('what is known of a clock', () => {
  test('stays outside of a window that is looked at anew, and goes on where it drifted to', () => {
    const day = [span(0, 24, 1_000_000, { drift: 20e-6 })];
    const now = renewed(day, [span(5, 6, 7_000_000)], 5 * HOUR, 6 * HOUR);
    expect(now.map((one) => [one.from / HOUR, one.to / HOUR])).toEqual([[0, 5], [5, 6], [6, 24]]); // prettier-ignore
    for (const hour of [1, 4, 7, 20]) expect(shiftAt(now, hour * HOUR)).toBe(shiftAt(day, hour * HOUR));
    expect(shiftAt(now, 5.5 * HOUR)).toBe(-7_000_000);
  });
  test('is not undone by a window that says nothing', () => {
    expect(renewed([span(0, 24, 5)], [], 5 * HOUR, 6 * HOUR)).toEqual([span(0, 24, 5)]);
  });
  test('readings inside of the window are replaced', () => {
    const reading = (from: number) => ({ from: from * HOUR, to: (from + 1) * HOUR, low: 0, high: 1, hops: 9 });
    expect(renewedReadings([reading(0), reading(5), reading(9)], [reading(6)], 5 * HOUR, 7 * HOUR)).toEqual([reading(0), reading(6), reading(9)]);
  });
  test('is alike within its uncertainty, but for the minute in which a clock was set', () => {
    expect(alike([span(0, 24, 1_000_000)], [span(0, 24, 1_004_000)], [])).toBe(true);
    expect(alike([span(0, 24, 1_000_000)], [span(0, 24, 1_009_000)], [])).toBe(false);
    expect(alike([span(0, 24, 1_000_000)], [], [])).toBe(false);
    expect(alike([span(0, 24, 0)], [], [])).toBe(true);
    const set = (hour: number): ClockSpan[] => [span(0, hour, 2_000_000), span(hour, 24, 0)];
    expect(alike(set(12), set(12 + 0.5 / 60), [])).toBe(true);
    expect(alike(set(12), set(14), [])).toBe(false);
  });
});
