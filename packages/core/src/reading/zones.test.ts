import { describe, expect, test } from '@jest/globals';
import { abbreviationOffset, isZone, zoneClock } from './zones.ts';

const HOUR = 3_600_000;
const local = (text: string): number => Date.parse(`${text}Z`) * 1000;

describe('zones', () => {
  test('offsets follow the zone’s own changes', () => {
    const berlin = zoneClock('Europe/Berlin');
    expect(berlin.offsetAt(Date.parse('2026-01-15T12:00:00Z'))).toBe(HOUR);
    expect(berlin.offsetAt(Date.parse('2026-07-15T12:00:00Z'))).toBe(2 * HOUR);
    expect(zoneClock('Asia/Kolkata').offsetAt(0)).toBe(5.5 * HOUR);
    expect(zoneClock('America/St_Johns').offsetAt(Date.parse('2026-01-15T12:00:00Z'))).toBe(-3.5 * HOUR);
  });
  test('an offset is the platform’s at each instant, also on the day of a change', () => {
    const clock = zoneClock('Europe/Berlin');
    const change = Date.UTC(2026, 9, 25, 1);
    for (const at of [change - 1000, change, change + 1000, change - 1000, change - 40 * 3_600_000, change + 40 * 3_600_000])
      expect(clock.offsetAt(at)).toBe(at < change ? 7_200_000 : 3_600_000);
    // before zones there was local time
    expect(zoneClock('Europe/Berlin').offsetAt(Date.UTC(1880, 0, 1))).toBe(3_208_000);
  });
  test('local time becomes UTC on both sides of a change', () => {
    const berlin = zoneClock('Europe/Berlin');
    for (const [wall, utc] of [
      ['2026-03-29T01:59:59', '2026-03-29T00:59:59'],
      ['2026-03-29T03:00:00', '2026-03-29T01:00:00'],
      ['2026-10-25T01:59:59', '2026-10-24T23:59:59'],
      ['2026-10-25T03:00:00', '2026-10-25T02:00:00'],
    ] as const) {
      expect(berlin.toUtc(local(wall))).toBe(local(utc));
    }
  });
  test('a name that is no zone is told', () => {
    expect(isZone('Europe/Berlin')).toBe(true);
    expect(isZone('Mars/Base')).toBe(false);
    expect(isZone('')).toBe(false);
  });
  test('abbreviations with one meaning are known, others are not', () => {
    expect([abbreviationOffset('CET'), abbreviationOffset('MESZ'), abbreviationOffset('EST')]).toEqual([60, 120, -300]);
    expect(abbreviationOffset('XYZ')).toBeNaN();
    expect(abbreviationOffset('constructor')).toBeNaN();
  });
});
